import { randomUUID } from 'node:crypto';
import { isDeepStrictEqual } from 'node:util';
import { plainLevel } from '@/core/model/levels';
import type { Transaction } from 'kysely';
import { takeIn } from '@/core/handover/model/takeIn/takeIn';
import { readModel } from '@/core/handover/model/readModel';
import { put, type Edit } from '@/core/model/edits';
import { officeRecipes, officeRoles } from '@/core/model/office';
import { tableNames, type LevelRow, type ProjectRow, type ProjectState, type TableName } from '@/core/model/state';
import type { DisplayUnit } from '@/core/units/length';
import { database } from './database/connection';
import type { Database } from './database/schema';
import { applyEdit } from './edits/applyEdit';
import { notFound, Problem } from './problem';
import { keepRecipe, listRecipes } from './recipes';
import { keepRoleMap, listRoleMaps } from './roleMaps';
import { levelValues } from './rows/level';
import { loadState } from './rows/rows';

type Tx = Transaction<Database>;

/** Puts an empty project, without even a level, into the database. */
async function begin(tx: Tx, name: string, displayUnit: DisplayUnit): Promise<string> {
  const id = randomUUID();
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
  return id;
}

/** A new project with its levels; one ground level where none are given. */
export async function createProject(
  name: string,
  displayUnit: DisplayUnit = 'm',
  levels: Omit<LevelRow, 'id'>[] = [{ ...plainLevel, name: 'Ground', elevation: 0, height: 3, kind: 'ground' }],
): Promise<string> {
  return database()
    .transaction()
    .execute(async (tx) => {
      const id = await begin(tx, name, displayUnit);
      await tx
        .insertInto('levels')
        .values(levels.map((level) => levelValues({ id: randomUUID(), ...level }, id)))
        .execute();
      return id;
    });
}

/** A new project that begins with some rows: its first step is not one to take back. */
async function projectWith(tx: Tx, name: string, edit: (id: string) => Edit): Promise<string> {
  const id = await begin(tx, name, 'm');
  await applyEdit(id, null, edit(id), { within: tx });
  await tx.updateTable('projects').set({ undo_top: null }).where('id', '=', id).execute();
  return id;
}

/** All of a project that is there. @throws Problem 404 */
async function projectOf(tx: Tx, id: string): Promise<{ row: ProjectRow; state: ProjectState }> {
  const there = await tx
    .selectFrom('projects')
    .select('id')
    .where('id', '=', id)
    .where('deleted_at', 'is', null)
    .executeTakeFirst();
  if (!there) throw notFound('This project');
  const state = await loadState(tx, id);
  return { row: state.project[id], state };
}

/** So much of a name is left before "(copy)". */
const stem = 113;

/** A copy with everything but the log; files are shared, not copied. */
export async function duplicateProject(id: string): Promise<string> {
  return database()
    .transaction()
    .execute(async (tx) => {
      const { row, state } = await projectOf(tx, id);
      const name = `${row.name.slice(0, stem)} (copy)`;
      return projectWith(tx, name, (copy) => ({
        label: `Copy of ${row.name}`,
        changes: copiedRows(state, tableNames, { ...row, name }, copy),
      }));
    });
}

/** What an office's next project takes over from a finished one. */
const started: readonly TableName[] = ['level', 'library'];

/**
 * A new project that begins as another one is set: its units, levels, library, naming and settings. The roles and the
 * recipes of its drawings go onto the shelves, under the finished project's name.
 */
export async function startFrom(finished: string, name: string): Promise<{ id: string; kept: string[] }> {
  const { id, state, of } = await database()
    .transaction()
    .execute(async (tx) => {
      const { row, state: all } = await projectOf(tx, finished);
      const own = { ...row, name, survey: null, axes: [] };
      const made = await projectWith(tx, name, (next) => ({
        label: `Started as ${row.name}`,
        changes: copiedRows(all, started, own, next),
      }));
      return { id: made, state: all, of: row.name };
    });
  return { id, kept: [...(await shelveRoles(state, of)), ...(await shelveRecipes(state, of))] };
}

/** A name on a shelf that nothing has: a shelf replaces what has the same name. */
function freeName(name: string, taken: ReadonlySet<string>): string {
  let free = name;
  for (let n = 2; taken.has(free); n += 1) free = `${name.slice(0, stem)} ${n}`;
  return free;
}

/** Puts the roles of a project's drawings onto the shelf, unless they are there. @returns what it is called there */
async function shelveRoles(state: ProjectState, of: string): Promise<string[]> {
  const roles = officeRoles(state, of);
  if (roles === null) return [];
  const shelf = await listRoleMaps();
  const same = shelf.find(({ rules }) => isDeepStrictEqual(rules, roles.rules));
  const name = same?.name ?? freeName(roles.name, new Set(shelf.map((one) => one.name)));
  if (same === undefined) await keepRoleMap({ ...roles, name });
  return [`role map ${name}`];
}

/** Puts the recipes of a project's drawings onto the shelf, unless they are there. @returns what they are called */
async function shelveRecipes(state: ProjectState, of: string): Promise<string[]> {
  const named: string[] = [];
  for (const { name: wanted, steps } of officeRecipes(state, of)) {
    const shelf = await listRecipes();
    const same = shelf.find((one) => isDeepStrictEqual(one.steps, steps));
    const name = same?.name ?? freeName(wanted, new Set(shelf.map((one) => one.name)));
    if (same === undefined) await keepRecipe({ name, steps });
    named.push(`recipe ${name}`);
  }
  return named;
}

/**
 * A new project that is the model of a model.json.
 * @returns its id, and what could not be taken as the file has it
 * @throws Problem that says what is wrong with the file; nothing is made then
 */
export async function takeInModel(fileName: string, text: string): Promise<{ id: string; told: string[] }> {
  const model = readModel(text);
  if (!model.ok) throw new Problem(400, `${fileName}: ${model.message}`);
  const taken = takeIn(model.value, randomUUID);
  if (!taken.ok) throw new Problem(400, `${fileName}: ${taken.message}`);
  const { project, changes, told } = taken.value;
  const name = fileName.replace(/\.json$/i, '').slice(0, stem) || 'Model';
  const id = await database()
    .transaction()
    .execute((tx) =>
      projectWith(tx, name, (own) => ({
        label: `Taken in from ${fileName}`,
        changes: [...changes, put('project', { ...plainProject(own, name), ...project })],
      })),
    );
  return { id, told };
}

const plainProject = (id: string, name: string): ProjectRow => ({
  id,
  name,
  displayUnit: 'm',
  places: null,
  angles: 'east',
  survey: null,
  axes: [],
  naming: null,
  reading: null,
  structure: null,
  site: null,
});

/** Rows of some tables and the project's own, every id in them replaced by a fresh one. */
function copiedRows(
  state: ProjectState,
  tables: readonly TableName[],
  project: ProjectRow,
  copy: string,
): Edit['changes'] {
  const fresh = new Map<string, string>([[project.id, copy]]);
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
  return [
    put('project', replace(project) as ProjectRow),
    ...tables
      .filter((table) => table !== 'project')
      .flatMap((table) => Object.values(state[table]).map((row) => put(table, replace(row) as never))),
  ];
}
