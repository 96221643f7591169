import * as v from 'valibot';
import { arcOfBulge, pointOnArc } from '@/core/geometry/bulge';
import { distance, middle, type Point } from '@/core/geometry/vector';
import { beyondField, beyondSchema, type Beyond } from './beyond';
import { coordinates, length } from './fields';
import { metres, millimetres } from './figures';
import type { Kind } from './kind';
import { bulge, point, positive } from './limits';
import { awayFromLine, bandOutline, bulgedLine, dragLine, lineGrips } from './lines';
import { materialField, materialId } from './material';
import { standingTies, type StandingTies } from './tie';

/** A wall by its centre line; straight, or bent by a bulge (DXF reference, LWPOLYLINE group 42). */
export interface Wall {
  start: Point;
  end: Point;
  thickness: number;
  /** Null is its level's. */
  height: number | null;
  bulge: number;
  /** Whether one side of it is outside. */
  outer: boolean;
  /** Whether it carries more than itself; left out where nobody has said so. */
  bearing?: boolean;
  /** Left out where its kind's is taken. */
  material?: string;
  beyond?: Beyond;
  ties?: StandingTies;
}

/** The centre line of a wall as points: its ends, or chords of its arc. */
export const wallLine = ({ start, end, bulge }: Pick<Wall, 'start' | 'end' | 'bulge'>): Point[] =>
  bulgedLine(start, end, bulge);

/** How long a wall is along its centre line, metres. */
export function wallLength({ start, end, bulge }: Pick<Wall, 'start' | 'end' | 'bulge'>): number {
  if (bulge === 0) return distance(start, end);
  const { radius, sweep } = arcOfBulge(start, end, bulge);
  return radius * Math.abs(sweep);
}

/** The middle of a wall's centre line. */
const middleOfWall = ({ start, end, bulge }: Wall): Point =>
  bulge === 0 ? middle(start, end) : pointOnArc(arcOfBulge(start, end, bulge), 0.5);

/** Where a wall stands: between rooms, or between a room and the outside. */
const places = ['inside', 'outside on one side'] as const;

/** Whether a wall carries, in the words of its field and of its facts. */
const bearings = ['not said', 'carries', 'carries nothing'] as const;
const bearingWord = ({ bearing }: Wall): (typeof bearings)[number] => {
  if (bearing === undefined) return 'not said';
  return bearing ? 'carries' : 'carries nothing';
};
/** A wall that carries, or not, or of which that is not said. */
function withBearing({ bearing: _, ...shape }: Wall, word: string): Wall {
  return word === 'not said' ? shape : { ...shape, bearing: word === 'carries' };
}

/** Walls shorter than this are none, metres. */
const shortest = 0.01;

export const wall: Kind<'wall'> = {
  kind: 'wall',
  names: ['wall', 'walls'],
  schema: v.strictObject({
    start: point,
    end: point,
    thickness: positive,
    height: v.nullable(positive),
    bulge,
    outer: v.boolean(),
    bearing: v.optional(v.boolean()),
    material: materialId,
    beyond: beyondSchema,
    ties: standingTies,
  }),
  roles: { own: ['wall'], from: ['wall'] },
  style: { area: true, place: 3 },
  outlines: (shape) => [bandOutline(wallLine(shape), shape.thickness)],
  points: (shape) => bandOutline(wallLine(shape), shape.thickness),
  anchor: middleOfWall,
  ends: ({ start, end }) => [start, end],
  away: (shape, p) => Math.max(0, awayFromLine(wallLine(shape), p) - shape.thickness / 2),
  standsBack: 3,
  grips: lineGrips,
  drag: dragLine,
  move: (shape, { at, factor, mirrored }) => ({
    ...shape,
    start: at(shape.start),
    end: at(shape.end),
    thickness: shape.thickness * factor,
    bulge: mirrored ? -shape.bulge : shape.bulge,
  }),
  name: ({ outer }) => (outer ? 'outer' : 'inner'),
  size: (shape) => `${millimetres(shape.thickness)}, ${metres(wallLength(shape))}`,
  facts: (shape) =>
    `${metres(wallLength(shape))} between its ` +
    `nodes${shape.outer ? ', outside on one side' : ''}${shape.bearing === undefined ? '' : `, ${bearingWord(shape)}`}`,
  fields: () => [
    length<'wall'>('Thickness', 'thickness', 0.02),
    length<'wall'>('Height', 'height'),
    {
      label: 'It stands',
      kind: 'choice',
      options: places,
      get: ({ outer }) => (outer ? 'outside on one side' : 'inside'),
      set: (shape, value) => ({ ...shape, outer: value === 'outside on one side' }),
    },
    beyondField<'wall'>(),
    { label: 'Bearing', kind: 'choice', options: bearings, get: bearingWord, set: withBearing },
    materialField<'wall'>(
      ({ material }) => material,
      (shape, material) => ({ ...shape, material }),
    ),
    ...coordinates<'wall'>(
      'Start',
      ({ start }) => start,
      (shape, start) => ({ ...shape, start }),
    ),
    ...coordinates<'wall'>(
      'End',
      ({ end }) => end,
      (shape, end) => ({ ...shape, end }),
    ),
  ],
  checks: (shape) =>
    wallLength(shape) < shortest
      ? [`It is ${(wallLength(shape) * 1000).toFixed(1)} mm long; at least ${shortest * 1000} mm were expected.`]
      : [],
};
