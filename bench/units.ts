import { judgeUnit } from '@/core/datum/evidence/judge';
import { readDxf } from '@/core/drawing/reader';
import { flatten } from '@/core/underlay/flatten';
import { lengthUnits, type LengthUnit } from '@/core/units/length';
import { unitPlan } from './unitPlan';

export type HeaderState = 'right' | 'missing' | 'wrong';
export const headerStates: readonly HeaderState[] = ['right', 'missing', 'wrong'];

/** How the verdicts on some plans came out. `certainlyWrong` counts wrong ones with a probability of 0.95 or more. */
export interface Outcome {
  plans: number;
  right: number;
  undecided: number;
  wrong: number;
  certainlyWrong: number;
  failed: string[];
}

/** Judges plans of a unit whose headers are right, missing or wrong. */
export function judgePlans(unit: LengthUnit, state: HeaderState, count: number, first = 0, scale = 1): Outcome {
  const outcome: Outcome = { plans: count, right: 0, undecided: 0, wrong: 0, certainlyWrong: 0, failed: [] };
  for (let i = first; i < first + count; i += 1) {
    const others = lengthUnits.filter((other) => other !== unit);
    const result = readDxf(
      new TextEncoder().encode(
        unitPlan(unit, { right: unit, missing: null, wrong: others[i % others.length] }[state], i, scale),
      ),
    );
    if (!result.ok) throw new Error(result.message);
    const { chosen, confidence, cues, scale: told } = judgeUnit(result.value.drawing, flatten(result.value.drawing));
    if (chosen === unit && told === scale) {
      outcome.right += 1;
      continue;
    }
    outcome.failed.push(
      `${unit}${scale === 1 ? '' : ` at 1:${scale}`}, header ${state}, plan ${i}: ` +
        `${chosen ?? 'undecided'} at 1:${told}, ${confidence.toFixed(3)} by ` +
        `${cues.map((cue) => `${cue.cue} ${cue.favours ?? '-'} ${cue.weight.toFixed(1)}`).join(', ')}`,
    );
    if (chosen === null) outcome.undecided += 1;
    else {
      outcome.wrong += 1;
      if (confidence >= 0.95) outcome.certainlyWrong += 1;
    }
  }
  return outcome;
}

/** `./run bench units [plans]`: right, undecided and wrong verdicts by unit and by what the header says. */
export function unitTable([asked = '40']: string[]): number {
  const count = Number(asked);
  if (!Number.isInteger(count) || count < 1) {
    console.error('Usage: ./run bench units [plans a unit and header], for example ./run bench units 40');
    return 2;
  }
  const cell = (text: string | number) => String(text).padStart(11);
  console.log(['unit', 'header', 'plans', 'right', 'undecided', 'wrong', 'certain'].map(cell).join(''));
  const failed: string[] = [];
  const sum = { right: 0, plans: 0 };
  for (const unit of lengthUnits) {
    for (const state of headerStates) {
      const outcome = judgePlans(unit, state, count);
      console.log(
        [unit, state, outcome.plans, outcome.right, outcome.undecided, outcome.wrong, outcome.certainlyWrong]
          .map(cell)
          .join(''),
      );
      failed.push(...outcome.failed);
      if (state !== 'right') {
        sum.right += outcome.right;
        sum.plans += outcome.plans;
      }
    }
  }
  for (const scale of [50, 100]) {
    const outcome = judgePlans('mm', 'right', count, 0, scale);
    console.log(
      [`mm 1:${scale}`, 'right', outcome.plans, outcome.right, outcome.undecided, outcome.wrong, outcome.certainlyWrong]
        .map(cell)
        .join(''),
    );
    failed.push(...outcome.failed);
  }
  console.log(
    `with a wrong or missing header ${sum.right} of ${sum.plans} are right (${((100 * sum.right) / sum.plans).toFixed(1)} %)`,
  );
  for (const line of failed.slice(0, 20)) console.log(line);
  return 0;
}
