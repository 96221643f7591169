import { compose, invert, type Transform } from '@/core/geometry/transform';
import type { Point } from '@/core/geometry/vector';
import { metresPer, type LengthUnit } from '@/core/units/length';

/** How a drawing lies in the project: project = turn(drawing - origin) * metres per unit + target. */
export interface Placement {
  unit: LengthUnit;
  /** The point of the drawing, in its own units, that stands on the target. */
  origin: Point;
  /** The project point, in metres. */
  target: Point;
  /** Counter-clockwise, in radians. */
  turning: number;
}

/** As drawn: the drawing's own coordinates times its unit. */
export const asDrawn = (unit: LengthUnit): Placement => ({ unit, origin: [0, 0], target: [0, 0], turning: 0 });

/** Places a point of the drawing. The origin is taken off first, so that survey coordinates keep their last digits. */
export function place(p: Placement, [x, y]: Point): Point {
  const [c, s] = [Math.cos(p.turning), Math.sin(p.turning)];
  const [dx, dy] = [(x - p.origin[0]) * metresPer[p.unit], (y - p.origin[1]) * metresPer[p.unit]];
  return [c * dx - s * dy + p.target[0], s * dx + c * dy + p.target[1]];
}

/** Takes a project point back to the drawing's own coordinates. */
export function unplace(p: Placement, [x, y]: Point): Point {
  const [c, s] = [Math.cos(p.turning), Math.sin(p.turning)];
  const [dx, dy] = [x - p.target[0], y - p.target[1]];
  return [(c * dx + s * dy) / metresPer[p.unit] + p.origin[0], (c * dy - s * dx) / metresPer[p.unit] + p.origin[1]];
}

/** The map from coordinates about `local` (a point of the drawing, in its units) to the project. */
export function placementTransform(p: Placement, local: Point): Transform {
  const k = metresPer[p.unit];
  const [c, s] = [Math.cos(p.turning) * k, Math.sin(p.turning) * k];
  const [e, f] = place(p, local);
  return [c, s, -s, c, e, f];
}

/** The map that carries what stood by one placement to where another puts it. */
export function betweenPlacements(from: Placement, to: Placement): Transform {
  const local = from.origin;
  return compose(placementTransform(to, local), invert(placementTransform(from, local)));
}

