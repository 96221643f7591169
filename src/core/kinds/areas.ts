import { area, contains } from '@/core/geometry/polygon';
import type { Point } from '@/core/geometry/vector';
import { sidesCross } from '@/core/geometry/sidesCross';
import type { Grip } from './kind';

/** Something bounded by an outline, with or without holes. */
export interface Area {
  outline: Point[];
  holes?: Point[][];
}

export const ringsOf = ({ outline, holes = [] }: Area): Point[][] => [outline, ...holes];

/** Square metres inside the outline and outside the holes. */
export const areaOf = (shape: Area): number =>
  (shape.holes ?? []).reduce((sum, hole) => sum - Math.abs(area(hole)), Math.abs(area(shape.outline)));

/** Zero inside, infinite outside: an area is hit where it lies. */
export const awayFromArea = ({ outline, holes = [] }: Area, p: Point): number =>
  contains(outline, p) && !holes.some((hole) => contains(hole, p)) ? 0 : Infinity;

const gripName = (ring: number, corner: number): string => `${ring}/${corner}`;

/** One grip a corner, named by its ring and its place in it. */
export const cornerGrips = (shape: Area): Grip[] =>
  ringsOf(shape).flatMap((ring, r) => ring.map((at, i) => ({ name: gripName(r, i), at })));

/** An area with one corner dragged. */
export function dragCorner<S extends Area>(shape: S, grip: string, to: Point): S {
  const moved = (ring: readonly Point[], r: number): Point[] => ring.map((p, i) => (gripName(r, i) === grip ? to : p));
  const { outline, holes } = shape;
  return {
    ...shape,
    outline: moved(outline, 0),
    ...(holes === undefined ? {} : { holes: holes.map((hole, i) => moved(hole, i + 1)) }),
  };
}

/** Areas smaller than this are none, square metres. */
const leastArea = 1e-4;

/** What is wrong with an outline and its holes. */
export function areaChecks(shape: Area): string[] {
  const found: string[] = [];
  if (Math.abs(area(shape.outline)) < leastArea)
    found.push('Its outline holds no area; at least 1 cm\u00b2 was expected.');
  for (const [i, ring] of ringsOf(shape).entries())
    if (sidesCross(ring))
      found.push(i === 0 ? 'Its outline crosses itself.' : `The outline of its opening ${i} crosses itself.`);
  return found;
}
