import * as v from 'valibot';
import type { Point } from '@/core/geometry/vector';
import { areaOf, areaParts } from './areas';
import { length, words } from './fields';
import { metres, squareMetres } from './figures';
import type { Kind } from './kind';
import { label, outline, size } from './limits';

/** A surface outside, or what stands on it. */
export interface Outdoor {
  name: string;
  outline: Point[];
  height: number;
}

export const outdoor: Kind<'outdoor'> = {
  ...areaParts,
  kind: 'outdoor',
  names: ['outdoor surface', 'outdoor surfaces'],
  schema: v.strictObject({ name: label, outline, height: size }),
  roles: { own: ['outdoor'], from: ['outdoor'] },
  style: { area: true, place: 0 },
  standsBack: 11.5,
  move: (shape, { ring }) => ({ ...shape, outline: ring(shape.outline) }),
  name: ({ name }) => name,
  size: (shape) => squareMetres(areaOf(shape)),
  facts: (shape) => `${squareMetres(areaOf(shape))}, ${metres(shape.height)} high`,
  fields: () => [words<'outdoor'>('Name', 'name'), length<'outdoor'>('Height', 'height', 0)],
};
