import { PointGrid } from '@/core/geometry/pointGrid';
import { lineCrossing, type Point } from '@/core/geometry/vector';
import { PathFlag, pathCount, type Primitives } from '../primitives';
import { loosened, untouched, type StepResult } from './edit';

/** One end of an open path. */
interface End {
  path: number;
  vertex: number;
  inner: number;
}

/** Passes over all ends; each closes what the one before has brought within reach. */
const passes = 8;

/**
 * Draws loose ends together that miss one another: to the corner of their lines where that is near, else to the middle;
 * a loose end near
 * a place where others meet goes there. Only ends of the same layer are drawn together, and none moves further than the
 * tolerance.
 * @param tolerance in drawing units
 * @returns besides the result, how many gaps were closed
 */
export function closeGaps(p: Primitives, tolerance: number): StepResult & { gaps: number } {
  const ends: End[] = [];
  for (let path = 0; path < pathCount(p); path += 1) {
    const [first, end] = [p.start[path], p.start[path + 1]];
    if (end - first < 2 || (p.flags[path] & PathFlag.closed) !== 0) continue;
    ends.push({ path, vertex: first, inner: first + 1 }, { path, vertex: end - 1, inner: end - 2 });
  }
  const next = loosened(p);
  const touched = new Set<number>();
  let gaps = 0;
  for (let pass = 0; pass < passes; pass += 1) {
    const closed = onePass(next, ends, tolerance, touched);
    gaps += closed;
    if (closed === 0) break;
  }
  return gaps === 0
    ? { ...untouched(p), gaps }
    : { primitives: next, paths: [...touched].sort((a, b) => a - b), texts: [], gaps };
}

function onePass(p: Primitives, ends: readonly End[], tolerance: number, touched: Set<number>): number {
  const same = tolerance * 1e-6;
  const grid = new PointGrid(tolerance, ends.length);
  const at = ({ vertex }: End): Point => [p.xy[2 * vertex], p.xy[2 * vertex + 1]];
  ends.forEach((end, i) => grid.add(i, p.xy[2 * end.vertex], p.xy[2 * end.vertex + 1]));
  const met = new Uint8Array(ends.length);
  const pairs: { a: number; b: number; gap: number }[] = [];
  ends.forEach((end, i) => {
    const [x, y] = at(end);
    const layer = p.layer[end.path];
    grid.near(x, y, (j) => {
      const other = ends[j];
      if (j === i || p.layer[other.path] !== layer) return;
      const gap = Math.hypot(p.xy[2 * other.vertex] - x, p.xy[2 * other.vertex + 1] - y);
      if (gap <= same) met[i] = 1;
      else if (i < j && gap <= tolerance && !(other.path === end.path && gap > 0.25 * lengthOf(p, end.path)))
        pairs.push({ a: i, b: j, gap });
    });
  });
  pairs.sort((p1, p2) => p1.gap - p2.gap);
  let closed = 0;
  const used = new Uint8Array(ends.length);
  const move = (i: number, [x, y]: Point) => {
    p.xy[2 * ends[i].vertex] = x;
    p.xy[2 * ends[i].vertex + 1] = y;
    used[i] = 1;
    touched.add(ends[i].path);
  };
  for (const { a, b } of pairs) {
    if (used[a] || used[b] || (met[a] && met[b])) continue;
    if (met[a] || met[b]) {
      const [loose, fixed] = met[a] ? [b, a] : [a, b];
      move(loose, at(ends[fixed]));
      used[fixed] = 1;
    } else {
      const meeting = meetingPoint(p, ends[a], ends[b], tolerance);
      move(a, meeting);
      move(b, meeting);
    }
    closed += 1;
  }
  return closed;
}

const lengthOf = (p: Primitives, path: number): number => {
  let length = 0;
  for (let v = p.start[path]; v + 1 < p.start[path + 1]; v += 1)
    length += Math.hypot(p.xy[2 * v + 2] - p.xy[2 * v], p.xy[2 * v + 3] - p.xy[2 * v + 1]);
  return length;
};

/** The corner of the two lines where neither end has to move further than the tolerance, else the middle. */
function meetingPoint(p: Primitives, a: End, b: End, tolerance: number): Point {
  const point = (v: number): Point => [p.xy[2 * v], p.xy[2 * v + 1]];
  const [pa, pb] = [point(a.vertex), point(b.vertex)];
  const straight = ({ vertex, inner }: End) => p.bulge[Math.min(vertex, inner)] === 0;
  const crossing = straight(a) && straight(b) ? lineCrossing(point(a.inner), pa, point(b.inner), pb) : null;
  if (crossing) {
    const [x, y] = crossing.point;
    if (Math.hypot(x - pa[0], y - pa[1]) <= tolerance && Math.hypot(x - pb[0], y - pb[1]) <= tolerance)
      return crossing.point;
  }
  return [(pa[0] + pb[0]) / 2, (pa[1] + pb[1]) / 2];
}
