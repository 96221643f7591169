import * as v from 'valibot';
import { centroid } from '@/core/geometry/polygon';
import type { Point } from '@/core/geometry/vector';
import { areaChecks, areaOf, awayFromArea, cornerGrips, dragCorner, ringsOf } from './areas';
import { length, words } from './fields';
import { squareMetres } from './figures';
import type { Kind } from './kind';
import { holes, label, outline, positive } from './limits';

/** A room or another bounded part of a level, by the inner faces of what bounds it; a height of null is its level's. */
export interface Zone {
  name: string;
  number: string;
  outline: Point[];
  holes: Point[][];
  height: number | null;
}

export const zone: Kind<'zone'> = {
  kind: 'zone',
  names: ['zone', 'zones'],
  schema: v.strictObject({ name: label, number: label, outline, holes, height: v.nullable(positive) }),
  roles: { own: [], from: ['zone', 'wall'] },
  style: { area: true, place: 2 },
  outlines: ringsOf,
  points: (shape) => shape.outline,
  anchor: (shape) => centroid(shape.outline),
  ends: () => [],
  away: awayFromArea,
  standsBack: 11,
  grips: cornerGrips,
  drag: dragCorner,
  move: (shape, { ring }) => ({ ...shape, outline: ring(shape.outline), holes: shape.holes.map(ring) }),
  name: (shape) => shape.number || shape.name,
  size: (shape) => squareMetres(areaOf(shape)),
  facts: (shape) =>
    `${[shape.number, shape.name].filter(Boolean).join(' ') || 'Without a name'}: ${squareMetres(areaOf(shape))} by inner faces`,
  fields: () => [words<'zone'>('Name', 'name'), words<'zone'>('Number', 'number'), length<'zone'>('Height', 'height')],
  checks: areaChecks,
};
