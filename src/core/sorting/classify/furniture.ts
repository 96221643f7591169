import { BoxIndex, boxOf } from '@/core/geometry/boxIndex';
import { contains, leastRectangle } from '@/core/geometry/polygon';
import { distance, lineCrossing, middle, nearestOnPiece, type Point } from '@/core/geometry/vector';
import { findOutlines } from '@/core/patterns/outlines';
import { defaultTolerance } from '@/core/tolerance';
import type { Drawn } from './drawn';
import { asPath, sidesOf, type AllLooks, type Line } from './looks';

/** A piece of furniture is no longer than this, and stands free of all else by that, metres. */
const free = { longest: 2.6, by: 0.06 };

type Side = Pick<Line, 'a' | 'b'>;

/** Rectangles of a table's or a cupboard's size that touch nothing: no pieces of walls, which others go on from. */
export function furniture(looks: AllLooks, drawn: Drawn, lines: readonly Line[]): void {
  const sides = looks.flatMap((look, path) => (look?.role === 'ignore' ? [] : sidesOf(drawn.placed(path))));
  const index = new BoxIndex(sides, ({ a, b }) => boxOf([a, b]));
  const isFree = (corners: readonly Point[], own: ReadonlySet<number>): boolean => {
    const box = corners.length === 4 ? leastRectangle(corners) : null;
    if (box === null || Math.max(box.width, box.depth) > free.longest) return false;
    const isOwn = ({ path, a, b }: Line): boolean => own.has(path) || contains(corners, middle(a, b));
    return !corners.some((a, i) => {
      const side: Side = { a, b: corners[(i + 1) % 4] };
      return index.touching(boxOf([side.a, side.b], free.by)).some((other) => !isOwn(other) && areNear(side, other));
    });
  };
  const why = 'a rectangle that stands free, as furniture does';
  const isOpen = (path: number): boolean => looks[path] === null && drawn.p.chain[path] === 0;
  for (let path = 0; path < looks.length; path += 1) {
    const corners = isOpen(path) ? drawn.corners(path) : null;
    if (corners !== null && isFree(corners, new Set([path]))) looks[path] = { role: 'ignore', why };
  }
  const loose = lines.filter(({ path, length }) => isOpen(path) && length <= free.longest);
  for (const { points, handles } of findOutlines(loose.map(asPath), defaultTolerance.gap).outlines) {
    const own = handles.map(Number);
    if (isFree(points, new Set(own))) for (const path of own) looks[path] = { role: 'ignore', why };
  }
}

/** Whether two sides cross or come near one another. */
function areNear(p: Side, q: Side): boolean {
  const hit = lineCrossing(p.a, p.b, q.a, q.b);
  if (hit !== null && hit.t >= 0 && hit.t <= 1 && hit.u >= 0 && hit.u <= 1) return true;
  const isNear = (side: Side, at: Point): boolean => distance(nearestOnPiece(side.a, side.b, at), at) <= free.by;
  return isNear(p, q.a) || isNear(p, q.b) || isNear(q, p.a) || isNear(q, p.b);
}
