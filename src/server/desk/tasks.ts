import * as v from 'valibot';
import { editSchema } from '@/core/model/edits';
import { uuid } from '@/core/kinds/limits';
import { applyEdit } from '../edits/applyEdit';
import { editsSince, stepHistory, type Since, type Way } from '../edits/history';
import { jsonAs } from '../json';
import { packedSnapshot } from '../snapshot';

/** What the desk's thread is asked to do; bodies are a request's bytes as they came. */
export type Task =
  | { what: 'edit'; project: string; body: Uint8Array }
  | { what: 'step'; project: string; way: Way; body: Uint8Array }
  | { what: 'since'; project: string; version: number }
  | { what: 'state'; project: string };

/** JSON to be sent on as it is. */
export interface Done {
  bytes: Uint8Array;
  gzipped: boolean;
}

const version = v.pipe(v.number(), v.integer(), v.minValue(0));

const editRequest = v.strictObject({ seen: version, clientId: uuid, edit: editSchema });
const stepRequest = v.strictObject({ seen: version, target: v.optional(v.nullable(version), null), clientId: uuid });

export async function perform(task: Task): Promise<Done> {
  switch (task.what) {
    case 'edit': {
      const { seen, clientId, edit } = jsonAs(editRequest, task.body);
      await applyEdit(task.project, seen, edit, clientId);
      return asJson(await editsSince(task.project, seen, clientId));
    }
    case 'step': {
      const step = jsonAs(stepRequest, task.body);
      await stepHistory(task.project, task.way, step);
      return asJson(await editsSince(task.project, step.seen));
    }
    case 'since':
      return asJson(await editsSince(task.project, task.version));
    case 'state':
      return { bytes: new Uint8Array(await packedSnapshot(task.project)), gzipped: true };
  }
}

const asJson = (since: Since): Done => ({ bytes: new TextEncoder().encode(JSON.stringify(since)), gzipped: false });
