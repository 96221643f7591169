import * as v from 'valibot';
import type { Point } from '@/core/geometry/vector';
import { length } from './fields';
import { metres } from './figures';
import type { Kind } from './kind';
import { point } from './limits';
import { awayFromLine, bandOutline, lengthOfLine } from './lines';
import { awayFromMark, squareMark } from './marks';

/** The ground along a line, or of a single point a spot height: metres above the project's zero. */
export interface Contour {
  points: Point[];
  elevation: number;
}

/** The width of a contour's mark in plan, and half the side of a spot's, metres. */
const [width, half] = [0.12, 0.25];
const mostPoints = 10_000;
/** Nothing on earth lies farther from its sea, metres. */
const farthest = 12_000;

const isSpot = ({ points }: Contour): boolean => points.length === 1;

const mark = (shape: Contour): Point[] =>
  isSpot(shape) ? squareMark(shape.points[0], half, 45) : bandOutline(shape.points, width);

/** An elevation as plans write it. */
const signed = (elevation: number): string => `${elevation < 0 ? '\u2212' : '+'}${Math.abs(elevation).toFixed(3)}`;

export const contour: Kind<'contour'> = {
  kind: 'contour',
  names: ['contour', 'contours'],
  schema: v.strictObject({
    points: v.pipe(v.array(point), v.minLength(1), v.maxLength(mostPoints)),
    elevation: v.pipe(v.number(), v.finite(), v.minValue(-farthest), v.maxValue(farthest)),
  }),
  roles: { own: ['terrain'], from: ['terrain'] },
  style: { area: true, place: 0.5 },
  outlines: (shape) => [mark(shape)],
  points: mark,
  anchor: ({ points }) => points[Math.floor(points.length / 2)],
  ends: () => [],
  away: (shape, p) =>
    isSpot(shape) ? awayFromMark(mark(shape), p) : Math.max(0, awayFromLine(shape.points, p) - width / 2),
  standsBack: 3,
  grips: ({ points }) => points.map((at, i) => ({ name: `${i}`, at })),
  drag: (shape, grip, to) => ({ ...shape, points: shape.points.map((p, i) => (`${i}` === grip ? to : p)) }),
  move: (shape, { at }) => ({ ...shape, points: shape.points.map(at) }),
  name: ({ elevation }) => signed(elevation),
  size: (shape) => (isSpot(shape) ? 'spot height' : metres(lengthOfLine(shape.points))),
  facts: (shape) =>
    isSpot(shape)
      ? `the ground at ${signed(shape.elevation)}`
      : `the ground at ${signed(shape.elevation)} over ${metres(lengthOfLine(shape.points))}`,
  fields: () => [length<'contour'>('Elevation', 'elevation', -Infinity)],
  checks: () => [],
};
