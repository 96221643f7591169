import { sql, type Transaction } from 'kysely';
import type { ElementRow } from '@/core/kinds/element';
import { checksOf } from '@/core/kinds/kinds';
import type { Wall } from '@/core/kinds/wall';
import type { Change } from '@/core/model/edits';
import { aThing } from '@/core/tracing/words';
import type { Database } from '../database/schema';
import { Problem } from '../problem';
import { element } from '../rows/element';

type Tx = Transaction<Database>;

const elementsOf = (changes: readonly Change[]): ElementRow[] =>
  changes.flatMap((change) => (change.table === 'element' && change.row !== null ? [change.row] : []));

/** The walls that some openings are in, by their ids. */
async function hostsOf(tx: Tx, project: string, openings: readonly ElementRow[]): Promise<Map<string, Wall>> {
  const ids = [...new Set(openings.flatMap((row) => (row.kind === 'opening' ? [row.shape.wall] : [])))];
  const rows = ids.length === 0 ? [] : await element.load(tx, project, ids);
  return new Map(rows.flatMap((row): [string, Wall][] => (row.kind === 'wall' ? [[row.id, row.shape]] : [])));
}

/** The openings in walls that an edit changes, which it does not change themselves. */
async function openingsIn(tx: Tx, project: string, walls: readonly string[], known: ReadonlySet<string>) {
  if (walls.length === 0) return [];
  const { rows } = await sql<{ id: string }>`
    select id from elements where project_id = ${project} and wall_id = any(${walls}::uuid[])
  `.execute(tx);
  const ids = rows.map(({ id }) => id).filter((id) => !known.has(id));
  return ids.length === 0 ? [] : element.load(tx, project, ids);
}

const isBroken = (row: ElementRow, hosts: ReadonlyMap<string, Wall>): string | undefined =>
  checksOf(row, row.kind === 'opening' ? (hosts.get(row.shape.wall) ?? null) : null)[0];

/** What was broken before an edit, by its ids: an element that came in so may still be moved. */
function brokenBefore(
  inverse: readonly Change[],
  untouched: readonly ElementRow[],
  hosts: ReadonlyMap<string, Wall>,
): Set<string> {
  const before = [...elementsOf(inverse), ...untouched];
  const walls = new Map([
    ...hosts,
    ...before.flatMap((row): [string, Wall][] => (row.kind === 'wall' ? [[row.id, row.shape]] : [])),
  ]);
  return new Set(before.filter((row) => isBroken(row, walls) !== undefined).map(({ id }) => id));
}

/**
 * Refuses an edit that would store an element broken: of no length, crossing itself, an opening beyond its wall.
 * Asked once its rows are in place, inside its transaction.
 * @param inverse the changes that lead back
 * @throws Problem 409 with the reason
 */
export async function expectSound(tx: Tx, project: string, changes: readonly Change[], inverse: readonly Change[]) {
  const rows = elementsOf(changes);
  const known = new Set(rows.map(({ id }) => id));
  const walls = rows.filter(({ kind }) => kind === 'wall').map(({ id }) => id);
  const untouched = await openingsIn(tx, project, walls, known);
  const concerned = [...rows, ...untouched];
  const hosts = await hostsOf(tx, project, concerned);
  const before = brokenBefore(inverse, untouched, hosts);
  for (const row of concerned) {
    const why = isBroken(row, hosts);
    if (why !== undefined && !before.has(row.id))
      throw new Problem(409, `${aThing(row.kind, true)} would be stored broken: ${why} Nothing was stored.`);
  }
}
