import { sql, type Transaction } from 'kysely';
import type { Change } from '@/core/model/edits';
import type { Database } from '../database/schema';
import { notFound, Problem } from '../problem';

type Tx = Transaction<Database>;

/** Where a project is in its log, and whether the log holds an edit of some id already. */
export interface Head {
  version: number;
  undoTop: number | null;
  redoTop: number | null;
  repeated: boolean;
}

/** Locks a project for an edit. @param clientId of the edit to come */
export async function lockHead(tx: Tx, project: string, clientId: string): Promise<Head> {
  const head = await tx
    .selectFrom('projects')
    .select(['version', 'undo_top', 'redo_top', 'deleted_at'])
    .select((eb) =>
      eb
        .exists(
          eb
            .selectFrom('edits')
            .select('seq')
            .where('edits.project_id', '=', project)
            .where('edits.client_id', '=', clientId),
        )
        .as('repeated'),
    )
    .where('id', '=', project)
    .forUpdate()
    .executeTakeFirst();
  if (!head || head.deleted_at) throw notFound('This project');
  const { version, undo_top: undoTop, redo_top: redoTop, repeated } = head;
  return { version, undoTop, redoTop, repeated: Boolean(repeated) };
}

/** How the log names a row that an edit touches. */
const rowKey = ({ table, id }: Change): string => `${table} ${id}`;

/**
 * Refuses an edit of a row that was changed by others since its editor looked; edits of other rows come together.
 * @throws Problem 409 that names those edits
 */
export async function refuseConflicts(tx: Tx, project: string, seen: number, head: Head, changes: readonly Change[]) {
  if (seen === head.version) return;
  const keys = changes.map(rowKey);
  const since = await tx
    .selectFrom('edits')
    .select('label')
    .where('project_id', '=', project)
    .where('seq', '>', seen)
    .where(sql<boolean>`touched && ${keys}::text[]`)
    .orderBy('seq', 'desc')
    .limit(3)
    .execute();
  if (since.length > 0)
    throw changedMeanwhile(
      since.map(({ label }) => label),
      head.version,
    );
}

/** What is said where something was changed in another window in between. */
export function changedMeanwhile(labels: readonly string[], version: number): Problem {
  const what = labels.map((label) => `\u201c${label}\u201d`).join(', ');
  return new Problem(
    409,
    `Not applied: the same was changed in another window (${what || 'it was put back'}). It ` +
      'is shown here as it is now; look, and do the step again if it still makes sense.',
    { version },
  );
}

/** An edit as the log takes it; `undoTop` and `redoTop` are what undo and redo would take next after it. */
export interface LogEntry {
  clientId: string;
  /** The window that it comes from, by its id. */
  window: string | null;
  /** Who makes it, by name; null where nobody signs in. */
  person: string | null;
  label: string;
  changes: Change[];
  inverse: Change[];
  undoes: number | null;
  previousUndo: number | null;
  previousRedo: number | null;
  undoTop: number | null;
  redoTop: number | null;
}

/** Adds an edit to the log, moves the project on, and tells everybody, in one statement. */
export async function append(tx: Tx, project: string, seq: number, entry: LogEntry): Promise<void> {
  const notice = JSON.stringify({ project, version: seq });
  await sql`
    with logged as (
      insert into edits
        (project_id, seq, client_id, label, changes, inverse, touched, undoes, previous_undo, previous_redo, window_id,
          person)
      values (
        ${project}, ${seq}, ${entry.clientId}, ${entry.label}, ${JSON.stringify(entry.changes)}::json,
        ${JSON.stringify(entry.inverse)}::json, ${entry.changes.map(rowKey)}::text[], ${entry.undoes},
        ${entry.previousUndo}, ${entry.previousRedo}, ${entry.window}, ${entry.person}
      )
    ), moved as (
      update projects
      set version = ${seq}, undo_top = ${entry.undoTop}, redo_top = ${entry.redoTop}, updated_at = now()
      where id = ${project}
    )
    select pg_notify('zircon', ${notice})
  `.execute(tx);
}
