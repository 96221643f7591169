import type { ReadModel } from '@/core/handover/model/readModel';
import { inOrder, type Finding } from './finding';
import type { Rule } from './rule';
import { crossed } from './rules/crossed';
import { doorless } from './rules/doorless';
import { doubled } from './rules/doubled';
import { levels } from './rules/levels';
import { looseWalls } from './rules/looseWalls';
import { names } from './rules/names';
import { openings } from './rules/openings';
import { openOutline } from './rules/openOutline';
import { overlappingZones } from './rules/overlappingZones';
import { proportions } from './rules/proportions';
import { slivers } from './rules/slivers';
import { storeys } from './rules/storeys';
import { unsupported } from './rules/unsupported';
import { subjectOf } from './subject';

/** Every rule that needs no drawing. */
export const rules: readonly Rule[] = [
  levels,
  slivers,
  crossed,
  doubled,
  openings,
  overlappingZones,
  unsupported,
  storeys,
  looseWalls,
  doorless,
  openOutline,
  names,
  proportions,
];

/** What the rules find in a model, errors first. Every number of it is finite. */
export const prove = (model: ReadModel): Finding[] => inOrder(findBy(rules, model));

/** What some rules find in a model, rule by rule. */
export function findBy(some: readonly Rule[], model: ReadModel): Finding[] {
  const subject = subjectOf(model);
  return some.flatMap(({ name, find }) => find(subject).map((found): Finding => ({ rule: name, ...found })));
}
