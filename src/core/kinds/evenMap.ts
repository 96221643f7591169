import { apply, determinant, evenScale, turnDirection, type Transform } from '@/core/geometry/transform';
import { degrees, type Point } from '@/core/geometry/vector';

/** A map that turns, shifts, mirrors and scales evenly, as elements are carried by it. */
export interface EvenMap {
  at: (p: Point) => Point;
  /** A direction in degrees, carried along. */
  turned: (angle: number) => number;
  factor: number;
  mirrored: boolean;
  /** A closed outline, carried along; counter-clockwise stays counter-clockwise. */
  ring: (points: readonly Point[]) => Point[];
}

/** @throws where the map does not keep angles, which no placement does */
export function evenMap(map: Transform): EvenMap {
  const factor = evenScale(map);
  if (factor === null) throw new Error('An element can only be carried by a map that keeps angles');
  const mirrored = determinant(map) < 0;
  const at = (p: Point): Point => apply(map, p);
  const turn = degrees(turnDirection(map, 0));
  return {
    at,
    factor,
    mirrored,
    turned: (angle) => (mirrored ? turn - angle : turn + angle),
    ring: (points) => {
      const moved = points.map(at);
      return mirrored ? moved.reverse() : moved;
    },
  };
}
