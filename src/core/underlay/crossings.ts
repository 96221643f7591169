import { arcContains, type Arc } from '@/core/geometry/bulge';
import { distance, dot, lineCrossing, subtract, type Point } from '@/core/geometry/vector';
import type { Piece } from './pieces';

const within = (t: number) => t >= -1e-9 && t <= 1 + 1e-9;

/** The points that two sides share; none where they run on one line or one circle. */
export function crossingsOf(p: Piece, q: Piece): Point[] {
  if (p.arc === null && q.arc === null) {
    const hit = lineCrossing(p.a, p.b, q.a, q.b);
    return hit !== null && within(hit.t) && within(hit.u) ? [hit.point] : [];
  }
  if (p.arc !== null && q.arc !== null)
    return circleCircle(p.arc, q.arc).filter((x) => onArc(p.arc!, x) && onArc(q.arc!, x));
  const [straight, round] = p.arc === null ? [p, q.arc!] : [q, p.arc];
  return lineCircle(straight.a, straight.b, round).filter((x) => onArc(round, x));
}

const onArc = (arc: Arc, p: Point) => arcContains(arc, Math.atan2(p[1] - arc.centre[1], p[0] - arc.centre[0]));

/** Points of the segment a-b on a circle. */
function lineCircle(a: Point, b: Point, { centre, radius }: Arc): Point[] {
  const d = subtract(b, a);
  const f = subtract(a, centre);
  const square = dot(d, d);
  if (square === 0) return [];
  const half = dot(f, d) / square;
  const root = half * half - (dot(f, f) - radius * radius) / square;
  if (root < 0) return [];
  const spread = Math.sqrt(root);
  return [-half - spread, -half + spread].filter(within).map((t): Point => [a[0] + t * d[0], a[1] + t * d[1]]);
}

function circleCircle(p: Arc, q: Arc): Point[] {
  const gap = distance(p.centre, q.centre);
  if (gap === 0 || gap > p.radius + q.radius || gap < Math.abs(p.radius - q.radius)) return [];
  const along = (gap * gap + p.radius * p.radius - q.radius * q.radius) / (2 * gap);
  const across = Math.sqrt(Math.max(0, p.radius * p.radius - along * along));
  const [ux, uy] = [(q.centre[0] - p.centre[0]) / gap, (q.centre[1] - p.centre[1]) / gap];
  const base: Point = [p.centre[0] + along * ux, p.centre[1] + along * uy];
  return [
    [base[0] - across * uy, base[1] + across * ux],
    [base[0] + across * uy, base[1] - across * ux],
  ];
}
