import * as v from 'valibot';
import { centroid } from '@/core/geometry/polygon';
import type { Point } from '@/core/geometry/vector';
import { areaChecks, areaOf, awayFromArea, cornerGrips, dragCorner, ringsOf } from './areas';
import { length } from './fields';
import { millimetres, squareMetres } from './figures';
import type { Kind } from './kind';
import { holes, outline, positive } from './limits';

export interface Slab {
  outline: Point[];
  holes: Point[][];
  thickness: number;
}

export const slab: Kind<'slab'> = {
  kind: 'slab',
  names: ['slab', 'slabs'],
  schema: v.strictObject({ outline, holes, thickness: positive }),
  roles: { own: ['slab', 'slabOpening'], from: ['slab', 'slabOpening', 'wall'] },
  style: { area: true, place: 1 },
  outlines: ringsOf,
  points: (shape) => shape.outline,
  anchor: (shape) => centroid(shape.outline),
  ends: () => [],
  away: awayFromArea,
  standsBack: 11.5,
  grips: cornerGrips,
  drag: dragCorner,
  move: (shape, { ring }) => ({ ...shape, outline: ring(shape.outline), holes: shape.holes.map(ring) }),
  name: () => 'slab',
  size: (shape) => squareMetres(areaOf({ outline: shape.outline })),
  facts: (shape) =>
    `${squareMetres(areaOf({ outline: shape.outline }))}, ${millimetres(shape.thickness)} thick, ${shape.holes.length} openings`,
  fields: () => [length<'slab'>('Thickness', 'thickness', 0.02)],
  checks: areaChecks,
};
