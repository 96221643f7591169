import { asDrawn } from '@/core/datum/placement';
import { readDxf } from '@/core/drawing/reader';
import { toleranceFor } from '@/core/patterns/settings';
import { read } from '@/core/reading/read';
import { Scene } from '@/core/reading/scene';
import type { Role } from '@/core/sorting/roles';
import { flatten } from '@/core/underlay/flatten';
import { reliabilityOf } from './plans/calibrate';
import { readPlan, type RolesBy } from './plans/readPlan';
import {
  addScores,
  balance,
  noScores,
  precisionOf,
  recallOf,
  scorePlan,
  scoredKinds,
  type ScoredKind,
  type Scores,
} from './plans/score';
import { styleNames } from './plans/styles';
import { truthPlan } from './plans/truthPlan';
import { tiled } from './tiledPlan';

/** What came of some plans: in all, by each habit and type, and of each plan alone. */
export interface Outcome {
  all: Scores;
  byForm: Map<string, Scores>;
  plans: { name: string; scores: Scores }[];
}

/** Reads and scores some plans. @param first the number of the first plan */
export function scorePlans(count: number, dirty: boolean, roles: RolesBy, first = 0): Outcome {
  const outcome: Outcome = { all: noScores(), byForm: new Map(), plans: [] };
  for (let seed = first; seed < first + count; seed += 1) {
    const oneLayer = roles === 'one layer';
    // On one layer nothing tells a beam's two lines from a wall's.
    const plan = truthPlan(seed, { dirty, oneLayer, beams: !oneLayer });
    const scores = scorePlan(plan.truth, readPlan(plan, roles));
    addScores(outcome.all, scores);
    outcome.plans.push({ name: `${seed} ${plan.type}`, scores });
    for (const form of [...styleNames.map((name) => `${name}: ${plan.style[name]}`), `building: ${plan.type}`]) {
      const sum = outcome.byForm.get(form) ?? noScores();
      outcome.byForm.set(form, sum);
      addScores(sum, scores);
    }
  }
  return outcome;
}

const cell = (text: string) => text.padStart(11);

function printKinds({ all, plans }: Outcome): void {
  const heads = ['true', 'recall', 'precision', 'labels', 'off mm', 'size mm', 'worst 5 %'];
  console.log(['kind'.padEnd(18), ...heads.map(cell)].join(''));
  for (const kind of scoredKinds) {
    const score = all[kind];
    const { truth, found, labels, position, size } = score;
    const cells = [
      truth.toFixed(0),
      recallOf(score).toFixed(4),
      precisionOf(score).toFixed(4),
      (found === 0 ? 1 : labels / found).toFixed(4),
      (position * 1000).toFixed(2),
      (size * 1000).toFixed(2),
      tailOf(plans, kind).toFixed(3),
    ];
    console.log([kind.padEnd(18), ...cells.map(cell)].join(''));
  }
}

/** The balance of recall and precision that one plan in twenty stays below. */
function tailOf(plans: Outcome['plans'], kind: ScoredKind): number {
  const sorted = plans.map(({ scores }) => balance(scores[kind])).sort((p, q) => p - q);
  return sorted[Math.floor(sorted.length / 20)];
}

/** The forms of drawing that are read worst, the worst first, and the worst plans. */
function printWorst({ byForm, plans }: Outcome): void {
  const forms = scoredKinds
    .flatMap((kind) => [...byForm].map(([form, scores]) => ({ form, kind, value: balance(scores[kind]) })))
    .filter(({ value }) => value < 0.995)
    .sort((p, q) => p.value - q.value);
  for (const { form, kind, value } of forms.slice(0, 6)) console.log(`  ${value.toFixed(3)} ${kind}, ${form}`);
  const worst = plans
    .flatMap(({ name, scores }) => scoredKinds.map((kind) => ({ name, kind, value: balance(scores[kind]), scores })))
    .filter(({ value }) => value < 0.95)
    .sort((p, q) => p.value - q.value);
  for (const { name, kind, value, scores } of worst.slice(0, 4))
    console.log(`  ${value.toFixed(3)} ${kind}, plan ${name}: missed ${scores[kind].missed.slice(0, 3).join('; ')}`);
}

/**
 * `./run bench reading [plans]`: recall, precision and errors by kind on plans whose truth is known, the forms of
 * drawing that are read worst, and whether what is said to be sure is.
 */
export function readingTable([asked = '40']: string[]): number {
  const count = Number(asked);
  if (!Number.isInteger(count) || count < 1) {
    console.error('Usage: ./run bench reading [plans], for example ./run bench reading 40');
    return 2;
  }
  const outcomes: Outcome[] = [];
  for (const dirty of [false, true])
    for (const roles of ['given', 'suggested', 'one layer'] as const) {
      const how = roles === 'one layer' ? 'all on one layer' : `roles ${roles}`;
      console.log(`\n${count} ${dirty ? 'dirty' : 'tidy'} plans, ${how}`);
      const outcome = scorePlans(count, dirty, roles);
      outcomes.push(outcome);
      printKinds(outcome);
      printWorst(outcome);
    }
  printReliability(outcomes);
  printSpeed();
  return 0;
}

/** How sure was said to be, and how often that was right, of all candidates of a kind. */
function printReliability(outcomes: readonly Outcome[]): void {
  console.log('\nsaid to be sure, and right, in all of these (said / right / candidates)');
  for (const kind of scoredKinds) {
    const { bins, error } = reliabilityOf(outcomes.flatMap(({ all }) => all[kind].judged));
    const cells = bins.map(({ said, right, count }) => `${said.toFixed(2)} / ${right.toFixed(2)} / ${count}`);
    console.log(`${kind.padEnd(18)} off by ${error.toFixed(3)}:  ${cells.join('   ')}`);
  }
}

function printSpeed(): void {
  console.log(`\nreading a drawing of many such plans, roles given, median of three`);
  let before: { entities: number; seconds: number } | null = null;
  for (const wanted of [10_000, 50_000, 100_000]) {
    const { entities, seconds, found } = timeReading(wanted);
    const growth =
      before === null
        ? ''
        : `, time times ${(seconds / before.seconds).toFixed(1)} for ${(entities / before.entities).toFixed(1)} times as many`;
    console.log(
      `${entities.toLocaleString('en')} entities: ${seconds.toFixed(2)} s, ${found.toLocaleString('en')} candidates${growth}`,
    );
    before = { entities, seconds };
  }
}

/** The time that reading a drawing of about so many entities takes, without reading its file; the median of three. */
function timeReading(wanted: number): { entities: number; seconds: number; found: number } {
  const plan = tiled(wanted);
  const result = readDxf(new TextEncoder().encode(plan.dxf));
  if (!result.ok) throw new Error(result.message);
  const { drawing } = result.value;
  const primitives = flatten(drawing);
  const runs = Array.from({ length: 3 }, () => {
    const scene = new Scene(
      drawing,
      primitives,
      asDrawn('mm'),
      drawing.layers.map(({ name }) => (plan.roles[name] as Role | undefined) ?? null),
    );
    const start = process.hrtime.bigint();
    const { candidates } = read({ scene, tolerance: toleranceFor('mm') });
    return {
      entities: drawing.kind.length,
      seconds: Number(process.hrtime.bigint() - start) / 1e9,
      found: candidates.length,
    };
  });
  return runs.sort((a, b) => a.seconds - b.seconds)[1];
}
