import type { PlacedPath } from '@/core/placed/placed';
import { distance, type Point } from '@/core/geometry/vector';
import type { Role } from '../roles';
import { pathSource } from './drawn';

/** What one path looks like, and why. */
export interface Looks {
  role: Role;
  why: string;
}

/** What each path of a drawing looks like; null where nothing has been said of it yet. */
export type AllLooks = (Looks | null)[];

/** The same, once all is said. */
export type Told = readonly (Looks | null)[];

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
