import * as v from 'valibot';
import { finite, name } from '@/core/kinds/limits';
import { madeKinds, ownMaterial } from '@/core/kinds/material';

/** The name of a load case or a combination. */
const caseId = v.pipe(v.string(), v.trim(), v.minLength(1, 'It needs a name, such as G or Q.'), v.maxLength(40));
const factor = v.pipe(finite, v.minValue(-100), v.maxValue(100));
const madeOf = v.nullable(v.pipe(v.string(), v.minLength(1), v.maxLength(40)));

/** What the structural trial of a project starts from beside its elements. */
export const structureSettings = v.strictObject({
  /** The project's own materials, beside the usual ones. */
  materials: v.pipe(v.array(ownMaterial), v.maxLength(100)),
  /** What each kind is made of where an element does not say; null is as the trial takes it. */
  made: v.strictObject(
    Object.fromEntries(madeKinds.map((kind) => [kind, madeOf])) as Record<(typeof madeKinds)[number], typeof madeOf>,
  ),
  cases: v.pipe(v.array(v.strictObject({ id: caseId, name, selfWeight: factor })), v.maxLength(50)),
  /** None is those of EN 1990. */
  combinations: v.pipe(v.array(v.strictObject({ id: caseId, factors: v.record(caseId, factor) })), v.maxLength(200)),
});
export type StructureSettings = v.InferOutput<typeof structureSettings>;

/** As the program takes it where nobody has said anything. */
export const plainStructure: StructureSettings = {
  materials: [],
  made: { column: null, beam: null, wall: null, slab: null },
  cases: [
    { id: 'G', name: 'Permanent', selfWeight: 1 },
    { id: 'Q', name: 'Imposed', selfWeight: 0 },
  ],
  combinations: [],
};

type Cases = StructureSettings['cases'];
type Combinations = StructureSettings['combinations'];

/** A name that no other has: the word, or the word with a number. */
function freeName(word: string, taken: readonly string[]): string {
  const names = [word, ...taken.map((_, i) => `${word}${i + 2}`)];
  return names.find((one) => !taken.includes(one)) ?? word;
}

/** Settings with one more load case, without weight. */
export function withCase(settings: StructureSettings): StructureSettings {
  const id = freeName(
    'Q',
    settings.cases.map((one) => one.id),
  );
  return { ...settings, cases: [...settings.cases, { id, name: 'Variable', selfWeight: 0 }] };
}

/** Settings with a case changed; combinations follow its new name. */
export function changedCase(settings: StructureSettings, id: string, part: Partial<Cases[number]>): StructureSettings {
  const cases = settings.cases.map((one) => (one.id === id ? { ...one, ...part } : one));
  const renamed = part.id ?? id;
  const combinations = settings.combinations.map((one) => ({
    ...one,
    factors: Object.fromEntries(Object.entries(one.factors).map(([key, value]) => [key === id ? renamed : key, value])),
  }));
  return { ...settings, cases, combinations };
}

/** Settings without a case, and combinations without its factor. */
export const withoutCase = (settings: StructureSettings, id: string): StructureSettings => ({
  ...settings,
  cases: settings.cases.filter((one) => one.id !== id),
  combinations: settings.combinations.map((one) => ({
    ...one,
    factors: Object.fromEntries(Object.entries(one.factors).filter(([key]) => key !== id)),
  })),
});

/** Settings with one more combination, of all cases as they are. */
export function withCombination(settings: StructureSettings): StructureSettings {
  const id = freeName(
    'Combination',
    settings.combinations.map((one) => one.id),
  );
  const factors = Object.fromEntries(settings.cases.map((one) => [one.id, 1]));
  return { ...settings, combinations: [...settings.combinations, { id, factors }] };
}

/** Settings with a combination changed. */
export const changedCombination = (
  settings: StructureSettings,
  id: string,
  part: Partial<Combinations[number]>,
): StructureSettings => ({
  ...settings,
  combinations: settings.combinations.map((one) => (one.id === id ? { ...one, ...part } : one)),
});
