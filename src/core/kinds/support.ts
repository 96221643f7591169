import * as v from 'valibot';
import type { Point } from '@/core/geometry/vector';
import { choice, coordinates, length } from './fields';
import { metres } from './figures';
import type { Kind } from './kind';
import { point, rise } from './limits';
import { awayFromMark, squareMark } from './marks';

/** The six ways in which a node can move: along the three axes of the project, and about them. */
export const freedoms = ['x', 'y', 'z', 'rx', 'ry', 'rz'] as const;
export type Freedom = (typeof freedoms)[number];

/** What holds the structure at a point: `rise` metres above its level, against the freedoms that are fixed. */
export interface Support {
  position: Point;
  rise: number;
  fixed: Freedom[];
}

/** What supports are called by what they hold. */
const holdings = {
  pinned: ['x', 'y', 'z'],
  'pinned, held about its axis': ['x', 'y', 'z', 'rz'],
  fixed: ['x', 'y', 'z', 'rx', 'ry', 'rz'],
  'upright only': ['z'],
  'upright and across x': ['y', 'z'],
  'upright and across y': ['x', 'z'],
} as const satisfies Record<string, readonly Freedom[]>;
const other = 'another way';

type Holding = keyof typeof holdings | typeof other;
const holdingNames = Object.keys(holdings) as (keyof typeof holdings)[];

const sameFreedoms = (a: readonly Freedom[], b: readonly Freedom[]): boolean =>
  a.length === b.length && a.every((one) => b.includes(one));

/** What a support is called by what it holds: pinned, fixed. */
export const holdingOf = ({ fixed }: Support): Holding =>
  holdingNames.find((name) => sameFreedoms(holdings[name], fixed)) ?? other;

/** Half the width of the mark of a support in plan, metres. */
const half = 0.25;

export const support: Kind<'support'> = {
  kind: 'support',
  names: ['support', 'supports'],
  schema: v.strictObject({
    position: point,
    rise,
    fixed: v.pipe(v.array(v.picklist(freedoms)), v.maxLength(freedoms.length)),
  }),
  roles: { own: [], from: [] },
  style: { area: true, place: 8 },
  outlines: ({ position }) => [squareMark(position, half, 45)],
  points: ({ position }) => squareMark(position, half, 45),
  anchor: ({ position }) => position,
  ends: ({ position }) => [position],
  away: ({ position }, p) => awayFromMark(squareMark(position, half, 45), p),
  standsBack: 1,
  grips: ({ position }) => [{ name: 'position', at: position }],
  drag: (shape, _, to) => ({ ...shape, position: to }),
  move: (shape, { at }) => ({ ...shape, position: at(shape.position) }),
  name: () => '',
  size: holdingOf,
  facts: (shape) => `${holdingOf(shape)} (${shape.fixed.join(', ') || 'free'}), ${metres(shape.rise)} above its level`,
  fields: (present) => [
    choice<'support', Holding>(
      'It is',
      holdingOf(present) === other ? [...holdingNames, other] : holdingNames,
      holdingOf,
      (shape, name) => (name === other ? shape : { ...shape, fixed: [...holdings[name]] }),
    ),
    length<'support'>('Above its level', 'rise', -Infinity),
    ...coordinates<'support'>(
      'Position',
      ({ position }) => position,
      (shape, position) => ({ ...shape, position }),
    ),
  ],
  checks: ({ fixed }) => (fixed.length === 0 ? ['It holds nothing: at least one freedom has to be fixed.'] : []),
};
