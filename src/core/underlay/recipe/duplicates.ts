import { leastOf, mostOf } from '@/core/lists';
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

interface Straight {
  path: number;
  angle: number;
  offset: number;
  from: number;
  to: number;
}

/**
 * Joins overlapping collinear straight pieces in place.
 * @returns the paths that grew; those swallowed are added to `gone`
 */
function joinCollinear(p: Primitives, gone: Set<number>, tolerance: number): number[] {
  const byLayer = new Map<number, Straight[]>();
  for (let path = 0; path < pathCount(p); path += 1) {
    const v = p.start[path];
    if (gone.has(path) || p.start[path + 1] - v !== 2 || p.flags[path] !== 0 || p.bulge[v] !== 0) continue;
    const [dx, dy] = [p.xy[2 * v + 2] - p.xy[2 * v], p.xy[2 * v + 3] - p.xy[2 * v + 1]];
    if (dx === 0 && dy === 0) continue;
    let angle = Math.atan2(dy, dx);
    if (angle < 0) angle += Math.PI;
    // Lines just below 180 degrees are neighbours of those at 0.
    if (angle > Math.PI - 1e-4) angle -= Math.PI;
    const list = byLayer.get(p.layer[path]);
    const line = { path, angle, offset: 0, from: 0, to: 0 };
    if (list) list.push(line);
    else byLayer.set(p.layer[path], [line]);
  }
  const grown: number[] = [];
  for (const lines of byLayer.values()) {
    lines.sort((a, b) => a.angle - b.angle);
    for (let first = 0; first < lines.length;) {
      let end = first + 1;
      while (
        end < lines.length &&
        lines[end].angle - lines[end - 1].angle < 1e-5 &&
        lines[end].angle - lines[first].angle < 1e-4
      )
        end += 1;
      if (end - first > 1) joinParallel(p, lines.slice(first, end), gone, grown, tolerance);
      first = end;
    }
  }
  return grown;
}

function joinParallel(p: Primitives, lines: Straight[], gone: Set<number>, grown: number[], tolerance: number): void {
  const angle = lines[lines.length >> 1].angle;
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  for (const line of lines) {
    const v = p.start[line.path];
    const along = [0, 1].map((k) => p.xy[2 * (v + k)] * c + p.xy[2 * (v + k) + 1] * s);
    const across = [0, 1].map((k) => p.xy[2 * (v + k) + 1] * c - p.xy[2 * (v + k)] * s);
    line.offset = (across[0] + across[1]) / 2;
    [line.from, line.to] = [leastOf(along), mostOf(along)];
  }
  lines.sort((a, b) => a.offset - b.offset || a.from - b.from);
  for (let first = 0; first < lines.length;) {
    let end = first + 1;
    while (end < lines.length && lines[end].offset - lines[first].offset <= tolerance) end += 1;
    joinRow(
      p,
      lines.slice(first, end).sort((a, b) => a.from - b.from),
      gone,
      grown,
      tolerance,
      c,
      s,
    );
    first = end;
  }
}

/** Joins pieces of one line, in the order in which they begin. */
function joinRow(
  p: Primitives,
  row: Straight[],
  gone: Set<number>,
  grown: number[],
  tolerance: number,
  c: number,
  s: number,
): void {
  let head = row[0];
  let to = head.to;
  let more = false;
  const finish = () => {
    if (!more) return;
    const v = p.start[head.path];
    const [x, y] = [-s * head.offset, c * head.offset];
    p.xy.set([x + c * head.from, y + s * head.from, x + c * to, y + s * to], 2 * v);
    grown.push(head.path);
  };
  for (const line of row.slice(1)) {
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
