import * as v from 'valibot';
import type { Point } from '@/core/geometry/vector';
import { areaOf, areaParts } from './areas';
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
  ...areaParts,
  kind: 'slab',
  names: ['slab', 'slabs'],
  schema: v.strictObject({ outline, holes, thickness: positive }),
  roles: { own: ['slab', 'slabOpening'], from: ['slab', 'slabOpening', 'wall'] },
  style: { area: true, place: 1 },
  standsBack: 11.5,
  move: (shape, { ring }) => ({ ...shape, outline: ring(shape.outline), holes: shape.holes.map(ring) }),
  name: () => 'slab',
  size: (shape) => squareMetres(areaOf({ outline: shape.outline })),
  facts: (shape) =>
    `${squareMetres(areaOf({ outline: shape.outline }))}, ${millimetres(shape.thickness)} thick, ${shape.holes.length} openings`,
  fields: () => [length<'slab'>('Thickness', 'thickness', 0.02)],
};
