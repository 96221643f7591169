import { area, centroid, contains } from '@/core/geometry/polygon';
import { middle, subtract, type Point } from '@/core/geometry/vector';
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

/** What the grip of an edge is called beside that of the corner where it begins. */
const edgeMark = 'edge';
const edgeName = (ring: number, corner: number): string => `${gripName(ring, corner)}/${edgeMark}`;

/** Whether a grip carries an edge of an outline and not a corner. */
export const isEdgeGrip = (grip: string): boolean => grip.endsWith(`/${edgeMark}`);

/** One grip a corner and one an edge, in its middle, named by the ring and the place in it. */
export const areaGrips = (shape: Area): Grip[] =>
  ringsOf(shape).flatMap((ring, r) => [
    ...ring.map((at, i) => ({ name: gripName(r, i), at })),
    ...ring.map((at, i) => ({ name: edgeName(r, i), at: middle(at, ring[(i + 1) % ring.length]) })),
  ]);

/** A ring with one corner at a point, or with one edge carried so that its middle is there. */
function draggedRing(ring: readonly Point[], r: number, grip: string, to: Point): Point[] {
  const edge = ring.findIndex((_, i) => edgeName(r, i) === grip);
  if (edge === -1) return ring.map((p, i) => (gripName(r, i) === grip ? to : p));
  const next = (edge + 1) % ring.length;
  const by = subtract(to, middle(ring[edge], ring[next]));
  return ring.map((p, i): Point => (i === edge || i === next ? [p[0] + by[0], p[1] + by[1]] : p));
}

/** An area with one corner or one edge dragged. */
export function dragArea<S extends Area>(shape: S, grip: string, to: Point): S {
  const moved = (ring: readonly Point[], r: number): Point[] => draggedRing(ring, r, grip, to);
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

/** What all kinds that are bounded by an outline have in common. */
export const areaParts = {
  outlines: ringsOf,
  points: (shape: Area): Point[] => shape.outline,
  anchor: (shape: Area): Point => centroid(shape.outline),
  ends: (): Point[] => [],
  away: awayFromArea,
  grips: areaGrips,
  drag: dragArea,
  checks: areaChecks,
} as const;
