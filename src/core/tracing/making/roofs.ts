import { area } from '@/core/geometry/polygon';
import { degrees, distance, pointAlong, subtract, type Point } from '@/core/geometry/vector';
import type { Roof } from '@/core/kinds/roof';
import { fail, ok, type Result } from '@/core/result';

/** A roof plane over an outline that rises from its first side, the eaves, to the inside. */
export function roofOverOutline(outline: readonly Point[], like: Roof): Roof {
  const [dx, dy] = subtract(outline[1], outline[0]);
  // Left of a counter-clockwise side lies the inside.
  const inside = area(outline) > 0 ? 90 : -90;
  return { ...like, outline: [...outline], direction: degrees(Math.atan2(dy, dx)) + inside };
}

/**
 * Two planes over a rectangle that meet in a ridge along its longer sides, halfway between them.
 * @param rectangle four corners in their order
 */
export function roofsToRidge(rectangle: readonly Point[], like: Roof): Result<Roof[]> {
  const [a, b, c, d] =
    distance(rectangle[0], rectangle[1]) >= distance(rectangle[1], rectangle[2])
      ? rectangle
      : [rectangle[1], rectangle[2], rectangle[3], rectangle[0]];
  if (distance(a, b) === 0 || distance(b, c) === 0)
    return fail('The corners lie on one line. Click two opposite ones.');
  const [from, to] = [pointAlong(d, a, 0.5), pointAlong(b, c, 0.5)];
  return ok([roofOverOutline([a, b, to, from], like), roofOverOutline([c, d, from, to], like)]);
}
