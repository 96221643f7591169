import * as v from 'valibot';
import type { Point } from '@/core/geometry/vector';
import { areaChecks, areaOf, areaParts } from './areas';
import { number, words } from './fields';
import { squareMetres } from './figures';
import type { Kind } from './kind';
import { holes, outline } from './limits';
import { loadCase, loadChecks, pressure, pressureWords } from './loading';

/** A load on the slabs of its level within an outline; newtons per square metre, downward where negative. */
export interface AreaLoad {
  case: string;
  outline: Point[];
  holes: Point[][];
  q: number;
}

/** kN/m2 that are typing slips, and how many N/m2 one is. */
const [mostPressure, kilo] = [1e6, 1000];

export const areaLoad: Kind<'areaLoad'> = {
  ...areaParts,
  kind: 'areaLoad',
  names: ['area load', 'area loads'],
  schema: v.strictObject({ case: loadCase, outline, holes, q: pressure }),
  roles: { own: [], from: [] },
  style: { area: true, place: 2.5 },
  standsBack: 11.2,
  move: (shape, { ring }) => ({ ...shape, outline: ring(shape.outline), holes: shape.holes.map(ring) }),
  name: (shape) => shape.case,
  size: ({ q }) => pressureWords(q),
  facts: (shape) => `case ${shape.case}, ${pressureWords(shape.q)} on ${squareMetres(areaOf(shape))}`,
  fields: () => [
    words<'areaLoad'>('Load case', 'case'),
    number<'areaLoad'>('Load, upward', 'q', {
      unit: 'kN/m\u00b2',
      least: -mostPressure,
      most: mostPressure,
      factor: kilo,
    }),
  ],
  checks: (shape) => [...areaChecks(shape), ...loadChecks(shape, [0, 0, shape.q])],
};
