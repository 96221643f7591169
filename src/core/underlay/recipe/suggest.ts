import { applyStep, type Kitchen, type StepCount } from './apply';
import type { Recipe, Step } from './steps';

/** A step that a drawing seems to want, with what it would touch. */
export interface Suggestion {
  step: Step;
  count: StepCount;
}

/**
 * What is tried, in the order in which it makes sense: first out with what does not belong, then straight, then
 * together.
 */
const tried: Step[] = [
  { kind: 'strays' },
  { kind: 'leaveOutKinds', groups: ['dimensions'] },
  { kind: 'leaveOutKinds', groups: ['hatches'] },
  { kind: 'leaveOutKinds', groups: ['points'] },
  { kind: 'leaveOutKinds', groups: ['leaders'] },
  { kind: 'leaveOutKinds', groups: ['images'] },
  { kind: 'leaveOutKinds', groups: ['construction'] },
  { kind: 'duplicates', tolerance: 0.001 },
  { kind: 'straighten', angle: 0.3 },
  { kind: 'closeGaps', tolerance: 0.01 },
  { kind: 'flattenHeights' },
  { kind: 'listUsed' },
];

/** What a drawing shows that a recipe could mend, beyond the steps that it has. */
export function suggestRecipe(kitchen: Kitchen, recipe: Recipe): Suggestion[] {
  const has = (step: Step) =>
    recipe.some(
      ({ step: own }) =>
        own.kind === step.kind &&
        (own.kind !== 'leaveOutKinds' ||
          step.kind !== 'leaveOutKinds' ||
          step.groups.every((group) => own.groups.includes(group))),
    );
  let primitives = kitchen.raw;
  for (const { on, step } of recipe) if (on) primitives = applyStep(kitchen, primitives, step).result.primitives;
  const found: Suggestion[] = [];
  for (const step of tried) {
    if (has(step)) continue;
    const { result, count } = applyStep(kitchen, primitives, step);
    if (count.entities === 0) continue;
    found.push({ step, count });
    // Later steps look at what earlier ones leave: lines of a dimension are not gaps to be closed.
    primitives = result.primitives;
  }
  return found;
}
