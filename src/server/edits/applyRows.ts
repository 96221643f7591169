import { sql, type Transaction } from 'kysely';
import type { Change } from '@/core/model/edits';
import { tableNames, type TableName } from '@/core/model/state';
import type { Database } from '../database/schema';
import { Problem } from '../problem';
import { tableAccess } from '../rows/rows';

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
  for (const some of inGroups(ids)) for (const row of await access.load(tx, project, some)) before.set(row.id, row);
  const removed = changes.filter(({ row }) => row === null).map(({ id }) => id);
  for (const some of inGroups(removed)) await access.remove(tx, project, some);
  const rows = changes.flatMap(({ row }) => (row === null ? [] : [row]));
  for (const some of inGroups(rows)) await access.put(tx, project, some as never);
  return ids.map((id) => ({ table, id, row: before.get(id) ?? null }) as Change);
}

function* inGroups<T>(list: readonly T[]): Generator<T[]> {
  for (let i = 0; i < list.length; i += group) yield list.slice(i, i + group);
}

const kindOf = ({ table, row }: Change): string | null => (table === 'element' && row !== null ? row.kind : null);

/** That an opening's wall is there is the database's rule; that it is a wall is asked where that can have changed. */
async function expectWalls(tx: Tx, project: string, changes: readonly Change[], inverse: readonly Change[]) {
  const concerned = [...changes, ...inverse].filter((change) => ['opening', 'wall'].includes(kindOf(change) ?? ''));
  if (!concerned.some((change) => kindOf(change) === 'opening') && !changesKind(changes, inverse)) return;
  const ids = [...new Set(concerned.map(({ id }) => id))];
  const { rows } = await sql<{ id: string }>`
    select opening.id from elements as opening join elements as host on host.id = opening.wall_id
    where opening.project_id = ${project} and host.kind <> 'wall'
      and (opening.id = any(${ids}::uuid[]) or host.id = any(${ids}::uuid[]))
    limit 1
  `.execute(tx);
  if (rows.length > 0)
    throw new Problem(
      409,
      'An opening would be in something that is no wall. Nothing was stored; choose a wall for it.',
    );
}

/** Whether a wall becomes something else. */
function changesKind(changes: readonly Change[], inverse: readonly Change[]): boolean {
  const walls = new Set(inverse.filter((change) => kindOf(change) === 'wall').map(({ id }) => id));
  return changes.some((change) => walls.has(change.id) && change.row !== null && kindOf(change) !== 'wall');
}
