import { picturesOf } from './projectPictures';
import { randomUUID } from 'node:crypto';
import { sql } from 'kysely';
import { plainLevel } from '@/core/model/levels';
import type { Change } from '@/core/model/edits';
import { put } from '@/core/model/edits';
import { tableNames, type LevelRow, type ProjectState } from '@/core/model/state';
import type { DisplayUnit } from '@/core/units/length';
import { database } from './database/connection';
import { applyEdit } from './edits/applyEdit';
import { sweepFiles } from './files';
import { notFound, Problem } from './problem';
import { levelValues } from './rows/level';
import { loadState } from './rows/rows';

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

export async function listProjects(): Promise<ProjectCard[]> {
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

/** A new project with its levels; one ground level where none are given. */
export async function createProject(
  name: string,
  displayUnit: DisplayUnit = 'm',
  levels: Omit<LevelRow, 'id'>[] = [{ ...plainLevel, name: 'Ground', elevation: 0, height: 3, kind: 'ground' }],
): Promise<string> {
  const id = randomUUID();
  await database()
    .transaction()
    .execute(async (tx) => {
      await tx
        .insertInto('projects')
        .values({
          id,
          name,
          display_unit: displayUnit,
          survey: null,
          naming: null,
          reading: null,
          structure: null,
          site: null,
          places: null,
          undo_top: null,
          redo_top: null,
          deleted_at: null,
        })
        .execute();
      await tx
        .insertInto('levels')
        .values(levels.map((level) => levelValues({ id: randomUUID(), ...level }, id)))
        .execute();
    });
  return id;
}

/** A copy with everything but the log; files are shared, not copied. */
export async function duplicateProject(id: string): Promise<string> {
  const copy = randomUUID();
  await database()
    .transaction()
    .execute(async (tx) => {
      const project = await tx
        .selectFrom('projects')
        .selectAll()
        .where('id', '=', id)
        .where('deleted_at', 'is', null)
        .executeTakeFirst();
      if (!project) throw notFound('This project');
      await tx
        .insertInto('projects')
        .values({
          id: copy,
          name: `${project.name.slice(0, 113)} (copy)`,
          display_unit: project.display_unit,
          places: project.places,
          angles: project.angles,
          survey: project.survey === null ? null : JSON.stringify(project.survey),
          axes: JSON.stringify(project.axes),
          naming: project.naming === null ? null : JSON.stringify(project.naming),
          reading: project.reading === null ? null : JSON.stringify(project.reading),
          structure: project.structure === null ? null : JSON.stringify(project.structure),
          site: project.site === null ? null : JSON.stringify(project.site),
          undo_top: null,
          redo_top: null,
          deleted_at: null,
        })
        .execute();
      const changes = copiedRows(await loadState(tx, id));
      if (changes.length > 0)
        await applyEdit(copy, null, { label: `Copy of ${project.name}`, changes }, { within: tx });
      // The copy begins here: its first step is not one to take back.
      await tx.updateTable('projects').set({ undo_top: null }).where('id', '=', copy).execute();
    });
  return copy;
}

/** All rows of a state but the project's own, every id in them replaced by a fresh one. */
function copiedRows(state: ProjectState): Change[] {
  const fresh = new Map<string, string>();
  for (const table of ['level', 'library', 'drawing', 'pick', 'element', 'view', 'acceptance'] as const)
    for (const id of Object.keys(state[table])) fresh.set(id, randomUUID());
  const replace = (value: unknown): unknown => {
    if (typeof value === 'string')
      return (
        fresh.get(value) ??
        (value[36] === '/' && fresh.has(value.slice(0, 36)) ? fresh.get(value.slice(0, 36)) + value.slice(36) : value)
      );
    if (Array.isArray(value)) return value.map(replace);
    if (value !== null && typeof value === 'object')
      return Object.fromEntries(Object.entries(value).map(([key, entry]) => [key, replace(entry)]));
    return value;
  };
  return tableNames
    .filter((table) => table !== 'project')
    .flatMap((table) => Object.values(state[table]).map((row) => put(table, replace(row) as never)));
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
