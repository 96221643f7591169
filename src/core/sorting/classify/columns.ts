import { Kind } from '@/core/drawing/drawing';
import { BoxIndex, boxOf } from '@/core/geometry/boxIndex';
import { leastRectangle } from '@/core/geometry/polygon';
import { cross, distance, pointAlong, subtract, type Point } from '@/core/geometry/vector';
import { findOutlines, type Outline } from '@/core/patterns/outlines';
import { defaultTolerance } from '@/core/tolerance';
import type { Drawn } from './drawn';
import { asPath, type AllLooks, type Line, type Stretch } from './looks';

/** Kinds that fill a shape. */
const filling = new Set<number>([Kind.hatch, Kind.solid]);

/** What a column measures across, metres, and how many of one size make a set. */
export const column = { least: 0.15, most: 1.3, fewest: 4 };

/** A size to two centimetres. */
export const sizeKey = ({ width, depth }: { width: number; depth: number }): string =>
  [width, depth]
    .sort((a, b) => a - b)
    .map((side) => (Math.round(side * 50) / 50).toFixed(2))
    .join(' ');

/** A key of sizes and those beside it: what is rounded falls to either side. */
function besides(key: string): string[] {
  const [, width, depth, rest] = /^([\d.]+) ([\d.]+)(.*)$/.exec(key) ?? [];
  if (width === undefined) return [key];
  const around = (side: string): number[] => [-1, 0, 1].map((step) => Number(side) + step / 50);
  return [
    ...new Set(around(width).flatMap((w) => around(depth).map((d) => `${sizeKey({ width: w, depth: d })}${rest}`))),
  ];
}

/** Where the grid is known, this share of a set of columns stands on its crossings; tables and cupboards do not. */
const standing = 0.3;

/** A crossing lies this far beside a fill at most, metres. */
const beside = 0.02;

/**
 * Whether enough of a set of fills stand on crossings of the grid, where it is known, or with a face on it: pieces of
 * walls that end at a crossing are filled too.
 */
function areColumns(drawn: Drawn, paths: readonly number[], onCrossing: OnCrossing | null): boolean {
  if (onCrossing === null) return true;
  const stands = (path: number): boolean => {
    const [x0, y0, x1, y1] = boxOf(drawn.placed(path).points);
    return onCrossing([(x0 + x1) / 2, (y0 + y1) / 2], Math.min(x1 - x0, y1 - y0) / 2 + beside);
  };
  return paths.filter(stands).length >= standing * paths.length;
}

/** Small shapes of one size, four of them or more. @returns the sizes that the plan's columns have */
export function shapeColumns(
  looks: AllLooks,
  drawn: Drawn,
  shapes: ReadonlyMap<string, readonly number[]>,
  onCrossing: OnCrossing | null,
): string[] {
  const alike = (key: string): number => besides(key).reduce((sum, near) => sum + (shapes.get(near)?.length ?? 0), 0);
  const stands = (path: number): boolean => {
    const [x0, y0, x1, y1] = boxOf(drawn.placed(path).points);
    return onCrossing!([(x0 + x1) / 2, (y0 + y1) / 2]);
  };
  const sets = [...shapes].filter(
    ([key, paths]) =>
      alike(key) >= column.fewest && (onCrossing === null || paths.filter(stands).length >= standing * paths.length),
  );
  for (const [size, paths] of sets)
    for (const path of paths)
      looks[path] ??= { role: 'column', why: `${alike(size)} shapes of one size, ${size.replace(' ', ' by ')} m` };
  return sets.map(([size]) => size);
}

/** A stroke ends this near to a corner of its column, metres. */
const atCorner = 0.02;

/** Lines from corner to corner of a column's outline: its diagonals. */
export function columnStrokes(looks: AllLooks, drawn: Drawn, lines: readonly Line[]): void {
  const corners = looks.flatMap((look, path) =>
    look?.role === 'column' && drawn.p.chain[path] === 0
      ? drawn.placed(path).points.map((at) => ({ at, column: path }))
      : [],
  );
  const index = new BoxIndex(corners, ({ at }) => boxOf([at]));
  const columnsAt = (end: Point): number[] => index.around(end, atCorner).map(({ column: path }) => path);
  for (const { path, a, b, length } of lines) {
    if (looks[path] !== null || length > 2 * column.most) continue;
    const others = columnsAt(b);
    if (columnsAt(a).some((one) => others.includes(one)))
      looks[path] = { role: 'column', why: 'a stroke across a column' };
  }
}

/** Solid fills and hatches of one size, four of them or more, where no column is drawn as an outline. */
export function filledColumns(looks: AllLooks, drawn: Drawn, onCrossing: OnCrossing | null): void {
  const outlined = looks.flatMap((look, path) => (look?.role === 'column' ? [boxOf(drawn.placed(path).points)] : []));
  const index = new BoxIndex(outlined, (box) => box);
  const fills = new Map<string, number[]>();
  for (let path = 0; path < looks.length; path += 1) {
    if (!filling.has(drawn.p.kind[path]) || drawn.p.chain[path] !== 0) continue;
    const { points, circle } = drawn.placed(path);
    const box = circle || points.length < 3 ? null : leastRectangle(points);
    if (box === null || Math.min(box.width, box.depth) < column.least || Math.max(box.width, box.depth) > column.most)
      continue;
    if (index.around(box.centre).length === 0)
      (fills.get(sizeKey(box)) ?? fills.set(sizeKey(box), []).get(sizeKey(box))!).push(path);
  }
  for (const [size, paths] of fills) {
    const alike = besides(size).flatMap((near) => fills.get(near) ?? []);
    if (alike.length >= column.fewest && areColumns(drawn, alike, onCrossing))
      for (const path of paths)
        looks[path] = { role: 'column', why: `${alike.length} fills of one size, ${size.replace(' ', ' by ')} m` };
  }
}

/**
 * A wall goes on beyond a door or a window within this, metres, in a line off by no more than that, and about as long
 * at least.
 */
const pier = { beyond: 3.5, off: 0.02, share: 0.9 };

/**
 * Whether an outline is a piece of a wall between two doors: both of two opposite sides go on in lines beyond it.
 * @param lines what they may go on in
 */
function isPier({ points, handles }: Outline, lines: BoxIndex<Line>): boolean {
  if (points.length !== 4) return false;
  const own = new Set(handles);
  const goesOn = (i: number): boolean => {
    const [a, b] = [points[i], points[(i + 1) % 4]];
    const length = distance(a, b);
    const u: Point = [(b[0] - a[0]) / length, (b[1] - a[1]) / length];
    const off = (at: Point): number => Math.abs(cross(u, subtract(at, a)));
    const run: [Point, Point] = [pointAlong(a, b, -pier.beyond / length), pointAlong(a, b, 1 + pier.beyond / length)];
    return lines
      .touching(boxOf(run))
      .some(
        (line) =>
          !own.has(String(line.path)) &&
          line.length >= pier.share * length &&
          off(line.a) <= pier.off &&
          off(line.b) <= pier.off,
      );
  };
  return (goesOn(0) && goesOn(2)) || (goesOn(1) && goesOn(3));
}

/**
 * Loose lines that close to a shape of a size that the plan's columns have. Pieces of walls that do, between doors, are
 * none, unless they stand on crossings of the grid.
 * @param where whether those alone are told that stand on crossings, of which there is no doubt
 */
export function looseColumns(
  looks: AllLooks,
  lines: readonly Line[],
  sizes: readonly string[],
  onCrossing: OnCrossing | null,
  where: 'on crossings' | 'anywhere',
): void {
  if (where === 'on crossings' && onCrossing === null) return;
  const short = lines.filter(({ path, length }) => looks[path] === null && length <= column.most);
  const { outlines } = findOutlines(short.map(asPath), defaultTolerance.gap, true);
  const sized = outlines.flatMap((outline) => {
    const box = leastRectangle(outline.points);
    const fits =
      box !== null && Math.min(box.width, box.depth) >= column.least && Math.max(box.width, box.depth) <= column.most;
    return fits ? [{ outline, box }] : [];
  });
  // Columns stand in line with one another: where the grid tells them, all else in their line is walls.
  const parts = new Set(onCrossing === null ? sized.flatMap(({ outline }) => outline.handles) : []);
  const isOther = ({ path }: Line): boolean => looks[path]?.role !== 'ignore' && looks[path]?.role !== 'grid';
  const others = lines.filter((line) => isOther(line) && !parts.has(String(line.path)));
  const index = new BoxIndex(others, ({ a, b }) => boxOf([a, b], pier.off));
  const columns = sized.filter(
    ({ outline, box }) =>
      onCrossing?.(box.centre, Math.min(box.width, box.depth) / 2) || (where === 'anywhere' && !isPier(outline, index)),
  );
  const counts = new Map<string, number>();
  for (const { box } of columns) counts.set(sizeKey(box), (counts.get(sizeKey(box)) ?? 0) + 1);
  for (const { outline, box } of columns)
    if (sizes.includes(sizeKey(box)) || counts.get(sizeKey(box))! >= column.fewest)
      for (const handle of outline.handles)
        looks[Number(handle)] = { role: 'column', why: 'lines that close to a column\u2019s size' };
}

/** Whether grid lines cross within so many metres of a place. */
export type OnCrossing = (at: Point, within?: number) => boolean;

/** Where grid lines cross; null where they all run one way. */
export function crossingsOf(grid: readonly Stretch[]): OnCrossing | null {
  if (!grid.some((one) => areCrosswise(one, grid[0]))) return null;
  const runs = new BoxIndex(grid, ({ a, b }) => boxOf([a, b], nearCrossing.within));
  return (at, within = nearCrossing.within) => {
    const by = runs
      .around(at)
      .filter(({ a, b, length }) => Math.abs(cross(subtract(b, a), subtract(at, a))) / length < within);
    return by.some((one) => by.some((other) => areCrosswise(one, other)));
  };
}

const areCrosswise = (p: Stretch, q: Stretch): boolean =>
  Math.abs(cross(subtract(p.b, p.a), subtract(q.b, q.a))) > 0.3 * p.length * q.length;

/** Most of what a block is inserted for stands this near to crossings of grid lines, metres, where it is a column. */
const nearCrossing = { within: 0.3, share: 0.6 };

/** Blocks of a column's size, most of whose inserts stand on crossings of grid lines: everything that came by them. */
export function blockColumns(looks: AllLooks, drawn: Drawn, onCrossing: OnCrossing | null): void {
  if (onCrossing === null) return;
  const inserts = new Map<number, Map<number, { box: [number, number, number, number]; paths: number[] }>>();
  for (let path = 0; path < looks.length; path += 1) {
    if (drawn.p.chain[path] === 0 || looks[path] !== null) continue;
    const block = drawn.outermost(path);
    const tops = inserts.get(block) ?? new Map<number, { box: [number, number, number, number]; paths: number[] }>();
    inserts.set(block, tops);
    const one = tops.get(drawn.p.top[path]) ?? { box: [Infinity, Infinity, -Infinity, -Infinity], paths: [] };
    tops.set(drawn.p.top[path], one);
    one.paths.push(path);
    for (let v = drawn.p.start[path]; v < drawn.p.start[path + 1]; v += 1) {
      const [x, y] = drawn.vertex(v);
      one.box = [Math.min(one.box[0], x), Math.min(one.box[1], y), Math.max(one.box[2], x), Math.max(one.box[3], y)];
    }
  }
  for (const tops of inserts.values()) {
    const all = [...tops.values()];
    const sized = all.every(
      ({ box: [x0, y0, x1, y1] }) =>
        Math.max(x1 - x0, y1 - y0) <= column.most && Math.min(x1 - x0, y1 - y0) >= column.least,
    );
    if (all.length < column.fewest || !sized) continue;
    const standing = all.filter(({ box: [x0, y0, x1, y1] }) => onCrossing([(x0 + x1) / 2, (y0 + y1) / 2])).length;
    if (standing >= nearCrossing.share * all.length)
      for (const { paths } of all)
        for (const path of paths)
          looks[path] = { role: 'column', why: `${standing} of ${all.length} inserts of its block on crossings` };
  }
}
