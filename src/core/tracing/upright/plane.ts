import type { Placement } from '@/core/datum/placement';
import { cross, direction, dot, subtract, type Point } from '@/core/geometry/vector';

/**
 * The plane that a section or an elevation stands in: upright on the line through a point of the plan in a direction,
 * radians. Its own coordinates are how far along that line, and the elevation, metres.
 */
export interface UprightPlane {
  at: Point;
  turning: number;
}

/** A point of space: x, y in the plan and the elevation, metres. */
export type Place = readonly [x: number, y: number, z: number];

/** What lies this far from the plane of a section, to either side, is seen and worked on in it, metres. */
export const seenWithin = 1;

/** The plane of a drawing that stands upright; null of a plan. */
export const planeOf = ({ target, turning, upright }: Placement): UprightPlane | null =>
  upright === null ? null : { at: target, turning };

/** Where a point of the plane is in space. */
export function onPlane({ at, turning }: UprightPlane, [along, height]: Point): Place {
  const u = direction(turning);
  return [at[0] + along * u[0], at[1] + along * u[1], height];
}

/** The same in plan. */
export const inPlan = (plane: UprightPlane, p: Point): Point => {
  const [x, y] = onPlane(plane, p);
  return [x, y];
};

/** A place of space in the plane's coordinates, and how far to the left of the plane it lies, metres. */
export function fromPlan({ at, turning }: UprightPlane, [x, y]: Point): { along: number; off: number } {
  const u = direction(turning);
  const d = subtract([x, y], at);
  return { along: dot(d, u), off: cross(u, d) };
}
