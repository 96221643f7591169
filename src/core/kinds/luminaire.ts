import * as v from 'valibot';
import type { Point } from '@/core/geometry/vector';
import { coordinates, length, number } from './fields';
import { metres } from './figures';
import type { Field, Kind } from './kind';
import { finite, inDegrees, label, point, rise } from './limits';
import { awayFromMark, placedMark } from './marks';

/**
 * A luminaire: its light's centre lies `rise` metres above its level, the file's 0 degree half-plane is turned
 * counter-clockwise from +x by `rotation`, the beam lifted towards it by `tilt`, both in degrees; `output` is the share
 * of the file's flux.
 */
export interface Luminaire {
  position: Point;
  rise: number;
  rotation: number;
  tilt: number;
  /** The name of its photometry. */
  photometry: string;
  output: number;
}

/** The mark in plan, metres: a plate with the corner cut off that its 0 degree half-plane points past. */
const [half, cut] = [0.3, 0.2];
const mark = ({ position, rotation }: Luminaire): Point[] =>
  placedMark(position, rotation, [
    [-half, -cut],
    [half, -cut / 2],
    [half, cut / 2],
    [-half, cut],
  ]);

/** Photometries that ship; `core/lighting/photometry/usual` has their formulas. */
export const shippedPhotometries = ['panel', 'downlight', 'linear', 'wall washer', 'post top', 'floodlight'] as const;

/** One of those that ship, or the one that it has. */
const photometryField = (own: string): Field<'luminaire'> => ({
  label: photometryLabel,
  kind: 'choice',
  options: shippedPhotometries.some((one) => one === own) ? shippedPhotometries : [own, ...shippedPhotometries],
  get: ({ photometry }) => photometry,
  set: (shape, photometry) => ({ ...shape, photometry }),
});
/** What the field is called that a project's own files are added to. */
export const photometryLabel = 'Photometry';

/** Output beyond this is a slip. */
const mostOutput = 100;

export const luminaire: Kind<'luminaire'> = {
  kind: 'luminaire',
  names: ['luminaire', 'luminaires'],
  schema: v.strictObject({
    position: point,
    rise,
    rotation: inDegrees,
    tilt: v.pipe(finite, v.minValue(-180), v.maxValue(180)),
    photometry: label,
    output: v.pipe(finite, v.minValue(0), v.maxValue(mostOutput)),
  }),
  roles: { own: ['luminaire'], from: ['luminaire'] },
  style: { area: true, place: 11 },
  outlines: (shape) => [mark(shape)],
  points: mark,
  anchor: ({ position }) => position,
  ends: () => [],
  away: (shape, p) => awayFromMark(mark(shape), p),
  standsBack: 1,
  grips: ({ position }) => [{ name: 'position', at: position }],
  drag: (shape, _, to) => ({ ...shape, position: to }),
  move: (shape, { at, turned }) => ({ ...shape, position: at(shape.position), rotation: turned(shape.rotation) }),
  name: ({ photometry }) => photometry,
  size: ({ rise: above }) => `${metres(above)} above its level`,
  facts: ({ rise: above, rotation, tilt, output }) =>
    [
      `${metres(above)} above its level`,
      `turned ${Number(rotation.toFixed(1))}\u00b0`,
      ...(tilt === 0 ? [] : [`tilted ${tilt}\u00b0`]),
      `output ${(output * 100).toFixed(0)} %`,
    ].join(', '),
  fields: ({ photometry }) => [
    photometryField(photometry),
    length<'luminaire'>('Above its level', 'rise', -Infinity),
    number<'luminaire'>('Turned by', 'rotation', { unit: '\u00b0', least: -36_000, most: 36_000 }),
    number<'luminaire'>('Tilted by', 'tilt', { unit: '\u00b0', least: -180, most: 180 }),
    number<'luminaire'>('Output', 'output', { unit: '%', least: 0, most: mostOutput * 100, factor: 0.01 }),
    ...coordinates<'luminaire'>(
      'Position',
      ({ position }) => position,
      (shape, position) => ({ ...shape, position }),
    ),
  ],
  checks: ({ output }) => (output === 0 ? ['Its output is 0 %: it would give no light.'] : []),
};
