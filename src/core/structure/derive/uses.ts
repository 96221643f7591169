import type { ReadModel } from '@/core/handover/model/readModel';

/** Imposed loads on floors by their use, kN/m2: the recommended values of EN 1991-1-1 tables 6.2, 6.4, 6.8 and 6.10. */
export const useLoads: Record<string, { words: string; imposed: number }> = {
  A: { words: 'homes', imposed: 2 },
  B: { words: 'offices', imposed: 3 },
  C1: { words: 'tables', imposed: 3 },
  C2: { words: 'fixed seats', imposed: 4 },
  C3: { words: 'people moving freely', imposed: 5 },
  C4: { words: 'bodily activity', imposed: 5 },
  C5: { words: 'crowds', imposed: 5 },
  D1: { words: 'shops', imposed: 4 },
  D2: { words: 'department stores', imposed: 5 },
  E1: { words: 'storage', imposed: 7.5 },
  F: { words: 'cars to 30 kN', imposed: 2.5 },
  G: { words: 'vehicles to 160 kN', imposed: 5 },
  H: { words: 'roofs for upkeep only', imposed: 0.4 },
};

type Load = NonNullable<ReadModel['loads']>[number];

/** The case that loads by use belong to. */
const imposedCase = 'Q';

/** Area loads of the zones that say a category of use, as model.json has them. */
export const loadsByUse = (model: ReadModel): Load[] =>
  model.zones.flatMap(({ id, level, outline, holes, use }): Load[] => {
    const known = use === undefined ? undefined : useLoads[use];
    if (known === undefined) return [];
    return [{ id, case: imposedCase, kind: 'area', level, outline, holes, q: -1000 * known.imposed }];
  });

/** A model with the loads of its zones' use, where it has no area load of its own. */
export function withLoadsByUse(model: ReadModel): ReadModel {
  if ((model.loads ?? []).some(({ kind }) => kind === 'area')) return model;
  const made = loadsByUse(model);
  return made.length === 0 ? model : { ...model, loads: [...(model.loads ?? []), ...made] };
}
