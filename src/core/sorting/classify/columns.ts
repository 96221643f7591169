import { BoxIndex, boxOf } from '@/core/geometry/boxIndex';
import { leastRectangle } from '@/core/geometry/polygon';
import type { Point } from '@/core/geometry/vector';
import { findOutlines } from '@/core/patterns/outlines';
import type { PlacedPath } from '@/core/placed/placed';
import { defaultTolerance } from '@/core/tolerance';
import type { Primitives } from '@/core/underlay/primitives';
import { pathSource, type AllLooks, type Line } from './looks';

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
  return around(width).flatMap((w) => around(depth).map((d) => `${sizeKey({ width: w, depth: d })}${rest}`));
}

/** Small shapes of one size, four of them or more. @returns the sizes that the plan's columns have */
export function shapeColumns(looks: AllLooks, shapes: ReadonlyMap<string, readonly number[]>): string[] {
  const alike = (key: string): number =>
    [...new Set(besides(key))].reduce((sum, near) => sum + (shapes.get(near)?.length ?? 0), 0);
  const sets = [...shapes].filter(([key]) => alike(key) >= column.fewest);
  for (const [size, paths] of sets)
    for (const path of paths)
      looks[path] ??= { role: 'column', why: `${alike(size)} shapes of one size, ${size.replace(' ', ' by ')} m` };
  return sets.map(([size]) => size);
}

/** Loose lines that close to a shape of a size that the plan's columns have. */
export function looseColumns(looks: AllLooks, lines: readonly Line[], sizes: readonly string[]): void {
  const short = lines.filter(({ path, length }) => looks[path] === null && length <= column.most);
  const { outlines } = findOutlines(
    short.map(({ path, a, b }): PlacedPath => ({
      points: [a, b],
      bulges: [0, 0],
      closed: false,
      circle: false,
      ...pathSource(path),
    })),
    defaultTolerance.gap,
  );
  const boxes = outlines.map(({ points, handles }) => ({ handles, box: leastRectangle(points) }));
  const counts = new Map<string, number>();
  for (const { box } of boxes)
    if (box && Math.min(box.width, box.depth) >= column.least && Math.max(box.width, box.depth) <= column.most)
      counts.set(sizeKey(box), (counts.get(sizeKey(box)) ?? 0) + 1);
  for (const { handles, box } of boxes) {
    if (box && (sizes.includes(sizeKey(box)) || (counts.get(sizeKey(box)) ?? 0) >= column.fewest))
      for (const handle of handles)
        looks[Number(handle)] = { role: 'column', why: 'lines that close to a column\u2019s size' };
  }
}

/** Most of what a block is inserted for stands this near to crossings of grid lines, metres, where it is a column. */
const nearCrossing = { within: 0.3, share: 0.6 };

/** Blocks of a column's size, most of whose inserts stand on crossings of grid lines: everything that came by them. */
export function blockColumns(
  looks: AllLooks,
  p: Primitives,
  k: number,
  grid: readonly Line[],
  outermost: (chain: number) => number,
): void {
  const inserts = new Map<number, Map<number, { box: [number, number, number, number]; paths: number[] }>>();
  for (let path = 0; path < looks.length; path += 1) {
    if (p.chain[path] === 0 || looks[path] !== null) continue;
    const block = outermost(p.chain[path]);
    const tops = inserts.get(block) ?? new Map<number, { box: [number, number, number, number]; paths: number[] }>();
    inserts.set(block, tops);
    const one = tops.get(p.top[path]) ?? { box: [Infinity, Infinity, -Infinity, -Infinity], paths: [] };
    tops.set(p.top[path], one);
    one.paths.push(path);
    for (let v = p.start[path]; v < p.start[path + 1]; v += 1) {
      const [x, y] = [p.xy[2 * v] * k, p.xy[2 * v + 1] * k];
      one.box = [Math.min(one.box[0], x), Math.min(one.box[1], y), Math.max(one.box[2], x), Math.max(one.box[3], y)];
    }
  }
  const runs = new BoxIndex(grid, ({ a, b }) => boxOf([a, b], nearCrossing.within));
  const crosses = (at: Point): boolean => {
    const by = runs
      .around(at)
      .filter(
        ({ a, b, length }) =>
          Math.abs((b[0] - a[0]) * (at[1] - a[1]) - (b[1] - a[1]) * (at[0] - a[0])) / length < nearCrossing.within,
      );
    return by.some((one) =>
      by.some(
        (other) =>
          Math.abs(
            (one.b[0] - one.a[0]) * (other.b[1] - other.a[1]) - (one.b[1] - one.a[1]) * (other.b[0] - other.a[0]),
          ) >
          0.3 * one.length * other.length,
      ),
    );
  };
  for (const tops of inserts.values()) {
    const all = [...tops.values()];
    const sized = all.every(
      ({ box: [x0, y0, x1, y1] }) =>
        Math.max(x1 - x0, y1 - y0) <= column.most && Math.min(x1 - x0, y1 - y0) >= column.least,
    );
    if (all.length < column.fewest || !sized) continue;
    const standing = all.filter(({ box: [x0, y0, x1, y1] }) => crosses([(x0 + x1) / 2, (y0 + y1) / 2])).length;
    if (standing >= nearCrossing.share * all.length)
      for (const { paths } of all)
        for (const path of paths)
          looks[path] = { role: 'column', why: `${standing} of ${all.length} inserts of its block on crossings` };
  }
}
