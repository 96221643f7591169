import { area } from '@/core/geometry/polygon';
import type { Point } from '@/core/geometry/vector';
import type { ZoneCandidate } from '../candidate';

/** What may be a zone: a face with what is cut out of it. */
export interface Bounded {
  outline: Point[];
  holes: Point[][];
  areas: ZoneCandidate['areas'];
  handles: string[];
  /** Whether its outline is drawn as a zone's. */
  drawn: boolean;
}

export const counterClockwise = (points: readonly Point[]): Point[] =>
  area(points) < 0 ? [...points].reverse() : [...points];
