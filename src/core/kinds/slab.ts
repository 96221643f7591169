import * as v from 'valibot';
import type { Point } from '@/core/geometry/vector';
import { areaOf, areaParts } from './areas';
import { beyondField, beyondSchema, type Beyond } from './beyond';
import { length } from './fields';
import { millimetres, squareMetres } from './figures';
import type { Field, Kind } from './kind';
import { holes, inDegrees, outline, positive } from './limits';
import { materialField, materialId } from './material';

export interface Slab {
  outline: Point[];
  holes: Point[][];
  thickness: number;
  /** Left out where its kind's is taken. */
  material?: string;
  /** Degrees of the direction it spans in; left out where it spans both ways. */
  span?: number;
  /** Said where it does not keep the distances of what it joins. */
  diaphragm?: false;
  beyond?: Beyond;
}

/** The ways a slab may span, with the degrees of the direction of each. */
const spans = { 'both ways': undefined, 'along east': 0, 'along north': 90, 'at an angle': 45 } as const;
const spanWords = ['both ways', 'along east', 'along north', 'at an angle'] as const;

function spanWord({ span }: Slab): (typeof spanWords)[number] {
  if (span === undefined) return 'both ways';
  return spanWords.find((word) => spans[word] === span && word !== 'at an angle') ?? 'at an angle';
}

const spanFields = (shape: Slab): Field<'slab'>[] => [
  {
    label: 'It spans',
    kind: 'choice',
    options: spanWords,
    get: spanWord,
    set: (own, word) => ({ ...own, span: spans[spanWords.find((one) => one === word) ?? 'both ways'] }),
  },
  ...(spanWord(shape) === 'at an angle'
    ? [
        {
          label: 'Direction of span',
          kind: 'number',
          unit: '\u00b0',
          least: -180,
          most: 180,
          get: ({ span }: Slab) => span ?? null,
          set: (own: Slab, span: number) => ({ ...own, span }),
        } as const,
      ]
    : []),
];

/** Whether a slab holds what it joins together. */
const plates = ['as one plate', 'not as a plate'] as const;

export const slab: Kind<'slab'> = {
  ...areaParts,
  kind: 'slab',
  names: ['slab', 'slabs'],
  schema: v.strictObject({
    outline,
    holes,
    thickness: positive,
    material: materialId,
    span: v.optional(inDegrees),
    diaphragm: v.optional(v.literal(false)),
    beyond: beyondSchema,
  }),
  roles: { own: ['slab', 'slabOpening'], from: ['slab', 'slabOpening', 'wall'] },
  style: { area: true, place: 1 },
  standsBack: 11.5,
  move: ({ span, ...shape }, { ring, turned }) => ({
    ...shape,
    outline: ring(shape.outline),
    holes: shape.holes.map(ring),
    ...(span === undefined ? {} : { span: turned(span) }),
  }),
  name: () => 'slab',
  size: (shape) => squareMetres(areaOf({ outline: shape.outline })),
  facts: (shape) =>
    `${squareMetres(areaOf({ outline: shape.outline }))}, ${millimetres(shape.thickness)} thick, ` +
    `${shape.holes.length} openings${shape.span === undefined ? '' : `, spans ${spanWord(shape)}`}`,
  fields: (shape) => [
    length<'slab'>('Thickness', 'thickness', 0.02),
    materialField<'slab'>(
      ({ material }) => material,
      (own, material) => ({ ...own, material }),
    ),
    ...spanFields(shape),
    beyondField<'slab'>(),
    {
      label: 'It works',
      kind: 'choice',
      options: plates,
      get: ({ diaphragm }) => plates[diaphragm === false ? 1 : 0],
      set: ({ diaphragm: _, ...own }, word) => (word === plates[1] ? { ...own, diaphragm: false } : own),
    },
  ],
};
