import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { root } from '@/cli/system';
import type { Candidate } from '@/core/reading/candidate';
import { fitted, reliabilityOf } from './plans/calibrate';
import type { ScoredKind } from './plans/score';
import { scorePlans } from './reading';

/** Plans that are fitted to have numbers from here on; those of the bench and the tests lie below. */
const firstPlan = 1000;

const kindOf: Record<ScoredKind, Candidate['kind']> = {
  'grid lines': 'grid',
  columns: 'column',
  beams: 'beam',
  walls: 'wall',
  'doors and windows': 'opening',
  zones: 'zone',
};

/**
 * `./run bench calibrate [plans]`: fits how sure a candidate is said to be to how often such are right, over tidy and
 * dirty plans with roles given, suggested and all on one layer, and writes the fit into `core/reading/calibration.ts`.
 */
export function calibrate([asked = '120']: string[]): number {
  const count = Number(asked);
  if (!Number.isInteger(count) || count < 1) {
    console.error('Usage: ./run bench calibrate [plans], for example ./run bench calibrate 120');
    return 2;
  }
  const outcomes = [false, true].flatMap((dirty) =>
    (['given', 'suggested', 'one layer'] as const).map((roles) => scorePlans(count, dirty, roles, firstPlan).all),
  );
  const file = join(root, 'src/core/reading/calibration.ts');
  let text = readFileSync(file, 'utf8');
  for (const [scored, kind] of Object.entries(kindOf) as [ScoredKind, Candidate['kind']][]) {
    const judged = outcomes.flatMap((scores) => scores[scored].judged);
    const fit = fitted(judged);
    const said = judged.map((one) => ({
      ...one,
      confidence: 1 / (1 + Math.exp(-fit.base - fit.slope * one.weight)),
    }));
    console.log(
      `${scored.padEnd(18)} ${judged.length} candidates: base ${fit.base}, slope ${fit.slope}; ` +
        `off by ${reliabilityOf(judged).error.toFixed(3)} before, ` +
        `${reliabilityOf(said).error.toFixed(3)} after`,
    );
    text = text.replace(
      new RegExp(`  ${kind}: \\{ base: [^}]* \\}`),
      `  ${kind}: { base: ${fit.base}, slope: ${fit.slope} }`,
    );
  }
  writeFileSync(file, text);
  return 0;
}
