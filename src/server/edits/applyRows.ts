import { sql, type RawBuilder, type Transaction } from 'kysely';
import type { Change } from '@/core/model/edits';
import { tableNames, type TableName } from '@/core/model/state';
import type { Database } from '../database/schema';
import { Problem } from '../problem';
import { tableAccess } from '../rows/rows';
import { oneAhead } from './oneAhead';

type Tx = Transaction<Database>;

/** Rows go to the database in groups of this many, below its limit of 65,535 parameters a statement. */
const group = 2000;

/**
 * Applies changes inside a transaction.
 * @returns the changes that lead back
 * @throws Problem where the edit contradicts itself or a rule
 */
export async function applyRows(tx: Tx, project: string, changes: readonly Change[]): Promise<Change[]> {
  const inverse: Change[] = [];
  for (const table of tableNames) {
    const here = changes.filter((change) => change.table === table);
    if (here.length > 0) inverse.push(...(await applyTable(tx, project, table, here)));
  }
  await expectWalls(tx, project, changes, inverse);
  return inverse;
}

async function applyTable(tx: Tx, project: string, table: TableName, changes: readonly Change[]): Promise<Change[]> {
  const ids = changes.map(({ id }) => id);
  if (new Set(ids).size !== ids.length) throw new Problem(400, 'The edit changes one row twice.');
  const access = tableAccess(table);
  const before = new Map<string, unknown>();
  await oneAhead(inGroups(ids), async (some) => {
    for (const row of await access.load(tx, project, some)) before.set(row.id, row);
  });
  const removed = changes.filter(({ row }) => row === null).map(({ id }) => id);
  await oneAhead(inGroups(removed), (some) => access.remove(tx, project, some));
  const rows = changes.flatMap(({ row }) => (row === null ? [] : [row]));
  await oneAhead(inGroups(rows), (some) => access.put(tx, project, some as never));
  return ids.map((id) => ({ table, id, row: before.get(id) ?? null }) as Change);
}

function* inGroups<T>(list: readonly T[]): Generator<T[]> {
  for (let i = 0; i < list.length; i += group) yield list.slice(i, i + group);
}

/** That an opening's wall is there is the database's rule; that it is a wall is asked where that can have changed. */
async function expectWalls(tx: Tx, project: string, changes: readonly Change[], inverse: readonly Change[]) {
  const hosts = changes.flatMap(({ table, row }) =>
    table === 'element' && row?.kind === 'opening' ? [row.shape.wall] : [],
  );
  const turned = noLongerWalls(changes, inverse);
  const wrong = [
    ...(hosts.length === 0 ? [] : await elementsThat(tx, project, sql`id = any(${hosts}::uuid[]) and kind <> 'wall'`)),
    ...(turned.length === 0 ? [] : await elementsThat(tx, project, sql`wall_id = any(${turned}::uuid[])`)),
  ];
  if (wrong.length > 0)
    throw new Problem(
      409,
      'An opening would be in something that is no wall. Nothing was stored; choose a wall for it.',
    );
}

async function elementsThat(tx: Tx, project: string, condition: RawBuilder<unknown>): Promise<unknown[]> {
  const { rows } = await sql`select 1 from elements where project_id = ${project} and ${condition} limit 1`.execute(tx);
  return rows;
}

/** Elements that were walls and become something else. */
function noLongerWalls(changes: readonly Change[], inverse: readonly Change[]): string[] {
  const walls = new Set(
    inverse.flatMap(({ id, table, row }) => (table === 'element' && row?.kind === 'wall' ? [id] : [])),
  );
  return changes.flatMap(({ id, table, row }) =>
    table === 'element' && row !== null && row.kind !== 'wall' && walls.has(id) ? [id] : [],
  );
}
