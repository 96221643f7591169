import * as v from 'valibot';
import type { Point } from '@/core/geometry/vector';
import { areaOf, areaParts } from './areas';
import { length, words } from './fields';
import { squareMetres } from './figures';
import type { Kind } from './kind';
import { holes, label, outline, positive } from './limits';
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
  ties?: TopTie;
}

/** The category of a zone's use, in the words of its field. */
const unsaid = 'not said';
const wordsOf = (use: Use): string => `${use} ${useWords[use]}`;
function withUse({ use: _, ...shape }: Zone, word: string): Zone {
  const use = uses.find((one) => wordsOf(one) === word);
  return use === undefined ? shape : { ...shape, use };
}

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
  fields: () => [
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
  ],
};
