import { mostOf } from '@/core/lists';
import { fail, ok, type Result } from '@/core/result';
import { distance, type Point } from '@/core/geometry/vector';

/** A point of one drawing and where it should come to lie. Metres. */
export interface PointPair {
  name: string;
  from: Point;
  to: Point;
}

/** A turning about a point and a shift: `from` is carried to turn(from - centre) + target. */
export interface RigidFit {
  centre: Point;
  target: Point;
  /** Radians, counter-clockwise. */
  turning: number;
  /** By how much each pair misses, metres, in the order of the pairs. */
  residuals: { name: string; from: Point; to: Point; fitted: Point; away: number }[];
  /** Root of the mean square of the residuals. */
  rms: number;
}

/** Points closer than this to one another fix no direction, metres. */
const together = 0.05;

export function carry(
  { centre, target, turning }: Pick<RigidFit, 'centre' | 'target' | 'turning'>,
  [x, y]: Point,
): Point {
  const [c, s] = [Math.cos(turning), Math.sin(turning)];
  const [dx, dy] = [x - centre[0], y - centre[1]];
  return [target[0] + c * dx - s * dy, target[1] + s * dx + c * dy];
}

const mean = (points: readonly Point[]): Point => [
  points.reduce((sum, p) => sum + p[0], 0) / points.length,
  points.reduce((sum, p) => sum + p[1], 0) / points.length,
];

/**
 * The turning and shift that carry points onto others with the least squares of what remains, without scaling or
 * mirroring.
 * In the plane the turning follows from the sums of the dot and cross products about the centroids (Umeyama, 1991, for
 * two dimensions).
 */
export function fitRigid(pairs: readonly PointPair[]): Result<RigidFit> {
  if (pairs.length < 2)
    return fail(
      `${pairs.length === 0 ? 'No pair' : 'One pair'} of points was given; a drawing is fitted by at least two.`,
    );
  const [centre, target] = [mean(pairs.map(({ from }) => from)), mean(pairs.map(({ to }) => to))];
  const spread = mostOf(pairs.map(({ from }) => distance(from, centre)));
  if (spread < together / 2 || mostOf(pairs.map(({ to }) => distance(to, target))) < together / 2)
    return fail('The points lie on one another; a direction needs points apart. Pick points further from one another.');
  let [dot, cross] = [0, 0];
  for (const { from, to } of pairs) {
    const [ax, ay, bx, by] = [from[0] - centre[0], from[1] - centre[1], to[0] - target[0], to[1] - target[1]];
    dot += ax * bx + ay * by;
    cross += ax * by - ay * bx;
  }
  const fit = { centre, target, turning: Math.atan2(cross, dot) };
  const residuals = pairs.map(({ name, from, to }) => {
    const fitted = carry(fit, from);
    return { name, from, to, fitted, away: distance(fitted, to) };
  });
  return ok({
    ...fit,
    residuals,
    rms: Math.sqrt(residuals.reduce((sum, { away }) => sum + away * away, 0) / pairs.length),
  });
}
