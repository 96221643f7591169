import * as v from 'valibot';
import { distance, middle, type Point } from '@/core/geometry/vector';
import { areaOf, areaParts } from './areas';
import { choice, length, words } from './fields';
import { metres, squareMetres } from './figures';
import type { Field, Kind } from './kind';
import { bandOutline } from './lines';
import { label, outline, size } from './limits';
import { outdoorLux, outdoorReflectance, outdoorUseNames, outdoorUses, type OutdoorUse } from './outdoorUse';

/** A surface outside, or what stands on it. */
export interface Outdoor {
  name: string;
  outline: Point[];
  height: number;
  /** What it is; left out where nobody has said it. */
  use?: OutdoorUse;
  /** The share of the light that it throws back, and the light it asks for, lux; left out as what it is has them. */
  reflectance?: number;
  lux?: number;
}

const unsaid = 'not said';

/** Fences are so thick where nobody says it: meshes, which let light through; metres. */
export const plainFence = 0.04;

/** A fence along a line of points. */
export const fenceOutline = (line: readonly Point[], thickness: number): Point[] => bandOutline(line, thickness);

/** The middle line of an outline that runs there and back beside it, as a fence's does; null of any other. */
function lineOf({ outline, use }: Outdoor): Point[] | null {
  const half = outline.length / 2;
  if (use !== 'fence' || !Number.isInteger(half) || half < 2) return null;
  return outline.slice(0, half).map((p, i) => middle(p, outline[outline.length - 1 - i]));
}

/** How thick a fence is: across its first end, metres. */
const thicknessOf = ({ outline }: Outdoor): number => distance(outline[0], outline[outline.length - 1]);

const asked: Field<'outdoor'> = {
  label: 'Light asked for',
  kind: 'number',
  unit: 'lx',
  least: 0,
  most: 10_000,
  get: outdoorLux,
  set: (shape, lux) => ({ ...shape, lux }),
};
const thrownBack: Field<'outdoor'> = {
  label: 'Throws back',
  kind: 'number',
  unit: '%',
  least: 0,
  most: 100,
  get: (shape) => {
    const share = outdoorReflectance(shape);
    return share === null ? null : share * 100;
  },
  set: (shape, percent) => ({ ...shape, reflectance: percent / 100 }),
};
const thickness: Field<'outdoor'> = {
  label: 'Thickness',
  kind: 'length',
  least: 0.001,
  get: thicknessOf,
  set: (shape, value) => {
    const line = lineOf(shape);
    return line === null ? shape : { ...shape, outline: fenceOutline(line, value) };
  },
};

function withUse({ use: _, ...shape }: Outdoor, word: string): Outdoor {
  const use = outdoorUseNames.find((one) => outdoorUses[one].word === word);
  return use === undefined ? shape : { ...shape, use };
}

export const outdoor: Kind<'outdoor'> = {
  ...areaParts,
  kind: 'outdoor',
  names: ['outdoor surface', 'outdoor surfaces'],
  schema: v.strictObject({
    name: label,
    outline,
    height: size,
    use: v.optional(v.picklist(outdoorUseNames)),
    reflectance: v.optional(v.pipe(v.number(), v.finite(), v.minValue(0), v.maxValue(1))),
    lux: v.optional(v.pipe(v.number(), v.finite(), v.minValue(0), v.maxValue(10_000))),
  }),
  roles: { own: ['outdoor'], from: ['outdoor'] },
  style: { area: true, place: 0 },
  standsBack: 11.5,
  move: (shape, { ring }) => ({ ...shape, outline: ring(shape.outline) }),
  name: ({ name }) => name,
  size: (shape) => squareMetres(areaOf(shape)),
  facts: (shape) => `${squareMetres(areaOf(shape))}, ${metres(shape.height)} high`,
  fields: (shape) => [
    words<'outdoor'>('Name', 'name'),
    choice<'outdoor', string>(
      'What it is',
      [unsaid, ...outdoorUseNames.map((one) => outdoorUses[one].word)],
      ({ use }) => (use === undefined ? unsaid : outdoorUses[use].word),
      withUse,
    ),
    length<'outdoor'>('Height', 'height', 0),
    ...(lineOf(shape) === null ? [] : [thickness]),
    asked,
    thrownBack,
  ],
};
