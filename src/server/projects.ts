import { picturesOf } from './projectPictures';
import { sql } from 'kysely';
import { database } from './database/connection';
import { sweepFiles } from './files';
import { seenBy } from './people/rights';
import type { Person } from './people/sessions';
import { notFound, Problem } from './problem';

/** A project in the list. */
export interface ProjectCard {
  id: string;
  name: string;
  updatedAt: string;
  deletedAt: string | null;
  drawings: number;
  elements: number;
  levels: number;
  /**
   * A small picture: x1 y1 x2 y2 of straight lines, of its walls and columns, else of a drawing; empty where there is
   * none.
   */
  picture: number[];
}

/** @param who lists those that they may see; null, where nobody signs in, all of them */
export async function listProjects(who: Person | null = null): Promise<ProjectCard[]> {
  const rows = await database()
    .selectFrom('projects')
    .select((eb) => [
      'id',
      'name',
      'updated_at',
      'deleted_at',
      eb
        .selectFrom('drawings')
        .whereRef('project_id', '=', 'projects.id')
        .where('discarded', '=', false)
        .select(eb.fn.countAll<number>().as('n'))
        .as('drawings'),
      eb
        .selectFrom('elements')
        .whereRef('project_id', '=', 'projects.id')
        .select(eb.fn.countAll<number>().as('n'))
        .as('elements'),
      eb
        .selectFrom('levels')
        .whereRef('project_id', '=', 'projects.id')
        .select(eb.fn.countAll<number>().as('n'))
        .as('levels'),
    ])
    .$if(who !== null, (query) => query.where(seenBy(who!)))
    .orderBy('updated_at', 'desc')
    .execute();
  const pictures = await picturesOf(rows.map(({ id }) => id));
  return rows.map((row) => ({
    id: row.id,
    name: row.name,
    updatedAt: row.updated_at.toISOString(),
    deletedAt: row.deleted_at?.toISOString() ?? null,
    drawings: Number(row.drawings),
    elements: Number(row.elements),
    levels: Number(row.levels),
    picture: pictures.get(row.id) ?? [],
  }));
}

/** That a project is there. @throws Problem 404 */
export async function expectProject(id: string): Promise<void> {
  const row = await database()
    .selectFrom('projects')
    .select('id')
    .where('id', '=', id)
    .where('deleted_at', 'is', null)
    .executeTakeFirst();
  if (!row) throw notFound('This project');
}

/** Marks a project as deleted, or takes the mark away. */
export async function setDeleted(id: string, deleted: boolean): Promise<void> {
  const done = await database()
    .updateTable('projects')
    .set({ deleted_at: deleted ? new Date() : null })
    .where('id', '=', id)
    .where('deleted_at', deleted ? 'is' : 'is not', null)
    .returning('id')
    .executeTakeFirst();
  if (!done) throw notFound('This project');
  await sql`select pg_notify('zircon', ${JSON.stringify({ project: id, version: -1 })})`.execute(database());
}

/** Deletes for good a project that was marked as deleted before. */
export async function purgeProject(id: string): Promise<void> {
  await database()
    .transaction()
    .execute(async (tx) => {
      const row = await tx.selectFrom('projects').select('deleted_at').where('id', '=', id).executeTakeFirst();
      if (!row) throw notFound('This project');
      if (!row.deleted_at) throw new Problem(409, 'Only a deleted project can be removed for good. Delete it first.');
      await sql`set constraints all deferred`.execute(tx);
      await tx.deleteFrom('projects').where('id', '=', id).execute();
      await sweepFiles(tx);
    });
}
