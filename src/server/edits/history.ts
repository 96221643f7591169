import { sql, type Transaction } from 'kysely';
import * as v from 'valibot';
import { changesSchema, type Change } from '@/core/model/edits';
import { database, type Db } from '../database/connection';
import type { Database } from '../database/schema';
import { notFound, Problem } from '../problem';
import { applyRows } from './applyRows';
import { expectFree, type Held } from './held';
import { append, changedMeanwhile, lockHead, type Head } from './editLog';

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
  held: Held | null;
}

export type Way = 'undo' | 'redo';

/** A step of undo or redo: what the window saw, and the edit that it means to take back. */
export interface HistoryStep {
  seen: number;
  target: number | null;
  clientId: string;
  window: string | null;
  person: string | null;
}

/**
 * Takes the last edit back, or does the last one taken back again. Both are edits of their own in the log; each
 * carries the tops of undo and redo as they were, so that a step costs the same however long the log is.
 */
export async function stepHistory(project: string, way: Way, step: HistoryStep): Promise<number> {
  return database()
    .transaction()
    .execute(async (tx) => {
      const head = await lockHead(tx, project, step.clientId);
      if (head.repeated) return head.version;
      await expectFree(tx, project);
      const top = await topOf(tx, project, way, step, head);
      const target = await tx
        .selectFrom('edits')
        .select(['label', 'inverse', 'undoes', 'previous_undo', 'previous_redo'])
        .where('project_id', '=', project)
        .where('seq', '=', top)
        .executeTakeFirst();
      // The log may have been compacted since.
      if (!target) throw nothingLeft(way, head);
      const seq = head.version + 1;
      const changes = v.parse(changesSchema, target.inverse);
      const inverse = await applyRows(tx, project, changes);
      // A redo takes back an undo; what that one had taken back is again what undo takes next.
      const tops =
        way === 'undo'
          ? { undoTop: target.previous_undo, redoTop: seq }
          : { undoTop: target.undoes, redoTop: target.previous_redo };
      await append(tx, project, seq, {
        clientId: step.clientId,
        window: step.window,
        person: step.person,
        label: way === 'undo' ? `Undo: ${target.label}` : target.label.replace(/^Undo: /, 'Redo: '),
        changes,
        inverse,
        undoes: top,
        previousUndo: target.previous_undo,
        previousRedo: head.redoTop,
        ...tops,
      });
      return seq;
    });
}

const nothingLeft = (way: Way, { version }: Head): Problem =>
  new Problem(409, `There is nothing to ${way}.`, { version });

/** The edit to be taken back: what the window means has to be what the project would take. */
async function topOf(tx: Transaction<Database>, project: string, way: Way, step: HistoryStep, head: Head) {
  const top = way === 'undo' ? head.undoTop : head.redoTop;
  if (step.seen !== head.version && step.target !== top) {
    const since = await tx
      .selectFrom('edits')
      .select('label')
      .where('project_id', '=', project)
      .where('seq', '>', step.seen)
      .orderBy('seq', 'desc')
      .limit(3)
      .execute();
    throw changedMeanwhile(
      since.map(({ label }) => label),
      head.version,
    );
  }
  if (top === null) throw nothingLeft(way, head);
  return top;
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
  const { rows } = await sql<HeadRow & { edits: LoggedEdit[] | null }>`
    select ${headColumns}, (
      select json_agg(json_build_object(
        'seq', seq,
        'label', label,
        'clientId', client_id,
        'changes', case when client_id = ${knows}::uuid then null else changes end,
        'at', created_at
      )) from (
        select * from edits where project_id = ${project} and seq > ${version} order by seq limit ${mostEdits}
      ) as newer
    ) as edits
    ${headOf(project)}
  `.execute(database());
  return { edits: rows[0]?.edits ?? [], history: historyOfRow(rows[0]) };
}

export async function historyOf(db: Db, project: string): Promise<History> {
  const { rows } = await sql<HeadRow>`select ${headColumns} ${headOf(project)}`.execute(db);
  return historyOfRow(rows[0]);
}

interface HeadRow {
  version: number;
  undo_seq: number | null;
  redo_seq: number | null;
  undo: string | null;
  redo: string | null;
  updated_at: Date;
  held_at: Date | null;
  held_by: string | null;
}

const headColumns = sql`
  project.version, project.updated_at, project.held_at, project.held_by, undoing.seq as undo_seq,
  undoing.label as undo, redoing.seq as redo_seq, redoing.label as redo
`;

const headOf = (id: string) => sql`
  from projects as project
  left join edits as undoing on undoing.project_id = project.id and undoing.seq = project.undo_top
  left join edits as redoing on redoing.project_id = project.id and redoing.seq = project.redo_top
  where project.id = ${id} and project.deleted_at is null
`;

function historyOfRow(row: HeadRow | undefined): History {
  if (row === undefined) throw notFound('This project');
  return {
    version: row.version,
    undo: row.undo,
    redo: row.redo?.replace(/^Undo: /, '') ?? null,
    undoSeq: row.undo_seq,
    redoSeq: row.redo_seq,
    savedAt: row.version > 0 ? row.updated_at.toISOString() : null,
    held: row.held_at === null ? null : { at: row.held_at.toISOString(), by: row.held_by },
  };
}
