import * as v from 'valibot';
import { editSchema } from '@/core/model/edits';
import { uuid } from '@/core/kinds/limits';
import { applyEdit } from '../edits/applyEdit';
import { goBack } from '../edits/past';
import { editsSince, stepHistory, type Since, type Way } from '../edits/history';
import { jsonAs } from '../json';
import { takeInModel } from '../newProjects';
import { giveOwner } from '../people/rights';
import { packedSnapshot } from '../snapshot';

/** What the desk's thread is asked to do; bodies are a request's bytes as they came, `by` is who asks. */
export type Task =
  | { what: 'edit'; project: string; by: string | null; body: Uint8Array }
  | { what: 'step'; project: string; by: string | null; way: Way; body: Uint8Array }
  | { what: 'back'; project: string; by: string | null; body: Uint8Array }
  | { what: 'since'; project: string; version: number }
  | { what: 'state'; project: string }
  | { what: 'model'; fileName: string; owner: string | null; body: Uint8Array };

/** JSON to be sent on as it is. */
export interface Done {
  bytes: Uint8Array;
  gzipped: boolean;
}

const version = v.pipe(v.number(), v.integer(), v.minValue(0));

/** What every request to change something says: what its window saw, its own id, and the window's. */
const sent = { seen: version, clientId: uuid, window: v.optional(v.nullable(uuid), null) };

const editRequest = v.strictObject({ ...sent, edit: editSchema });
const stepRequest = v.strictObject({ ...sent, target: v.optional(v.nullable(version), null) });
const backRequest = v.strictObject({ ...sent, to: version });

export async function perform(task: Task): Promise<Done> {
  switch (task.what) {
    case 'edit': {
      const { seen, clientId, window, edit } = jsonAs(editRequest, task.body);
      await applyEdit(task.project, seen, edit, { clientId, window, person: task.by });
      return asJson(await editsSince(task.project, seen, clientId));
    }
    case 'step': {
      const step = { ...jsonAs(stepRequest, task.body), person: task.by };
      await stepHistory(task.project, task.way, step);
      return asJson(await editsSince(task.project, step.seen));
    }
    case 'back': {
      const back = { ...jsonAs(backRequest, task.body), person: task.by };
      await goBack(task.project, back);
      return asJson(await editsSince(task.project, back.seen));
    }
    case 'since':
      return asJson(await editsSince(task.project, task.version));
    case 'state':
      return { bytes: new Uint8Array(await packedSnapshot(task.project)), gzipped: true };
    case 'model': {
      const taken = await takeInModel(task.fileName, new TextDecoder().decode(task.body));
      await giveOwner(taken.id, task.owner);
      return asJson(taken);
    }
  }
}

const asJson = (answer: Since | Awaited<ReturnType<typeof takeInModel>>): Done => ({
  bytes: new TextEncoder().encode(JSON.stringify(answer)),
  gzipped: false,
});
