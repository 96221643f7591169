import { randomUUID } from 'node:crypto';
import { sql, type Transaction } from 'kysely';
import * as v from 'valibot';
import { changesSchema, type Change, type Edit } from '@/core/model/edits';
import { tableNames, type TableName } from '@/core/model/state';
import { database, type Db } from './database/connection';
import type { Database } from './database/schema';
import { notFound, Problem } from './problem';
import { tableAccess } from './rows';

type Tx = Transaction<Database>;

/** An edit as windows hear of it. */
export interface LoggedEdit {
  seq: number;
  label: string;
  /** The id that whoever sent it gave it. */
  clientId: string;
  /** Null where whoever asks has sent it, and has them. */
  changes: Change[] | null;
  at: string;
}

/** What undo and redo would do next, in words. */
export interface History {
  version: number;
  undo: string | null;
  redo: string | null;
  /** The edits that undo and redo would take back. */
  undoSeq: number | null;
  redoSeq: number | null;
  savedAt: string | null;
}

/** Rows go to the database in groups of this many, below its limit of 65,535 parameters a statement. */
const group = 2000;

interface Head {
  version: number;
  undo_top: number | null;
  redo_top: number | null;
}

/** Locks a project for an edit. */
async function lock(tx: Tx, project: string): Promise<Head> {
  const head = await tx
    .selectFrom('projects')
    .select(['version', 'undo_top', 'redo_top', 'deleted_at'])
    .where('id', '=', project)
    .forUpdate()
    .executeTakeFirst();
  if (!head || head.deleted_at) throw notFound('This project');
  return head;
}

/** Applies changes inside a transaction and returns the way back. */
async function applyRows(tx: Tx, project: string, changes: readonly Change[]): Promise<Change[]> {
  const inverse: Change[] = [];
  for (const table of tableNames) {
    const here = changes.filter((change) => change.table === table);
    if (here.length === 0) continue;
    if (new Set(here.map((change) => change.id)).size !== here.length)
      throw new Problem(400, 'The edit changes one row twice.');
    const ids = here.map((change) => change.id);
    const before = new Map<string, unknown>();
    for (let i = 0; i < ids.length; i += group)
      for (const row of await tableAccess(table).load(tx, project, ids.slice(i, i + group))) before.set(row.id, row);
    for (const { id } of here) inverse.push({ table, id, row: before.get(id) ?? null } as Change);
    const removed = here.filter((change) => change.row === null).map((change) => change.id);
    const rows = here.flatMap((change) => (change.row === null ? [] : [change.row]));
    for (let i = 0; i < removed.length; i += group)
      await tableAccess(table).remove(tx, project, removed.slice(i, i + group));
    for (let i = 0; i < rows.length; i += group) await putRows(tx, table, project, rows.slice(i, i + group));
  }
  return inverse;
}

const putRows = (tx: Tx, table: TableName, project: string, rows: unknown[]) =>
  tableAccess(table).put(tx, project, rows as never);

/** A row of the log in the making; `undo` and `redo` are the tops after it. */
interface LogEntry {
  clientId: string;
  label: string;
  changes: Change[];
  inverse: Change[];
  undoes: number | null;
  previousUndo: number | null;
  previousRedo: number | null;
}

async function append(
  tx: Tx,
  project: string,
  seq: number,
  entry: LogEntry,
  undoTop: number | null,
  redoTop: number | null,
): Promise<void> {
  await tx
    .insertInto('edits')
    .values({
      project_id: project,
      seq,
      client_id: entry.clientId,
      label: entry.label,
      changes: JSON.stringify(entry.changes) as never,
      inverse: JSON.stringify(entry.inverse) as never,
      undoes: entry.undoes,
      previous_undo: entry.previousUndo,
      previous_redo: entry.previousRedo,
    })
    .execute();
  await tx
    .updateTable('projects')
    .set({ version: seq, undo_top: undoTop, redo_top: redoTop, updated_at: sql`now()` })
    .where('id', '=', project)
    .execute();
  await sql`set constraints all immediate`.execute(tx);
  // Another edit of the same transaction may again pass through states that only its end mends.
  await sql`set constraints all deferred`.execute(tx);
  await sql`select pg_notify('zircon', ${JSON.stringify({ project, version: seq })})`.execute(tx);
}

/** Refuses what was decided on an older state, and says what changed since. */
async function refuseStale(tx: Tx, project: string, seen: number, head: Head): Promise<void> {
  if (seen === head.version) return;
  const since = await tx
    .selectFrom('edits')
    .select('label')
    .where('project_id', '=', project)
    .where('seq', '>', seen)
    .orderBy('seq', 'desc')
    .limit(3)
    .execute();
  const what = since.map((edit) => `\u201c${edit.label}\u201d`).join(', ');
  throw new Problem(
    409,
    `Not applied: the project changed in another window (${what || 'it was put back'}). It is shown here as it is now; look, and do the step again if it still makes sense.`,
    { version: head.version },
  );
}

/** The answer to an edit that came before, under the same client id: its effect is there, once. */
async function repeated(tx: Tx, project: string, clientId: string): Promise<boolean> {
  return (
    (await tx
      .selectFrom('edits')
      .select('seq')
      .where('project_id', '=', project)
      .where('client_id', '=', clientId)
      .executeTakeFirst()) !== undefined
  );
}

/**
 * Applies an edit in one transaction.
 * @param seen the version the editor saw; null where the program itself edits what is new
 * @param clientId chosen by the editor, so that a repeated request is applied once
 * @returns the project's new version
 */
export async function applyEdit(
  project: string,
  seen: number | null,
  edit: Edit,
  clientId: string = randomUUID(),
  within?: Tx,
): Promise<number> {
  const work = async (tx: Tx) => {
    const head = await lock(tx, project);
    if (await repeated(tx, project, clientId)) return head.version;
    if (seen !== null) await refuseStale(tx, project, seen, head);
    const inverse = await applyRows(tx, project, edit.changes);
    const seq = head.version + 1;
    await append(
      tx,
      project,
      seq,
      {
        clientId,
        label: edit.label,
        changes: edit.changes,
        inverse,
        undoes: null,
        previousUndo: head.undo_top,
        previousRedo: null,
      },
      seq,
      null,
    );
    return seq;
  };
  return within ? work(within) : database().transaction().execute(work);
}

/**
 * Takes the last edit back, or does the last one taken back again. Both are edits of their own in the log; each
 * carries the tops of undo and redo as they were, so that a step costs the same however long the log is.
 */
export async function stepHistory(
  project: string,
  way: 'undo' | 'redo',
  seen: number,
  clientId: string,
): Promise<number> {
  return database()
    .transaction()
    .execute(async (tx) => {
      const head = await lock(tx, project);
      if (await repeated(tx, project, clientId)) return head.version;
      await refuseStale(tx, project, seen, head);
      const top = way === 'undo' ? head.undo_top : head.redo_top;
      if (top === null)
        throw new Problem(409, way === 'undo' ? 'There is nothing to undo.' : 'There is nothing to redo.', {
          version: head.version,
        });
      const target = await tx
        .selectFrom('edits')
        .selectAll()
        .where('project_id', '=', project)
        .where('seq', '=', top)
        .executeTakeFirstOrThrow();
      const seq = head.version + 1;
      const changes = v.parse(changesSchema, target.inverse);
      const inverse = await applyRows(tx, project, changes);
      const label = way === 'undo' ? `Undo: ${target.label}` : target.label.replace(/^Undo: /, 'Redo: ');
      const entry: LogEntry = {
        clientId,
        label,
        changes,
        inverse,
        undoes: top,
        previousUndo: target.previous_undo,
        previousRedo: head.redo_top,
      };
      if (way === 'undo') await append(tx, project, seq, entry, target.previous_undo, seq);
      // A redo takes back an undo; what that one had taken back is again what undo takes next.
      else await append(tx, project, seq, entry, target.undoes, target.previous_redo);
      return seq;
    });
}

/** What a window gets that asks for what it has not seen. */
export interface Since {
  edits: LoggedEdit[];
  history: History;
}

/** A window that has not seen more edits than this better loads the project anew. */
const mostEdits = 100;

/**
 * The edits after a version, oldest first, and how far the project is, both of one moment. Of more than a hundred the
 * first are given.
 * @param knows the id of an edit whose changes whoever asks has, and need not be sent
 */
export async function editsSince(project: string, version: number, knows: string | null = null): Promise<Since> {
  return database()
    .transaction()
    .setIsolationLevel('repeatable read')
    .execute(async (tx) => {
      const rows = await tx
        .selectFrom('edits')
        .select(['seq', 'label', 'client_id', 'created_at'])
        .select((eb) =>
          eb
            .case()
            .when('client_id', '=', knows)
            .then(null)
            .else(eb.ref('changes'))
            .end()
            .$castTo<Change[] | null>()
            .as('changes'),
        )
        .where('project_id', '=', project)
        .where('seq', '>', version)
        .orderBy('seq')
        .limit(mostEdits)
        .execute();
      const edits = rows.map(({ seq, label, client_id: clientId, changes, created_at: at }) => ({
        seq,
        label,
        clientId,
        changes,
        at: at.toISOString(),
      }));
      return { edits, history: await historyOf(tx, project) };
    });
}

export async function historyOf(db: Db, project: string): Promise<History> {
  const head = await db
    .selectFrom('projects')
    .select(['version', 'undo_top', 'redo_top', 'updated_at'])
    .where('id', '=', project)
    .where('deleted_at', 'is', null)
    .executeTakeFirst();
  if (!head) throw notFound('This project');
  const label = async (seq: number | null) =>
    seq === null
      ? null
      : ((
          await db
            .selectFrom('edits')
            .select('label')
            .where('project_id', '=', project)
            .where('seq', '=', seq)
            .executeTakeFirst()
        )?.label ?? null);
  return {
    version: head.version,
    undo: await label(head.undo_top),
    redo: (await label(head.redo_top))?.replace(/^Undo: /, '') ?? null,
    undoSeq: head.undo_top,
    redoSeq: head.redo_top,
    savedAt: head.version > 0 ? head.updated_at.toISOString() : null,
  };
}
