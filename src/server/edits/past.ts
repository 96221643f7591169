import { sql, type Transaction } from 'kysely';
import * as v from 'valibot';
import { changesSchema, type Change } from '@/core/model/edits';
import { database } from '../database/connection';
import type { Database } from '../database/schema';
import { notFound, Problem } from '../problem';
import { applyRows } from './applyRows';
import { append, changedMeanwhile, lockHead } from './editLog';
import { expectFree } from './held';

/** An edit as the list of a project's past shows it; it is the project as it was after it. */
export interface PastEdit {
  seq: number;
  label: string;
  at: string;
  /** The window it came from, by its id; null where that is not known. */
  window: string | null;
  /** Who made it; null where nobody signs in. */
  person: string | null;
  /** How many rows it changed. */
  rows: number;
  /** What somebody has called this point. */
  mark: string | null;
}

/** Edits that one answer holds. */
const mostListed = 100;

/** The edits of a project, the newest first, from before a place of the log on. */
export async function pastOf(project: string, before: number | null): Promise<PastEdit[]> {
  const { rows } = await sql<PastEdit & { at: Date | string }>`
    select edits.seq, edits.label, edits.created_at as at, edits.window_id as window, edits.person,
      cardinality(edits.touched) as rows, edit_marks.name as mark
    from edits
    left join edit_marks on edit_marks.project_id = edits.project_id and edit_marks.seq = edits.seq
    where edits.project_id = ${project} and (${before}::integer is null or edits.seq < ${before})
    order by edits.seq desc
    limit ${mostListed}
  `.execute(database());
  return rows.map((row) => ({ ...row, at: new Date(row.at).toISOString() }));
}

/** Names the project as it is after an edit; an empty name takes the mark away. */
export async function markPoint(project: string, seq: number, name: string): Promise<void> {
  const known = await database()
    .selectFrom('edits')
    .select('seq')
    .where('project_id', '=', project)
    .where('seq', '=', seq)
    .executeTakeFirst();
  if (!known) throw notFound('This edit');
  if (name === '')
    await database().deleteFrom('edit_marks').where('project_id', '=', project).where('seq', '=', seq).execute();
  else
    await database()
      .insertInto('edit_marks')
      .values({ project_id: project, seq, name })
      .onConflict((conflict) => conflict.columns(['project_id', 'seq']).doUpdateSet({ name }))
      .execute();
}

/** What going back needs to know: what the window saw, and the edit that is to be the last one. */
export interface WayBack {
  seen: number;
  to: number;
  clientId: string;
  window: string | null;
  person: string | null;
}

/** Going back over more rows than this is a backup's task. */
const mostRows = 50_000;

/**
 * Puts the project as it was after an edit, as a new edit that undo takes back as a whole. What came after stays in
 * the log.
 */
export async function goBack(project: string, { seen, to, clientId, window, person }: WayBack): Promise<number> {
  return database()
    .transaction()
    .execute(async (tx) => {
      const head = await lockHead(tx, project, clientId);
      if (head.repeated) return head.version;
      await expectFree(tx, project);
      if (seen !== head.version) throw changedMeanwhile(['later edits'], head.version);
      const changes = await changesBack(tx, project, to, head.version);
      const label = await labelOf(tx, project, to);
      const inverse = await applyRows(tx, project, changes);
      const seq = head.version + 1;
      await append(tx, project, seq, {
        clientId,
        window,
        person,
        label: `Go back to \u201c${label}\u201d`.slice(0, 200),
        changes,
        inverse,
        undoes: null,
        previousUndo: head.undoTop,
        previousRedo: null,
        undoTop: seq,
        redoTop: null,
      });
      return seq;
    });
}

async function labelOf(tx: Transaction<Database>, project: string, seq: number): Promise<string> {
  const edit = await tx
    .selectFrom('edits')
    .select('label')
    .where('project_id', '=', project)
    .where('seq', '=', seq)
    .executeTakeFirst();
  if (!edit) throw notFound('This edit');
  return edit.label;
}

/** Of every row that was changed since, what it was: what the oldest of the later edits found. */
async function changesBack(tx: Transaction<Database>, project: string, to: number, version: number): Promise<Change[]> {
  if (to >= version) throw new Problem(400, 'The project is there already.');
  const later = await tx
    .selectFrom('edits')
    .select('inverse')
    .where('project_id', '=', project)
    .where('seq', '>', to)
    .orderBy('seq', 'desc')
    .execute();
  if (later.length < version - to) throw new Problem(409, 'The log was compacted since: it does not lead back so far.');
  const rows = new Map<string, Change>();
  for (const { inverse } of later)
    for (const change of v.parse(changesSchema, inverse)) rows.set(`${change.table} ${change.id}`, change);
  if (rows.size > mostRows)
    throw new Problem(
      413,
      `Going back there changes ${rows.size} rows; at most ${mostRows} go in one edit. Restore a backup.`,
    );
  return [...rows.values()];
}
