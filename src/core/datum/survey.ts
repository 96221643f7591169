import { direction, type Point } from '@/core/geometry/vector';
import type { LengthUnit } from '@/core/units/length';
import { asDrawn, place, placementTransform, unplace, type Placement } from './placement';

/**
 * Where the project lies in the survey: the survey's coordinates of the project's zero, metres, the elevation there of
 * the project's
 * zero level, and the direction of the survey's north in the project.
 */
export interface Survey {
  easting: number;
  northing: number;
  elevation: number;
  /** Radians, clockwise from the project's own north (+y) to the survey's. */
  north: number;
  /** What the system of coordinates is called, as its authority has it. */
  system?: string;
}

/** The survey as a drawing in metres that lies in the project: survey coordinates are its own. */
export const surveyPlacement = ({ easting, northing, north }: Survey, unit: LengthUnit = 'm'): Placement => {
  const metres = asDrawn(unit);
  const factor = placementTransform(metres, [0, 0])[0];
  return { ...metres, origin: [easting / factor, northing / factor], turning: -north };
};

/** A point of the project in survey coordinates, easting and northing in metres. */
export const toSurvey = (survey: Survey, p: Point): Point => unplace(surveyPlacement(survey), p);

/** A survey point in the project. */
export const fromSurvey = (survey: Survey, p: Point): Point => place(surveyPlacement(survey), p);

/** What a drawing at survey coordinates says of the survey, once it is placed. Elevations are not in a plan. */
export function surveyOfDrawing(placement: Placement, elevation: number): Survey {
  const k = placementTransform(placement, placement.origin);
  const perUnit = Math.hypot(k[0], k[1]);
  const [easting, northing] = unplace(placement, [0, 0]);
  return {
    easting: easting * perUnit,
    northing: northing * perUnit,
    elevation,
    north: Math.atan2(-Math.sin(placement.turning), Math.cos(placement.turning)),
  };
}

/** Axes to work along: coordinates about an origin, turned. Used for a wing that stands askew. */
export interface WorkingAxes {
  id: string;
  name: string;
  origin: Point;
  angle: number;
}

/** A project point in working axes. */
export function toAxes({ origin, angle }: Pick<WorkingAxes, 'origin' | 'angle'>, [x, y]: Point): Point {
  const [c, s] = direction(angle);
  const [dx, dy] = [x - origin[0], y - origin[1]];
  return [c * dx + s * dy, c * dy - s * dx];
}

/** A point given in working axes, in the project. */
export function fromAxes({ origin, angle }: Pick<WorkingAxes, 'origin' | 'angle'>, [u, v]: Point): Point {
  const [c, s] = direction(angle);
  return [origin[0] + c * u - s * v, origin[1] + s * u + c * v];
}
