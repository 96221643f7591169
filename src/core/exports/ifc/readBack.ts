import type { ReadModel } from '@/core/handover/model/readModel';
import { fail, ok, type Result } from '@/core/result';
import { globalId } from './globalId';
import { readStep, type StepEntity } from './readStep';

/** What a file holds of a kind, beside what the model has. */
export interface ReadBack {
  kind: string;
  model: number;
  file: number;
}

/** The entities that elements of a kind become. */
const entities: [kind: keyof ReadModel & string, types: readonly string[]][] = [
  ['levels', ['IFCBUILDINGSTOREY']],
  ['columns', ['IFCCOLUMN']],
  ['beams', ['IFCBEAM', 'IFCMEMBER']],
  ['walls', ['IFCWALL']],
  ['openings', ['IFCDOOR', 'IFCWINDOW']],
  ['slabs', ['IFCSLAB']],
  ['roofs', ['IFCSLAB']],
  ['zones', ['IFCSPACE']],
  ['outdoor', ['IFCGEOGRAPHICELEMENT']],
  ['luminaires', ['IFCLIGHTFIXTURE']],
];

/**
 * Reads a file of a model again, as a receiver would, and looks for each element by its identifier.
 * @returns by kind how many there are and how many came back; a sentence where the file cannot be read
 */
export function readBackIfc(text: string, model: ReadModel): Result<ReadBack[]> {
  const read = readStep(text);
  if (!read.ok) return fail(`The file cannot be read again: ${read.message}`);
  const byId = new Map<string, StepEntity>();
  for (const entity of read.value.values()) {
    const [id] = entity.attributes;
    if (typeof id === 'string') byId.set(id, entity);
  }
  return ok(
    entities.flatMap(([kind, types]) => {
      const own = (model[kind] ?? []) as readonly { id: string }[];
      const back = own.filter(({ id }) => types.includes(byId.get(globalId(id))?.type ?? ''));
      return own.length === 0 ? [] : [{ kind, model: own.length, file: back.length }];
    }),
  );
}
