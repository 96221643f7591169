import { randomUUID } from 'node:crypto';
import type { Transaction } from 'kysely';
import type { Edit } from '@/core/model/edits';
import { database } from '../database/connection';
import type { Database } from '../database/schema';
import { applyRows } from './applyRows';
import { expectSingle } from './doubles';
import { append, lockHead, refuseConflicts } from './editLog';
import { expectFree } from './held';
import { expectKnownFiles } from './knownFiles';
import { expectSound } from './soundness';

type Tx = Transaction<Database>;

/**
 * Where an edit comes from: its id, so that a repeated request is applied once, its window, its person, and the
 * transaction that it is part of.
 */
interface Origin {
  clientId?: string;
  window?: string | null;
  person?: string | null;
  within?: Tx;
}

/**
 * Applies an edit in one transaction. Where others have edited since, it is applied on top of that, unless it changes
 * a row that they have changed too.
 * @param seen the version the editor saw; null where the program itself edits what is new
 * @param origin who sends it, and the transaction that it is part of
 * @returns the project's new version
 */
export async function applyEdit(
  project: string,
  seen: number | null,
  edit: Edit,
  { clientId = randomUUID(), window = null, person = null, within }: Origin = {},
): Promise<number> {
  const work = async (tx: Tx) => {
    const head = await lockHead(tx, project, clientId);
    if (head.repeated) return head.version;
    if (seen !== null) {
      await expectFree(tx, project);
      await refuseConflicts(tx, project, seen, head, edit.changes);
      await expectKnownFiles(tx, project, edit.changes);
    }
    const inverse = await applyRows(tx, project, edit.changes);
    if (seen !== null) {
      await expectSound(tx, project, edit.changes, inverse);
      await expectSingle(tx, project, edit.changes, inverse);
    }
    const seq = head.version + 1;
    await append(tx, project, seq, {
      clientId,
      window,
      person,
      label: edit.label,
      changes: edit.changes,
      inverse,
      undoes: null,
      previousUndo: head.undoTop,
      previousRedo: null,
      undoTop: seq,
      redoTop: null,
    });
    return seq;
  };
  return within ? work(within) : database().transaction().execute(work);
}
