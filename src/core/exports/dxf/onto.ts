import { asDrawn, metresPerDrawn, unplace, type Placement } from '@/core/datum/placement';
import { surveyPlacement, type Survey } from '@/core/datum/survey';
import { degrees, radians, type Point } from '@/core/geometry/vector';
import type { Spot } from '@/core/handover/dxf/dxfWriter';
import type { ReadModel } from '@/core/handover/model/readModel';
import type { LengthUnit } from '@/core/units/length';

/** The unit, the origin and the turning of a file, and what lies at its zero height. */
export interface Onto {
  placement: Placement;
  /** Elevation of the file's zero in the project, metres. */
  zero: number;
}

/** In the project's own coordinates. */
export const ontoProject = (unit: LengthUnit): Onto => ({ placement: asDrawn(unit), zero: 0 });

/** At easting and northing, heights above the survey's zero. */
export function ontoSurvey(survey: NonNullable<ReadModel['survey']>, unit: LengthUnit): Onto {
  const turned: Survey = { ...survey, north: radians(survey.north) };
  return { placement: surveyPlacement(turned, unit), zero: -survey.elevation };
}

/** About a point of the project, its axes turned by so many degrees. */
export const ontoPoint = (at: Point, unit: LengthUnit, turn = 0): Onto => ({
  placement: { ...asDrawn(unit), target: at, turning: radians(turn) },
  zero: 0,
});

/** Over a drawing: in its unit, from its zero, turned as it is. */
export const ontoDrawing = (placement: Placement): Onto => ({ placement, zero: 0 });

/** From the project to a file. */
export class Out {
  /** Metres in one unit of the file. */
  readonly unit: number;
  constructor(private readonly onto: Onto) {
    this.unit = metresPerDrawn(onto.placement);
  }
  at = (p: Point): Point => unplace(this.onto.placement, p);
  all = (points: readonly Point[]): Point[] => points.map(this.at);
  size = (metres: number): number => metres / this.unit;
  height = (z: number): number => (z - this.onto.zero) / this.unit;
  spot = (p: Point, z: number): Spot => [...this.at(p), this.height(z)];
  /** An angle of the project in the file, degrees. */
  turn = (angle: number): number => {
    const own = angle - degrees(this.onto.placement.turning);
    return this.onto.placement.mirrored ? 180 - own : own;
  };
  get mirrored(): boolean {
    return this.onto.placement.mirrored;
  }
}
