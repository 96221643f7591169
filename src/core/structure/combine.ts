import type { Structure } from './derive/derive';
import type { OwnLoads } from './solve/member';
import type { CaseResult, Solution } from './solve/solve';
import { plus, times, zero, type V3 } from './vector3';

/** The results of the combinations of a structure: cases times their factors, added up. */
export const combinedCases = ({ combinations }: Pick<Structure, 'combinations'>, { cases }: Solution): CaseResult[] =>
  combinations.map(({ id, factors }) => combined(id, factors, cases));

/** Cases times their factors, added up; a case that is not there adds nothing. */
export function combined(id: string, factors: Record<string, number>, cases: readonly CaseResult[]): CaseResult {
  const parts = cases.flatMap((one) => {
    const factor = factors[one.id] ?? 0;
    return factor === 0 ? [] : [{ one, factor }];
  });
  const sum = (of: (one: CaseResult) => V3): V3 =>
    parts.reduce((all, { one, factor }) => plus(all, times(of(one), factor)), zero);
  const [first] = cases;
  const added = <T extends Float64Array | number[]>(length: number, of: (one: CaseResult) => T): Float64Array => {
    const values = new Float64Array(length);
    for (const { one, factor } of parts) of(one).forEach((value, i) => (values[i] += factor * value));
    return values;
  };
  return {
    id,
    applied: sum(({ applied }) => applied),
    reactions: sum(({ reactions }) => reactions),
    displacements: added(first?.displacements.length ?? 0, ({ displacements }) => displacements),
    supports: (first?.supports ?? []).map(({ node }, i) => ({
      node,
      value: Array.from(added(6, ({ supports }) => supports[i].value)),
    })),
    members: (first?.members ?? []).map((_, m) => ({
      start: added(6, ({ members }) => members[m].start),
      loads: together(parts.map(({ one, factor }) => scaled(one.members[m].loads, factor))),
    })),
  };
}

const pair = ([a, b]: readonly [V3, V3], factor: number): readonly [V3, V3] => [times(a, factor), times(b, factor)];

const scaled = ({ spread, places }: OwnLoads, factor: number): OwnLoads => ({
  spread: spread.map((load) => ({ ...load, force: pair(load.force, factor), moment: pair(load.moment, factor) })),
  places: places.map((load) => ({ ...load, force: times(load.force, factor), moment: times(load.moment, factor) })),
});

const together = (all: readonly OwnLoads[]): OwnLoads => ({
  spread: all.flatMap(({ spread }) => spread),
  places: all.flatMap(({ places }) => places),
});
