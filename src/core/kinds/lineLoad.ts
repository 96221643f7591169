import * as v from 'valibot';
import { distance, middle, type Point } from '@/core/geometry/vector';
import { coordinates, length, words } from './fields';
import { metres } from './figures';
import type { Kind } from './kind';
import { point, rise } from './limits';
import { awayFromLine, bandOutline, dragLine, lineGrips } from './lines';
import { components, loadCase, loadChecks, turnedVector, vector3, vectorWords, type Vector3 } from './loading';

/** A load along a straight line, `rise` metres above its level; newtons per metre of its length. */
export interface LineLoad {
  case: string;
  start: Point;
  end: Point;
  rise: number;
  q: Vector3;
}

/** The width of its mark in plan, and the shortest that is one, metres. */
const width = 0.16;
const shortest = 0.01;

const band = ({ start, end }: LineLoad): Point[] => bandOutline([start, end], width);

export const lineLoad: Kind<'lineLoad'> = {
  kind: 'lineLoad',
  names: ['line load', 'line loads'],
  schema: v.strictObject({ case: loadCase, start: point, end: point, rise, q: vector3 }),
  roles: { own: [], from: [] },
  style: { area: true, place: 9 },
  outlines: (shape) => [band(shape)],
  points: band,
  anchor: ({ start, end }) => middle(start, end),
  ends: ({ start, end }) => [start, end],
  away: ({ start, end }, p) => Math.max(0, awayFromLine([start, end], p) - width / 2),
  standsBack: 2,
  grips: lineGrips,
  drag: dragLine,
  move: (shape, map) => ({
    ...shape,
    start: map.at(shape.start),
    end: map.at(shape.end),
    q: turnedVector(shape.q, map),
  }),
  name: (shape) => shape.case,
  size: ({ q }) => vectorWords(q, 'kN/m'),
  facts: ({ q, start, end, ...shape }) =>
    `case ${shape.case}, ${vectorWords(q, 'kN/m')} over ${metres(distance(start, end))}`,
  fields: () => [
    words<'lineLoad'>('Load case', 'case'),
    length<'lineLoad'>('Above its level', 'rise', -Infinity),
    ...components<'lineLoad'>(
      'Load',
      'kN/m',
      ({ q }) => q,
      (shape, q) => ({ ...shape, q }),
    ),
    ...coordinates<'lineLoad'>(
      'Start',
      ({ start }) => start,
      (shape, start) => ({ ...shape, start }),
    ),
    ...coordinates<'lineLoad'>(
      'End',
      ({ end }) => end,
      (shape, end) => ({ ...shape, end }),
    ),
  ],
  checks: (shape) => [
    ...(distance(shape.start, shape.end) < shortest
      ? [
          `It is ${(distance(shape.start, shape.end) * 1000).toFixed(1)} mm long; at least ${shortest * 1000} mm were expected.`,
        ]
      : []),
    ...loadChecks(shape, shape.q),
  ],
};
