import type { From, PlacedPath } from '@/core/placed/placed';
import { distance, type Point } from '@/core/geometry/vector';
import { defaultTolerance } from '@/core/tolerance';
import { PathFlag, type Primitives } from '@/core/underlay/primitives';
import type { Role } from '../roles';

/** What one path looks like, and why. */
export interface Looks {
  role: Role;
  why: string;
}

/** What each path of a drawing looks like; null where nothing has been said of it yet. */
export type AllLooks = (Looks | null)[];

/** A straight stretch, in metres. */
export interface Stretch {
  a: Point;
  b: Point;
  length: number;
}

/** A path that is one straight line, in metres. */
export interface Line extends Stretch {
  path: number;
}

/** An arc of a path, in metres; the sweep without its sign. */
export interface ArcPiece {
  path: number;
  centre: Point;
  radius: number;
  ends: [Point, Point];
  sweep: number;
}

/** A path as its own source. */
export function pathSource(path: number): From & { source: From } {
  const source = { entity: path, layer: 0, handle: String(path) };
  return { ...source, source };
}

/** The vertices of a path as it is drawn, in metres about the origin. */
const pointsOf = (p: Primitives, k: number, path: number): Point[] =>
  Array.from({ length: p.start[path + 1] - p.start[path] }, (_, i): Point => {
    const v = p.start[path] + i;
    return [p.xy[2 * v] * k, p.xy[2 * v + 1] * k];
  });

/** A path as it is drawn, in metres about the origin. */
export const placedPath = (p: Primitives, k: number, path: number): PlacedPath => ({
  points: pointsOf(p, k, path),
  bulges: Array.from(p.bulge.subarray(p.start[path], p.start[path + 1])),
  closed: (p.flags[path] & PathFlag.closed) !== 0,
  circle: (p.flags[path] & PathFlag.circle) !== 0,
  ...pathSource(path),
});

/** The corners of a path that closes, by its flag or because it ends where it began; null where it does not. */
export function closedCorners(p: Primitives, k: number, path: number): Point[] | null {
  if ((p.flags[path] & PathFlag.closed) !== 0) return pointsOf(p, k, path);
  // Most paths are single lines.
  if (p.start[path + 1] - p.start[path] < 4) return null;
  const points = pointsOf(p, k, path);
  return distance(points[0], points[points.length - 1]) <= defaultTolerance.coincidence ? points.slice(0, -1) : null;
}

/** A line as a path. */
export const asPath = ({ path, a, b }: Line): PlacedPath => ({
  points: [a, b],
  bulges: [0, 0],
  closed: false,
  circle: false,
  ...pathSource(path),
});

/** The straight chords of a path's sides, with the one that closes it. */
export function sidesOf({ points, closed, entity: path }: PlacedPath): Line[] {
  const count = points.length - (closed ? 0 : 1);
  return Array.from({ length: count }, (_, i): Line => {
    const [a, b] = [points[i], points[(i + 1) % points.length]];
    return { path, a, b, length: distance(a, b) };
  });
}
