import type { LoadCase } from './loads';

/** Factors of cases by which they are added up. */
export interface Combination {
  id: string;
  factors: Record<string, number>;
}

/** Partial factors of permanent and variable loads where they are unfavourable (EN 1990 table A1.2(B)). */
const [permanentFactor, variableFactor] = [1.35, 1.5];
/**
 * What a case contributes beside a leading one, by its id: snow, wind, else imposed of most uses (EN 1990 table
 * A1.1).
 */
const psi0: Record<string, number> = { S: 0.5, W: 0.6 };
const plainPsi0 = 0.7;

/** A case whose loads are always there: it holds the structure's weight, or is named G. */
const isPermanent = ({ id, selfWeight }: LoadCase): boolean => selfWeight !== 0 || id === 'G';

/**
 * The combinations of EN 1990 where none is said: each variable case leading in turn (6.10), and all of them as they
 * come with the characteristic combination (6.14b).
 */
export function plainCombinations(cases: readonly LoadCase[]): Combination[] {
  const always = cases.filter(isPermanent);
  const variable = cases.filter((one) => !isPermanent(one));
  if (always.length === 0 || variable.length === 0) return [];
  const of = (lead: LoadCase, permanent: number, leading: number): Record<string, number> =>
    Object.fromEntries([
      ...always.map(({ id }): [string, number] => [id, permanent]),
      ...variable.map(({ id }): [string, number] => [id, id === lead.id ? leading : leading * (psi0[id] ?? plainPsi0)]),
    ]);
  return variable.flatMap((lead): Combination[] => {
    const name = variable.length === 1 ? '' : ` ${lead.id}`;
    const ultimate = { id: `ULS${name}`, factors: of(lead, permanentFactor, variableFactor) };
    const service = { id: `SLS${name}`, factors: of(lead, 1, 1) };
    return [ultimate, service];
  });
}
