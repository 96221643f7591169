import fc from 'fast-check';
import { unitPlan } from '../../../../bench/unitPlan';
import { readDxf } from '@/core/drawing/reader';
import { flatten } from '@/core/underlay/flatten';
import { lengthUnits, metresPer, type LengthUnit } from '@/core/units/length';
import { judgeUnit, logOdds, verdict, type Cue, type UnitVerdict } from './judge';
import { effectiveCount, median } from './sizes';
import { logLikelihoodOfWritten, type Written } from './writtenLengths';

function judged(unit: LengthUnit, header: LengthUnit | null, seed: number): UnitVerdict {
  const result = readDxf(new TextEncoder().encode(unitPlan(unit, header, seed)));
  if (!result.ok) throw new Error(result.message);
  return judgeUnit(result.value.drawing, flatten(result.value.drawing));
}

test('the same plan drawn in two units gives the same cues, each in its own unit', () => {
  // Metric plans: inches and feet are drawn with sizes of their own.
  for (const seed of [3, 8, 21]) {
    const [millimetres, metres] = [judged('mm', null, seed), judged('m', null, seed)];
    expect(metres.cues.map(({ cue, observations }) => [cue, observations])).toEqual(
      millimetres.cues.map(({ cue, observations }) => [cue, observations]),
    );
    for (const [i, cue] of metres.cues.entries())
      if (cue.range) expect(cue.range[0] / (millimetres.cues[i].range![0] * metresPer.mm)).toBeCloseTo(1, 6);
  }
});

test('probabilities add up to one, the likeliest unit is chosen, a wrong header never raises its unit above the right one', () => {
  fc.assert(
    fc.property(
      fc.constantFrom(...lengthUnits),
      fc.constantFrom(...lengthUnits),
      fc.integer({ min: 0, max: 400 }),
      (unit, header, seed) => {
        const { probabilities, chosen, confidence } = judged(unit, header, seed);
        // What is missing to one is that the drawing is at a paper scale.
        const sum = Object.values(probabilities).reduce((a, b) => a + b, 0);
        expect(sum).toBeLessThanOrEqual(1 + 1e-9);
        expect(sum).toBeGreaterThan(0.95);
        expect(confidence).toBeCloseTo(Math.max(...Object.values(probabilities)), 12);
        if (chosen !== null) expect(probabilities[chosen]).toBe(confidence);
        if (header !== unit && chosen === header)
          throw new Error(`the header ${header} was believed against a plan in ${unit}, number ${seed}`);
      },
    ),
    { numRuns: 60 },
  );
});

const cue = (name: string, favours: LengthUnit, weight: number): Cue => ({
  cue: name,
  observations: 1,
  favours,
  weight,
  seen: '',
  range: null,
  places: [],
  logs: Object.fromEntries(lengthUnits.map((unit) => [unit, unit === favours ? 0 : -weight])) as Cue['logs'],
});

test('two cues of one weight for two units decide nothing; the header counts whole, measured cues at three quarters', () => {
  expect(verdict(null, [cue('a', 'mm', 3), cue('b', 'm', 3)]).chosen).toBeNull();
  // 3 against 0.75 x 4 = 3: as likely.
  const { probabilities } = verdict('m', [cue('header unit', 'm', 3), cue('doors', 'mm', 4)]);
  expect(probabilities.mm).toBeCloseTo(probabilities.m, 12);
  // exp(0.75 x 4.6) = 31.5 to one against each of four others.
  expect(verdict(null, [cue('doors', 'mm', 4.6)]).probabilities.mm).toBeCloseTo(
    (31.5 / (31.5 + 4)) * 0.998 + 0.0004,
    3,
  );
});

test('many observations of one kind count by their root, and no more than sixteen of them', () => {
  expect([1, 4, 16, 400].map(effectiveCount)).toEqual([1, 2, 4, 4]);
  expect(median([5, 1, 9])).toBe(5);
  expect(median([])).toBeNaN();
});

const written = (value: number, number: number, form: Written['form']): Written => ({
  value,
  number,
  form,
  at: [0, 0],
});
const likeliest = (list: Written[]) =>
  lengthUnits.reduce((a, b) =>
    logLikelihoodOfWritten(list, metresPer[b]) > logLikelihoodOfWritten(list, metresPer[a]) ? b : a,
  );

test.each([
  ['5400 written at 5400 drawn', written(5400, 5400, 'whole'), 'mm'],
  ['5.40 written at 5.4 drawn', written(5.4, 5.4, 'decimals'), 'm'],
  ['5400 written at 5.4 drawn', written(5.4, 5400, 'whole'), 'm'],
  ['5400 written at 540 drawn', written(540, 5400, 'whole'), 'cm'],
  ['18 feet written at 216 drawn', written(216, 18 * 0.3048, 'feet'), 'in'],
  ['18 feet written at 18 drawn', written(18, 18 * 0.3048, 'feet'), 'ft'],
  ['18 feet written at 5486.4 drawn', written(5486.4, 18 * 0.3048, 'feet'), 'mm'],
] as [string, Written, LengthUnit][])('%s: the drawing is in %3$s', (_, one, unit) => {
  expect(likeliest([one, one, one])).toBe(unit);
});

test('a written length that fits no unit says nothing for any', () => {
  const logs = lengthUnits.map((unit) => logLikelihoodOfWritten([written(7, 19, 'whole')], metresPer[unit]));
  expect(new Set(logs).size).toBe(1);
});

test('log-odds of even chances are zero, of twenty to one about three, and turn over with the probability', () => {
  expect(logOdds(0.5)).toBe(0);
  expect(logOdds(20 / 21)).toBeCloseTo(Math.log(20), 12);
  expect(logOdds(0.1)).toBeCloseTo(-logOdds(0.9), 12);
});
