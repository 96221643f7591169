import * as v from 'valibot';
import type { Point } from '@/core/geometry/vector';
import { coordinates, length, words } from './fields';
import type { Kind } from './kind';
import { point, rise } from './limits';
import {
  components,
  isZero,
  loadCase,
  loadChecks,
  turnedMoment,
  turnedVector,
  vector3,
  vectorWords,
  type Vector3,
} from './loading';
import { awayFromMark, placedMark } from './marks';

/** A force and a moment at a point, `rise` metres above its level; newtons and newton metres. */
export interface PointLoad {
  case: string;
  position: Point;
  rise: number;
  force: Vector3;
  moment: Vector3;
}

/** The mark in plan: three spokes of a wheel, metres. */
const [reach, waist] = [0.3, 0.07];
const mark = (position: Point): Point[] =>
  placedMark(
    position,
    0,
    Array.from({ length: 6 }, (_, i): Point => {
      const angle = Math.PI / 2 + (i * Math.PI) / 3;
      const radius = i % 2 === 0 ? reach : waist;
      return [radius * Math.cos(angle), radius * Math.sin(angle)];
    }),
  );

export const pointLoad: Kind<'pointLoad'> = {
  kind: 'pointLoad',
  names: ['point load', 'point loads'],
  schema: v.strictObject({ case: loadCase, position: point, rise, force: vector3, moment: vector3 }),
  roles: { own: [], from: [] },
  style: { area: true, place: 10 },
  outlines: ({ position }) => [mark(position)],
  points: ({ position }) => mark(position),
  anchor: ({ position }) => position,
  ends: ({ position }) => [position],
  away: ({ position }, p) => awayFromMark(mark(position), p),
  standsBack: 0.5,
  grips: ({ position }) => [{ name: 'position', at: position }],
  drag: (shape, _, to) => ({ ...shape, position: to }),
  move: (shape, map) => ({
    ...shape,
    position: map.at(shape.position),
    force: turnedVector(shape.force, map),
    moment: turnedMoment(shape.moment, map),
  }),
  name: (shape) => shape.case,
  size: ({ force }) => vectorWords(force, 'kN'),
  facts: ({ force, moment, ...shape }) =>
    `case ${shape.case}, ${vectorWords(force, 'kN')}${isZero(moment) ? '' : `, moment ${vectorWords(moment, 'kNm')}`}`,
  fields: () => [
    words<'pointLoad'>('Load case', 'case'),
    length<'pointLoad'>('Above its level', 'rise', -Infinity),
    ...components<'pointLoad'>(
      'Force',
      'kN',
      ({ force }) => force,
      (shape, force) => ({ ...shape, force }),
    ),
    ...components<'pointLoad'>(
      'Moment',
      'kNm',
      ({ moment }) => moment,
      (shape, moment) => ({ ...shape, moment }),
    ),
    ...coordinates<'pointLoad'>(
      'Position',
      ({ position }) => position,
      (shape, position) => ({ ...shape, position }),
    ),
  ],
  checks: (shape) => loadChecks(shape, shape.force, shape.moment),
};
