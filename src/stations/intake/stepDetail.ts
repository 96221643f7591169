import { entityGroups, type Step } from '@/core/underlay/recipe/steps';
import type { DisplayUnit } from '@/core/units/length';

/** A tolerance is small: in metric projects it is given in millimetres, whatever the project shows. */
export const smallLength = (metres: number, unit: DisplayUnit): string =>
  unit === 'in' || unit === 'ft' || unit === 'ft-in'
    ? `${Number((metres / 0.0254).toPrecision(3))}"`
    : `${Number((metres * 1000).toPrecision(4))} mm`;

/** What a step's values say, for its line in the recipe. */
export function stepDetail(step: Step, unit: DisplayUnit): string {
  switch (step.kind) {
    case 'leaveOutKinds':
      return step.groups.map((group) => entityGroups[group].words).join(', ');
    case 'leaveOutLayers':
    case 'leaveOutBlocks':
      return step.patterns.join(', ');
    case 'region':
      return `${step.keep === 'inside' ? 'keep' : 'drop'} inside ${step.polygon.length} corners`;
    case 'duplicates':
      return `within ${smallLength(step.tolerance, unit)}`;
    case 'closeGaps':
      return `up to ${smallLength(step.tolerance, unit)}`;
    case 'straighten':
      return `within ${step.angle}\u00b0`;
    case 'chopArcs':
      return step.by === 'angle' ? `every ${step.value}\u00b0` : `within ${smallLength(step.value, unit)}`;
    case 'curves':
      return `within ${smallLength(step.sagitta, unit)}`;
    default:
      return '';
  }
}
