import { sql } from 'kysely';
import { database, type Db } from '../database/connection';
import { notFound, Problem } from '../problem';

/** Since when a project is held as it is, and by whom; null of one that can be changed. */
export interface Held {
  at: string;
  /** Null where nobody signs in. */
  by: string | null;
}

/**
 * Holds a project as it is, so that nobody changes it while it is handed over, or lets it go.
 * @param by who holds it; null where nobody signs in
 */
export async function setHeld(project: string, held: boolean, by: string | null): Promise<void> {
  const db = database();
  const done = await db
    .updateTable('projects')
    .set({ held_at: held ? new Date() : null, held_by: held ? by : null })
    .where('id', '=', project)
    .where('deleted_at', 'is', null)
    .returning('id')
    .executeTakeFirst();
  if (!done) throw notFound('This project');
  // Windows ask how the project is when they hear of a version below zero.
  await sql`select pg_notify('zircon', ${JSON.stringify({ project, version: -1 })})`.execute(db);
}

/** @throws Problem 423 where a project is held */
export async function expectFree(db: Db, project: string): Promise<void> {
  const row = await db
    .selectFrom('projects')
    .select(['held_at', 'held_by'])
    .where('id', '=', project)
    .executeTakeFirst();
  if (row?.held_at == null) return;
  const by = row.held_by === null ? '' : ` by ${row.held_by}`;
  throw new Problem(423, `This project is held as it is${by}, for a handover. Let it go at Handover to change it.`);
}
