import { compose, invert, type Transform } from '@/core/geometry/transform';
import { direction, type Point } from '@/core/geometry/vector';
import { metresPer, type LengthUnit } from '@/core/units/length';

/**
 * How a drawing lies in the project: project = turn(mirror(drawing - origin)) * metres per unit * scale + target.
 * A section or an elevation stands upright on the line through the target at the turning: its x runs along the line,
 * its y upwards.
 */
export interface Placement {
  unit: LengthUnit;
  /** True sizes per drawn size: 1 for a drawing at true size, 100 for one drawn as it is plotted at 1:100. */
  scale: number;
  /** The point of the drawing, in its own units, that stands on the target. */
  origin: Point;
  /** The project point, in metres. */
  target: Point;
  /** Counter-clockwise, in radians. */
  turning: number;
  /** Whether left and right are exchanged before it is turned, for drawings that show a plan mirror-wise. */
  mirrored: boolean;
  /** For a drawing that stands upright the elevation of its origin, metres; null for a plan. */
  upright: number | null;
}

/** As drawn: the drawing's own coordinates times its unit. */
export const asDrawn = (unit: LengthUnit, scale = 1): Placement => ({
  unit,
  scale,
  origin: [0, 0],
  target: [0, 0],
  turning: 0,
  mirrored: false,
  upright: null,
});

/** True metres in one drawing unit. */
export const metresPerDrawn = ({ unit, scale }: Pick<Placement, 'unit' | 'scale'>): number => metresPer[unit] * scale;

/** Places a point of the drawing. The origin is taken off first, so that survey coordinates keep their last digits. */
export const place = (p: Placement, at: Point): Point => placer(p)(at[0], at[1]);

/** Takes many drawing points to the project, by their coordinates. */
export function placer(p: Placement): (x: number, y: number) => Point {
  const [c, s] = direction(p.turning);
  const k = metresPerDrawn(p);
  const across = p.mirrored ? -k : k;
  const {
    origin: [ox, oy],
    target: [tx, ty],
  } = p;
  return (x, y) => {
    const [dx, dy] = [(x - ox) * across, (y - oy) * k];
    return [c * dx - s * dy + tx, s * dx + c * dy + ty];
  };
}

/** Takes a project point back to the drawing's own coordinates. */
export function unplace(p: Placement, [x, y]: Point): Point {
  const [c, s] = direction(p.turning);
  const k = metresPerDrawn(p);
  const [dx, dy] = [x - p.target[0], y - p.target[1]];
  return [(c * dx + s * dy) / (p.mirrored ? -k : k) + p.origin[0], (c * dy - s * dx) / k + p.origin[1]];
}

/** The map from coordinates about `local` (a point of the drawing, in its units) to the project. */
export function placementTransform(p: Placement, local: Point): Transform {
  const k = metresPerDrawn(p);
  const [c, s] = [Math.cos(p.turning) * k, Math.sin(p.turning) * k];
  const [e, f] = place(p, local);
  return p.mirrored ? [-c, -s, -s, c, e, f] : [c, s, -s, c, e, f];
}

/** The map that carries what stood by one placement to where another puts it. */
export function betweenPlacements(from: Placement, to: Placement): Transform {
  const local = from.origin;
  return compose(placementTransform(to, local), invert(placementTransform(from, local)));
}

/** An upright drawing seen face on: x is the distance along its line from the target, y the elevation. */
export const faceOn = (p: Placement): Placement => ({ ...p, target: [0, p.upright ?? 0], turning: 0, upright: null });

/** Where a point of an upright drawing is in space: the plan's x and y, and the elevation. */
export function placeUpright(p: Placement, point: Point): [x: number, y: number, elevation: number] {
  const [along, elevation] = place(faceOn(p), point);
  const [c, s] = direction(p.turning);
  return [p.target[0] + along * c, p.target[1] + along * s, elevation];
}

/** Puts a point of the drawing on a point of the project; turning and size stay. */
export const putOn = (p: Placement, drawn: Point, target: Point): Placement => ({
  ...p,
  origin: [drawn[0], drawn[1]],
  target: [target[0], target[1]],
});

/**
 * Turns a drawing about a point of the project.
 * @param by radians, counter-clockwise
 */
export function turnAbout(p: Placement, about: Point, by: number): Placement {
  return {
    ...p,
    origin: unplace(p, about),
    target: [about[0], about[1]],
    turning: Math.atan2(Math.sin(p.turning + by), Math.cos(p.turning + by)),
  };
}

/**
 * An upright drawing seen from the other side: what was drawn to the right of its line's start stands to the other side
 * of it, at the same heights.
 */
export const fromOtherSide = (p: Placement): Placement => ({
  ...p,
  turning: Math.atan2(-Math.sin(p.turning), -Math.cos(p.turning)),
});

/** Exchanges left and right about the upright line through a point of the project. */
export function mirrorAbout(p: Placement, about: Point): Placement {
  // Mirroring after a turning is the opposite turning after mirroring.
  return {
    ...p,
    origin: unplace(p, about),
    target: [about[0], about[1]],
    turning: Math.atan2(-Math.sin(p.turning), Math.cos(p.turning)),
    mirrored: !p.mirrored,
  };
}

/** Gives a drawing another unit or scale; what stood on a point of the project stays there. */
export const resize = (p: Placement, about: Point, unit: LengthUnit, scale: number): Placement => ({
  ...p,
  origin: unplace(p, about),
  target: [about[0], about[1]],
  unit,
  scale,
});
