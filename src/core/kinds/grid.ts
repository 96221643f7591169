import * as v from 'valibot';
import { arcSagitta, chordCount } from '@/core/geometry/bulge';
import { degrees, direction, distance, middle, radians, subtract, type Point } from '@/core/geometry/vector';
import { coordinates, words } from './fields';
import { metres } from './figures';
import type { Grip, Kind } from './kind';
import { inDegrees, label, point, positive } from './limits';
import { awayFromLine, dragLine, lineGrips } from './lines';

/** A straight grid line or an arc of one; angles in degrees, the arc counter-clockwise. */
export type GridLine =
  | { label: string; kind: 'line'; start: Point; end: Point }
  | { label: string; kind: 'arc'; centre: Point; radius: number; startAngle: number; endAngle: number };

type GridArc = GridLine & { kind: 'arc' };

function pointAt({ centre, radius }: GridArc, angle: number): Point {
  const [c, s] = direction(radians(angle));
  return [centre[0] + radius * c, centre[1] + radius * s];
}

const middleAngle = ({ startAngle, endAngle }: GridArc): number => (startAngle + endAngle) / 2;

/** A grid line as points. */
export function gridPoints(line: GridLine): Point[] {
  if (line.kind === 'line') return [line.start, line.end];
  const sweep = line.endAngle - line.startAngle;
  const chords = Math.max(2, chordCount(line.radius, radians(sweep), arcSagitta));
  return Array.from({ length: chords + 1 }, (_, i) => pointAt(line, line.startAngle + (sweep * i) / chords));
}

function gripsOf(line: GridLine): Grip[] {
  if (line.kind === 'line') return lineGrips(line);
  return [
    { name: 'start', at: pointAt(line, line.startAngle) },
    { name: 'end', at: pointAt(line, line.endAngle) },
    { name: 'middle', at: pointAt(line, middleAngle(line)) },
  ];
}

/** The ends of an arc turn about its centre, its middle sets the radius. */
function dragGrid(line: GridLine, grip: string, to: Point): GridLine {
  if (line.kind === 'line') return dragLine(line, grip, to);
  if (grip === 'middle') return { ...line, radius: Math.max(1e-6, distance(line.centre, to)) };
  const [dx, dy] = subtract(to, line.centre);
  const angle = degrees(Math.atan2(dy, dx));
  return grip === 'start' ? { ...line, startAngle: angle } : { ...line, endAngle: angle };
}

export const grid: Kind<'grid'> = {
  kind: 'grid',
  names: ['grid line', 'grid lines'],
  schema: v.variant('kind', [
    v.strictObject({ label, kind: v.literal('line'), start: point, end: point }),
    v.strictObject({
      label,
      kind: v.literal('arc'),
      centre: point,
      radius: positive,
      startAngle: inDegrees,
      endAngle: inDegrees,
    }),
  ]),
  roles: { own: ['grid'], from: ['grid'] },
  style: { area: false, place: 6 },
  outlines: () => [],
  points: gridPoints,
  anchor: (line) => (line.kind === 'line' ? middle(line.start, line.end) : pointAt(line, middleAngle(line))),
  ends: () => [],
  away: (line, p) => awayFromLine(gridPoints(line), p),
  standsBack: 4,
  grips: gripsOf,
  drag: dragGrid,
  move(line, { at, factor, turned, mirrored }) {
    if (line.kind === 'line') return { ...line, start: at(line.start), end: at(line.end) };
    // A mirrored arc runs the other way round.
    const [from, to] = mirrored ? [line.endAngle, line.startAngle] : [line.startAngle, line.endAngle];
    return {
      ...line,
      centre: at(line.centre),
      radius: line.radius * factor,
      startAngle: turned(from),
      endAngle: turned(to),
    };
  },
  name: ({ label }) => label,
  size: (line) => (line.kind === 'line' ? metres(distance(line.start, line.end)) : `radius ${metres(line.radius)}`),
  facts: () => '',
  fields: (line) => [
    words<'grid'>('Label', 'label'),
    ...(line.kind === 'line'
      ? [
          ...coordinates<'grid'>(
            'Start',
            (shape) => (shape.kind === 'line' ? shape.start : shape.centre),
            (shape, to) => (shape.kind === 'line' ? { ...shape, start: to } : shape),
          ),
          ...coordinates<'grid'>(
            'End',
            (shape) => (shape.kind === 'line' ? shape.end : shape.centre),
            (shape, to) => (shape.kind === 'line' ? { ...shape, end: to } : shape),
          ),
        ]
      : []),
  ],
  checks: (line) =>
    line.kind === 'line' && distance(line.start, line.end) === 0
      ? ['It has no length; its ends lie on one point.']
      : [],
};
