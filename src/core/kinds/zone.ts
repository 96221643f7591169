import * as v from 'valibot';
import type { Point } from '@/core/geometry/vector';
import { areaOf, areaParts } from './areas';
import { length, words } from './fields';
import { squareMetres } from './figures';
import type { Field, Kind } from './kind';
import { finite, holes, label, outline, positive } from './limits';
import { topTie, type TopTie } from './tie';
import { uses, useWords, type Use } from './use';

/** A room or another bounded part of a level, by the inner faces of what bounds it; a height of null is its level's. */
export interface Zone {
  name: string;
  number: string;
  outline: Point[];
  holes: Point[][];
  height: number | null;
  /** The category of its use; left out where nobody has said it. */
  use?: Use;
  /** Degrees Celsius; null is unheated; left out where nobody has said it. */
  temperature?: number | null;
  /** Air changes an hour, and what people and machines give off, W/m2. */
  /** Whether others heat it, such as a neighbour. */
  neighbour?: true;
  /** What heats it: zones of one system are summed up. */
  system?: string;
  airChange?: number;
  gains?: number;
  /** Shares of the light that its surfaces throw back; left out where nobody has said them. */
  reflectances?: { ceiling?: number; wall?: number; floor?: number };
  ties?: TopTie;
}

/** The category of a zone's use, in the words of its field. */
const unsaid = 'not said';
const wordsOf = (use: Use): string => `${use} ${useWords[use]}`;
function withUse({ use: _, ...shape }: Zone, word: string): Zone {
  const use = uses.find((one) => wordsOf(one) === word);
  return use === undefined ? shape : { ...shape, use };
}

/** Whether and how warm a zone is held. */
const held = ['as usual', 'to a temperature', 'unheated', 'by others'] as const;
/** What is shown first once a temperature is to be said, degrees. */
const usualTemperature = 20;

function heldWord({ temperature, neighbour }: Zone): (typeof held)[number] {
  if (neighbour) return held[3];
  if (temperature === undefined) return held[0];
  return held[temperature === null ? 2 : 1];
}

function withHeld({ temperature, neighbour: _, ...shape }: Zone, word: string): Zone {
  if (word === held[3]) return { ...shape, temperature: temperature ?? usualTemperature, neighbour: true };
  if (word === held[0]) return shape;
  return { ...shape, temperature: word === held[2] ? null : (temperature ?? usualTemperature) };
}

const heatFields = (shape: Zone): Field<'zone'>[] => [
  { label: 'Heated', kind: 'choice', options: held, get: heldWord, set: withHeld },
  ...(typeof shape.temperature === 'number'
    ? [
        {
          label: 'Temperature',
          kind: 'number',
          unit: '\u00b0C',
          least: -40,
          most: 80,
          get: ({ temperature }: Zone) => temperature ?? null,
          set: (own: Zone, temperature: number) => ({ ...own, temperature }),
        } as const,
      ]
    : []),
  {
    label: 'Air changes',
    kind: 'number',
    unit: '1/h',
    least: 0,
    most: 100,
    get: ({ airChange }) => airChange ?? null,
    set: (own, airChange) => ({ ...own, airChange }),
  },
  {
    label: 'Gains',
    kind: 'number',
    unit: 'W/m\u00b2',
    least: 0,
    most: 10_000,
    get: ({ gains }) => gains ?? null,
    set: (own, gains) => ({ ...own, gains }),
  },
];

/** What heats it, in words. */
const systemField: Field<'zone'> = {
  label: 'System',
  kind: 'words',
  get: ({ system }) => system ?? '',
  set: ({ system: _, ...shape }, text) => (text.trim() === '' ? shape : { ...shape, system: text.trim() }),
};

const surfaces = { ceiling: 'Ceiling reflects', wall: 'Walls reflect', floor: 'Floor reflects' } as const;

const lightFields = Object.entries(surfaces).map(([key, label]): Field<'zone'> => ({
  label,
  kind: 'number',
  unit: '%',
  least: 0,
  most: 95,
  get: ({ reflectances }) => {
    const share = reflectances?.[key as keyof typeof surfaces];
    return share === undefined ? null : Number((share * 100).toFixed(6));
  },
  set: (own, percent) => ({ ...own, reflectances: { ...own.reflectances, [key]: percent / 100 } }),
}));

const share = v.optional(v.pipe(finite, v.minValue(0), v.maxValue(0.95)));

export const zone: Kind<'zone'> = {
  ...areaParts,
  kind: 'zone',
  names: ['zone', 'zones'],
  schema: v.strictObject({
    name: label,
    number: label,
    outline,
    holes,
    height: v.nullable(positive),
    use: v.optional(v.picklist(uses)),
    temperature: v.optional(v.nullable(v.pipe(finite, v.minValue(-40), v.maxValue(80)))),
    neighbour: v.optional(v.literal(true)),
    system: v.optional(label),
    airChange: v.optional(v.pipe(finite, v.minValue(0), v.maxValue(100))),
    gains: v.optional(v.pipe(finite, v.minValue(0), v.maxValue(10_000))),
    reflectances: v.optional(v.strictObject({ ceiling: share, wall: share, floor: share })),
    ties: topTie,
  }),
  roles: { own: [], from: ['zone', 'wall'] },
  style: { area: true, place: 2 },
  standsBack: 11,
  move: (shape, { ring }) => ({ ...shape, outline: ring(shape.outline), holes: shape.holes.map(ring) }),
  name: (shape) => shape.number || shape.name,
  size: (shape) => squareMetres(areaOf(shape)),
  facts: (shape) =>
    `${[shape.number, shape.name].filter(Boolean).join(' ') || 'Without a name'}: ${squareMetres(areaOf(shape))} by inner faces`,
  fields: (shape) => [
    words<'zone'>('Name', 'name'),
    words<'zone'>('Number', 'number'),
    length<'zone'>('Height', 'height'),
    {
      label: 'Use',
      kind: 'choice',
      options: [unsaid, ...uses.map(wordsOf)],
      get: ({ use }) => (use === undefined ? unsaid : wordsOf(use)),
      set: withUse,
    },
    ...heatFields(shape),
    systemField,
    ...lightFields,
  ],
};
