import type { ReadModel } from '@/core/handover/model/readModel';
import { uses, type Use } from '@/core/kinds/use';

/** Imposed loads on floors by their use, kN/m2: the recommended values of EN 1991-1-1 tables 6.2, 6.4, 6.8 and 6.10. */
const imposed: Record<Use, number> = {
  A: 2,
  B: 3,
  C1: 3,
  C2: 4,
  C3: 5,
  C4: 5,
  C5: 5,
  D1: 4,
  D2: 5,
  E1: 7.5,
  F: 2.5,
  G: 5,
  H: 0.4,
};

type Load = NonNullable<ReadModel['loads']>[number];

/** The case that loads by use belong to. */
const imposedCase = 'Q';

/** Area loads of the zones that say a category of use, as model.json has them. */
const loadsByUse = (model: ReadModel): Load[] =>
  model.zones.flatMap(({ id, level, outline, holes, use }): Load[] => {
    const known = uses.find((one) => one === use);
    if (known === undefined) return [];
    return [{ id, case: imposedCase, kind: 'area', level, outline, holes, q: -1000 * imposed[known] }];
  });

/** A model with the loads of its zones' use, where it has no area load of its own. */
export function withLoadsByUse(model: ReadModel): ReadModel {
  if ((model.loads ?? []).some(({ kind }) => kind === 'area')) return model;
  const made = loadsByUse(model);
  return made.length === 0 ? model : { ...model, loads: [...(model.loads ?? []), ...made] };
}
