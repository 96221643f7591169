import { leastOf, mostOf } from '@/core/lists';
import type { Point } from '@/core/geometry/vector';
import { PointGrid } from '@/core/geometry/pointGrid';
import { PathFlag, pathCount, type Primitives } from '../primitives';
import { loosened, withoutPaths, type StepResult } from './edit';

/**
 * Takes out paths that lie on another of the same layer, and joins overlapping and touching straight pieces of one
 * line into the first of them.
 * @param tolerance in drawing units
 */
export function mergeDuplicates(p: Primitives, tolerance: number): StepResult {
  const doubled = doubledPaths(p, tolerance);
  const gone = new Set(doubled);
  const next = loosened(p);
  const changed = joinCollinear(next, gone, tolerance);
  const all = [...gone].sort((a, b) => a - b);
  return {
    primitives: all.length + changed.length === 0 ? p : withoutPaths(next, all),
    paths: [...all, ...changed.filter((path) => !gone.has(path))],
    texts: [],
  };
}

/** Paths whose vertices all lie on those of an earlier path of the same layer, in either direction. */
export function doubledPaths(p: Primitives, tolerance: number): number[] {
  const grid = new PointGrid(Math.max(4 * tolerance, 1e-12), pathCount(p));
  const doubled: number[] = [];
  for (let path = 0; path < pathCount(p); path += 1) {
    const [first, end] = [p.start[path], p.start[path + 1]];
    let [x, y] = [0, 0];
    for (let v = first; v < end; v += 1) {
      x += p.xy[2 * v];
      y += p.xy[2 * v + 1];
    }
    const n = end - first;
    let twin = false;
    grid.near(x / n, y / n, (other) => {
      twin =
        twin ||
        (p.layer[other] === p.layer[path] &&
          p.start[other + 1] - p.start[other] === n &&
          samePath(p, other, path, tolerance));
    });
    if (twin) doubled.push(path);
    else grid.add(path, x / n, y / n);
  }
  return doubled;
}

function samePath(p: Primitives, a: number, b: number, tolerance: number): boolean {
  if (p.flags[a] !== p.flags[b]) return false;
  const [i, j, n] = [p.start[a], p.start[b], p.start[a + 1] - p.start[a]];
  const closed = (p.flags[a] & PathFlag.closed) !== 0;
  const near = (v: number, w: number) =>
    Math.abs(p.xy[2 * v] - p.xy[2 * w]) <= tolerance && Math.abs(p.xy[2 * v + 1] - p.xy[2 * w + 1]) <= tolerance;
  const wrap = (k: number) => ((k % n) + n) % n;
  const fits = (shift: number, way: 1 | -1) => {
    for (let k = 0; k < n; k += 1) {
      if (!near(i + k, j + wrap(shift + way * k))) return false;
      // Going backwards, the side from k is the other's side that ends there, bent the other way.
      const bulge = way === 1 ? p.bulge[j + wrap(shift + k)] : -p.bulge[j + wrap(shift - k - 1)];
      if ((closed || k < n - 1) && Math.abs(p.bulge[i + k] - bulge) > 1e-4) return false;
    }
    return true;
  };
  if (!closed) return fits(0, 1) || fits(n - 1, -1);
  for (let shift = 0; shift < n; shift += 1) if (near(i, j + shift) && (fits(shift, 1) || fits(shift, -1))) return true;
  return false;
}

/** A straight path on a line that others lie on too: where along it it begins and ends. */
interface Straight {
  path: number;
  angle: number;
  offset: number;
  from: number;
  to: number;
}

/** Straight paths of one layer on one line, in the order in which they begin; the line's direction. */
interface Row {
  lines: Straight[];
  c: number;
  s: number;
}

/** Where a straight path lies on earlier ones of its layer, along their common line. */
export interface Overlap {
  path: number;
  from: Point;
  to: Point;
}

/** Straight paths that lie partly or wholly on others of their layer, without those that are doubled. */
export function overlaps(p: Primitives, doubled: readonly number[], tolerance: number): Overlap[] {
  const found: Overlap[] = [];
  for (const { lines, c, s } of collinearRows(p, new Set(doubled), tolerance)) {
    let reached = lines[0].to;
    for (const line of lines.slice(1)) {
      const to = Math.min(reached, line.to);
      reached = Math.max(reached, line.to);
      if (to - line.from <= tolerance) continue;
      const at = (along: number): Point => [c * along - s * line.offset, s * along + c * line.offset];
      found.push({ path: line.path, from: at(line.from), to: at(to) });
    }
  }
  return found;
}

/**
 * Joins overlapping collinear straight pieces in place.
 * @returns the paths that grew; those swallowed are added to `gone`
 */
function joinCollinear(p: Primitives, gone: Set<number>, tolerance: number): number[] {
  const grown: number[] = [];
  for (const row of collinearRows(p, gone, tolerance)) joinRow(p, row, gone, grown, tolerance);
  return grown;
}

/** Turns by less than this are rounding, and so is what several of them add up to, radians. */
const [alike, alikeInAll] = [1e-5, 1e-4];

/** The straight paths of a layer that lie on one line, line by line. */
function collinearRows(p: Primitives, without: ReadonlySet<number>, tolerance: number): Row[] {
  return [...straightByLayer(p, without).values()].flatMap((lines) => {
    lines.sort((a, b) => a.angle - b.angle);
    return runsOf(
      lines,
      (line, before, first) => line.angle - before.angle < alike && line.angle - first.angle < alikeInAll,
    ).flatMap((parallel) => rowsOf(p, parallel, tolerance));
  });
}

function straightByLayer(p: Primitives, without: ReadonlySet<number>): Map<number, Straight[]> {
  const byLayer = new Map<number, Straight[]>();
  for (let path = 0; path < pathCount(p); path += 1) {
    const v = p.start[path];
    if (without.has(path) || p.start[path + 1] - v !== 2 || p.flags[path] !== 0 || p.bulge[v] !== 0) continue;
    const [dx, dy] = [p.xy[2 * v + 2] - p.xy[2 * v], p.xy[2 * v + 3] - p.xy[2 * v + 1]];
    if (dx === 0 && dy === 0) continue;
    let angle = Math.atan2(dy, dx);
    if (angle < 0) angle += Math.PI;
    // Lines just below 180 degrees are neighbours of those at 0.
    if (angle > Math.PI - alikeInAll) angle -= Math.PI;
    const list = byLayer.get(p.layer[path]);
    const line = { path, angle, offset: 0, from: 0, to: 0 };
    if (list) list.push(line);
    else byLayer.set(p.layer[path], [line]);
  }
  return byLayer;
}

/** Cuts a sorted list into runs of more than one. @param joins whether one goes on a run, by the last and the first */
function runsOf<T>(sorted: readonly T[], joins: (one: T, before: T, first: T) => boolean): T[][] {
  const runs: T[][] = [];
  for (let first = 0; first < sorted.length;) {
    let end = first + 1;
    while (end < sorted.length && joins(sorted[end], sorted[end - 1], sorted[first])) end += 1;
    if (end - first > 1) runs.push(sorted.slice(first, end));
    first = end;
  }
  return runs;
}

function rowsOf(p: Primitives, parallel: Straight[], tolerance: number): Row[] {
  const angle = parallel[parallel.length >> 1].angle;
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  for (const line of parallel) {
    const v = p.start[line.path];
    const along = [0, 1].map((k) => p.xy[2 * (v + k)] * c + p.xy[2 * (v + k) + 1] * s);
    const across = [0, 1].map((k) => p.xy[2 * (v + k) + 1] * c - p.xy[2 * (v + k)] * s);
    line.offset = (across[0] + across[1]) / 2;
    [line.from, line.to] = [leastOf(along), mostOf(along)];
  }
  parallel.sort((a, b) => a.offset - b.offset || a.from - b.from);
  return runsOf(parallel, (line, _, first) => line.offset - first.offset <= tolerance).map((lines) => ({
    lines: lines.sort((a, b) => a.from - b.from),
    c,
    s,
  }));
}

/** Joins pieces of one line. */
function joinRow(p: Primitives, { lines, c, s }: Row, gone: Set<number>, grown: number[], tolerance: number): void {
  let head = lines[0];
  let to = head.to;
  let more = false;
  const finish = () => {
    if (!more) return;
    const v = p.start[head.path];
    const [x, y] = [-s * head.offset, c * head.offset];
    p.xy.set([x + c * head.from, y + s * head.from, x + c * to, y + s * to], 2 * v);
    grown.push(head.path);
  };
  for (const line of lines.slice(1)) {
    if (line.from <= to + tolerance) {
      gone.add(line.path);
      if (line.to > to + 1e-12) {
        to = line.to;
      }
      more = true;
      continue;
    }
    finish();
    [head, to, more] = [line, line.to, false];
  }
  finish();
}
