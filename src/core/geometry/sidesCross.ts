import { orient2d } from 'robust-predicates';
import { BoxIndex, boxOf } from './boxIndex';
import type { Point } from './vector';

/** Whether two sides cross in their inner parts, by exact orientation tests (Shewchuk, 1997). */
function properly([a, b]: readonly [Point, Point], [c, d]: readonly [Point, Point]): boolean {
  const side = (p: Point, q: Point, r: Point): number => Math.sign(orient2d(p[0], p[1], q[0], q[1], r[0], r[1]));
  return side(a, b, c) * side(a, b, d) < 0 && side(c, d, a) * side(c, d, b) < 0;
}

/** Of so few sides each is quicker asked against each than found in an index. */
const few = 24;

/** Whether a closed outline crosses itself. Sides that only touch do not count. */
export function sidesCross(outline: readonly Point[]): boolean {
  const sides = outline.map((p, i): [Point, Point] => [p, outline[(i + 1) % outline.length]]);
  if (sides.length <= few) return sides.some((side, i) => sides.some((other, j) => j > i && properly(side, other)));
  const index = new BoxIndex(sides, (side) => boxOf(side));
  return sides.some((side, i) => index.indices(boxOf(side)).some((j) => j > i && properly(side, sides[j])));
}
