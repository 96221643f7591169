import * as v from 'valibot';
import type { Point } from '@/core/geometry/vector';
import { areaOf, areaParts } from './areas';
import { choice, length, words } from './fields';
import { metres, squareMetres } from './figures';
import type { Kind } from './kind';
import { label, outline, size } from './limits';
import { outdoorUseNames, outdoorUses, type OutdoorUse } from './outdoorUse';

/** A surface outside, or what stands on it. */
export interface Outdoor {
  name: string;
  outline: Point[];
  height: number;
  /** What it is; left out where nobody has said it. */
  use?: OutdoorUse;
}

const unsaid = 'not said';

function withUse({ use: _, ...shape }: Outdoor, word: string): Outdoor {
  const use = outdoorUseNames.find((one) => outdoorUses[one].word === word);
  return use === undefined ? shape : { ...shape, use };
}

export const outdoor: Kind<'outdoor'> = {
  ...areaParts,
  kind: 'outdoor',
  names: ['outdoor surface', 'outdoor surfaces'],
  schema: v.strictObject({ name: label, outline, height: size, use: v.optional(v.picklist(outdoorUseNames)) }),
  roles: { own: ['outdoor'], from: ['outdoor'] },
  style: { area: true, place: 0 },
  standsBack: 11.5,
  move: (shape, { ring }) => ({ ...shape, outline: ring(shape.outline) }),
  name: ({ name }) => name,
  size: (shape) => squareMetres(areaOf(shape)),
  facts: (shape) => `${squareMetres(areaOf(shape))}, ${metres(shape.height)} high`,
  fields: () => [
    words<'outdoor'>('Name', 'name'),
    choice<'outdoor', string>(
      'What it is',
      [unsaid, ...outdoorUseNames.map((one) => outdoorUses[one].word)],
      ({ use }) => (use === undefined ? unsaid : outdoorUses[use].word),
      withUse,
    ),
    length<'outdoor'>('Height', 'height', 0),
  ],
};
