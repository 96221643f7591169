import * as v from 'valibot';
import type { Point } from '@/core/geometry/vector';
import { areaOf, areaParts } from './areas';
import { length, words } from './fields';
import { squareMetres } from './figures';
import type { Kind } from './kind';
import { holes, label, outline, positive } from './limits';
import { topTie, type TopTie } from './tie';

/** A room or another bounded part of a level, by the inner faces of what bounds it; a height of null is its level's. */
export interface Zone {
  name: string;
  number: string;
  outline: Point[];
  holes: Point[][];
  height: number | null;
  ties?: TopTie;
}

export const zone: Kind<'zone'> = {
  ...areaParts,
  kind: 'zone',
  names: ['zone', 'zones'],
  schema: v.strictObject({ name: label, number: label, outline, holes, height: v.nullable(positive), ties: topTie }),
  roles: { own: [], from: ['zone', 'wall'] },
  style: { area: true, place: 2 },
  standsBack: 11,
  move: (shape, { ring }) => ({ ...shape, outline: ring(shape.outline), holes: shape.holes.map(ring) }),
  name: (shape) => shape.number || shape.name,
  size: (shape) => squareMetres(areaOf(shape)),
  facts: (shape) =>
    `${[shape.number, shape.name].filter(Boolean).join(' ') || 'Without a name'}: ${squareMetres(areaOf(shape))} by inner faces`,
  fields: () => [words<'zone'>('Name', 'name'), words<'zone'>('Number', 'number'), length<'zone'>('Height', 'height')],
};
