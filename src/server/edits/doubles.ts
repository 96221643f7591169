import { sql, type Transaction } from 'kysely';
import type { ElementOf, ElementRow } from '@/core/kinds/element';
import { levelsTied } from '@/core/kinds/tie';
import type { Change } from '@/core/model/edits';
import { inOnePlace, overlap } from '@/core/tracing/refusals';
import type { Database } from '../database/schema';
import { Problem } from '../problem';
import { element } from '../rows/element';

type Tx = Transaction<Database>;

const rowsOf = <K extends ElementRow['kind']>(changes: readonly Change[], kind: K): ElementOf<K>[] =>
  changes.flatMap((change) =>
    change.table === 'element' && change.row?.kind === kind ? [change.row as unknown as ElementOf<K>] : [],
  );

/** The rows of an edit that are not what they were in what decides: new ones, and those that moved. */
function changedIn<K extends ElementRow['kind']>(
  kind: K,
  changes: readonly Change[],
  inverse: readonly Change[],
  same: (before: ElementOf<K>, after: ElementOf<K>) => boolean,
): ElementOf<K>[] {
  const before = new Map(rowsOf(inverse, kind).map((row) => [row.id, row]));
  return rowsOf(changes, kind).filter((row) => {
    const was = before.get(row.id);
    return was === undefined || !same(was, row);
  });
}

/** Refuses a column on a column, where an edit puts it there. */
async function expectNoColumnTwice(tx: Tx, project: string, changes: readonly Change[], inverse: readonly Change[]) {
  const moved = changedIn(
    'column',
    changes,
    inverse,
    (was, row) => was.levelId === row.levelId && inOnePlace(was.shape.position, row.shape.position),
  );
  if (moved.length === 0) return;
  const levels = [...new Set(moved.flatMap(({ levelId }) => levelId ?? []))];
  const { rows } = await sql<{ id: string; level: string; x: number; y: number }>`
    select id, level_id as level, (shape->'position'->>0)::float8 as x, (shape->'position'->>1)::float8 as y
    from elements where project_id = ${project} and kind = 'column' and level_id = any(${levels}::uuid[])
  `.execute(tx);
  // Columns in one place are in one field of a centimetre's grid, or in two beside one another.
  const fields = new Map<string, typeof rows>();
  const fieldOf = (level: string, x: number, y: number): string =>
    `${level} ${Math.round(x * 100)} ${Math.round(y * 100)}`;
  for (const row of rows) {
    const key = fieldOf(row.level, row.x, row.y);
    const field = fields.get(key);
    if (field) field.push(row);
    else fields.set(key, [row]);
  }
  for (const { id, levelId, shape } of moved) {
    const [x, y] = shape.position;
    const around = [-0.01, 0, 0.01].flatMap((dx) =>
      [-0.01, 0, 0.01].flatMap((dy) => fields.get(fieldOf(levelId ?? '', x + dx, y + dy)) ?? []),
    );
    if (around.some((other) => other.id !== id && inOnePlace([other.x, other.y], [x, y])))
      throw new Problem(409, `A column stands at ${x.toFixed(2)}, ${y.toFixed(2)} already. Nothing was stored.`);
  }
}

/** Refuses an opening over another in its wall, where an edit puts it there. */
async function expectNoOverlap(tx: Tx, project: string, changes: readonly Change[], inverse: readonly Change[]) {
  const moved = changedIn('opening', changes, inverse, (was, row) =>
    (['wall', 'offset', 'width'] as const).every((key) => was.shape[key] === row.shape[key]),
  );
  if (moved.length === 0) return;
  const walls = [...new Set(moved.map(({ shape }) => shape.wall))];
  const { rows } = await sql<{ id: string }>`
    select id from elements where project_id = ${project} and wall_id = any(${walls}::uuid[])
  `.execute(tx);
  const openings = await element.load(
    tx,
    project,
    rows.map(({ id }) => id),
  );
  const inWall = new Map<string, ElementOf<'opening'>[]>();
  for (const row of openings)
    if (row.kind === 'opening') inWall.set(row.shape.wall, [...(inWall.get(row.shape.wall) ?? []), row]);
  for (const { id, shape } of moved) {
    const over = inWall.get(shape.wall)?.find((other) => other.id !== id && overlap(other.shape, shape));
    if (over !== undefined)
      throw new Problem(
        409,
        `A ${shape.use} of ${shape.width.toFixed(2)} m would lie over the ${over.shape.use} beside it. Nothing was stored.`,
      );
  }
}

/** Refuses ends that are tied to levels which the project has not got. */
async function expectLevels(tx: Tx, project: string, changes: readonly Change[]) {
  const tied = new Set(
    changes.flatMap((change) => (change.table === 'element' && change.row !== null ? levelsTied(change.row) : [])),
  );
  if (tied.size === 0) return;
  const known = await tx
    .selectFrom('levels')
    .select('id')
    .where('project_id', '=', project)
    .where('id', 'in', [...tied])
    .execute();
  if (known.length < tied.size)
    throw new Problem(
      409,
      'An end would be tied to a level that is not in this project, or not any more. Nothing was stored.',
    );
}

/**
 * Refuses an edit that puts things over one another, or ties them to what is not there. Asked once its rows are in
 * place, inside its transaction.
 * @param inverse the changes that lead back
 * @throws Problem 409 with the reason
 */
export async function expectSingle(tx: Tx, project: string, changes: readonly Change[], inverse: readonly Change[]) {
  await expectLevels(tx, project, changes);
  await expectNoColumnTwice(tx, project, changes, inverse);
  await expectNoOverlap(tx, project, changes, inverse);
}
