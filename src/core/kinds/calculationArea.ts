import * as v from 'valibot';
import type { Point } from '@/core/geometry/vector';
import { areaOf, areaParts } from './areas';
import { length, words } from './fields';
import { metres, squareMetres } from './figures';
import type { Kind } from './kind';
import { holes, label, outline, positive, rise } from './limits';

/** A level surface on which illuminance is calculated, `rise` metres above its level; without a spacing by its size. */
export interface CalculationArea {
  name: string;
  outline: Point[];
  holes: Point[][];
  rise: number;
  /** Between the points of its grid, metres; null is as EN 12464-1 wants it. */
  spacing: number | null;
}

export const calculationArea: Kind<'calculationArea'> = {
  ...areaParts,
  kind: 'calculationArea',
  names: ['calculation area', 'calculation areas'],
  schema: v.strictObject({ name: label, outline, holes, rise, spacing: v.nullable(positive) }),
  roles: { own: [], from: [] },
  style: { area: true, place: 2.7 },
  standsBack: 11.1,
  move: (shape, { ring }) => ({ ...shape, outline: ring(shape.outline), holes: shape.holes.map(ring) }),
  name: ({ name }) => name,
  size: (shape) => squareMetres(areaOf(shape)),
  facts(shape) {
    const points = shape.spacing === null ? 'points by its size' : `points every ${metres(shape.spacing)}`;
    return `${squareMetres(areaOf(shape))}, ${metres(shape.rise)} above its level, ${points}`;
  },
  fields: () => [
    words<'calculationArea'>('Name', 'name'),
    length<'calculationArea'>('Above its level', 'rise', -Infinity),
    length<'calculationArea'>('Between points', 'spacing', 0.01),
  ],
};
