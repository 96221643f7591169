import * as v from 'valibot';
import type { Field } from './kind';

/** What lies beyond a wall or a slab that nothing of the model lies beyond; left out where it is the outside. */
export type Beyond = 'neighbour' | 'adiabatic';
export const beyondSchema = v.optional(v.picklist(['neighbour', 'adiabatic']));

const words = { model: 'as the model has it', neighbour: 'a neighbour\u2019s building', adiabatic: 'as warm as here' };
const options = Object.values(words);

/** What lies beyond, to be said of walls and slabs alike. */
export const beyondField = <K extends 'wall' | 'slab'>(): Field<K> => ({
  label: 'Beyond it',
  kind: 'choice',
  options,
  get: ({ beyond }) => words[beyond ?? 'model'],
  set: (shape, word) => ({
    ...shape,
    beyond: (['neighbour', 'adiabatic'] as const).find((one) => words[one] === word),
  }),
});
