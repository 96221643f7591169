import type { From } from '@/core/placed/placed';
import type { Point } from '@/core/geometry/vector';
import type { Role } from '../roles';

/** What one path looks like, and why. */
export interface Looks {
  role: Role;
  why: string;
}

/** What each path of a drawing looks like; null where nothing has been said of it yet. */
export type AllLooks = (Looks | null)[];

/** A path that is one straight line, in metres. */
export interface Line {
  path: number;
  a: Point;
  b: Point;
  length: number;
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
