import type { Point } from '@/core/geometry/vector';
import type { ZoneCandidate } from '../candidate';

/** A stretch where nothing that bounds is drawn, metres. */
export interface Leak {
  from: Point;
  to: Point;
  width: number;
}

/** What may be a zone: a face with what is cut out of it. */
export interface Bounded {
  outline: Point[];
  holes: Point[][];
  areas: ZoneCandidate['areas'];
  handles: string[];
  /** Whether its outline is drawn as a zone's. */
  drawn: boolean;
  /** The widest stretch that had to be closed to bound it; null where it is closed. */
  leak: Leak | null;
}
