import { headerStates, judgePlans } from '../../../../bench/units';
import { block, dxf, groups, line, readText } from '@/core/drawing/testing/dxf';
import { flatten } from '@/core/underlay/flatten';
import { lengthUnits } from '@/core/units/length';
import { judgeUnit, type UnitVerdict } from './judge';
import { columnSides, doorLeaves, gridSpacings, scaleNote, stairGoings, wallPairs } from './objects';
import { buildingSides, parallelFamilies } from './sides';
import { logLikelihood } from './sizes';
import { consequences } from './plausible';
import { conflict, seenAs } from './words';
import { dimensionTexts, looseDimensions, readWritten } from './writtenLengths';

function opened(parts: Parameters<typeof dxf>[0]) {
  const { drawing } = readText(dxf(parts));
  const primitives = flatten(drawing);
  return { drawing, primitives, sides: buildingSides(primitives), verdict: () => judgeUnit(drawing, primitives) };
}
const values = ({ observations }: { observations: { value: number }[] }) =>
  observations.map(({ value }) => Math.round(value * 1000) / 1000);
const text = (x: number, y: number, height: number, words: string, angle = 0) =>
  groups([0, 'TEXT'], [8, 'T'], [10, x], [20, y], [40, height], [1, words], [50, angle]);
const circle = (x: number, y: number, r: number) => groups([0, 'CIRCLE'], [8, 'G'], [10, x], [20, y], [40, r]);
const arc = (x: number, y: number, r: number, from: number, to: number) =>
  groups([0, 'ARC'], [8, 'D'], [10, x], [20, y], [40, r], [50, from], [51, to]);
const square = (x: number, y: number, a: number, b = a) =>
  groups(
    [0, 'LWPOLYLINE'],
    [8, 'C'],
    [90, 4],
    [70, 1],
    ...[
      [x, y],
      [x + a, y],
      [x + a, y + b],
      [x, y + b],
    ].flatMap(([px, py]): [number, number][] => [
      [10, px],
      [20, py],
    ]),
  );
const units = (code: number) => groups([9, '$INSUNITS'], [70, code]);

describe('things of known size are found where they are, and what looks like them is not', () => {
  test('a door is a quarter arc with a leaf from its centre; an arc alone, or with a line of another length, is none', () => {
    const { primitives, sides } = opened({
      entities:
        arc(0, 0, 900, 0, 90) +
        line(0, 0, 0, 900) +
        arc(5000, 0, 800, 90, 180) +
        line(5000, 0, 4200, 0) +
        arc(9000, 0, 900, 0, 90) +
        arc(12000, 0, 900, 0, 90) +
        line(12000, 0, 12000, 400) +
        arc(15000, 0, 900, 0, 200) +
        line(15000, 0, 15900, 0),
    });
    expect(values(doorLeaves(primitives, sides)).sort()).toEqual([800, 900]);
  });

  test('columns are at least four small shapes of one size on a layer', () => {
    const four = [0, 5000, 10000, 15000].map((x) => square(x, 0, 400)).join('');
    expect(values(columnSides(opened({ entities: four + square(0, 9000, 1800, 900) }).primitives))).toEqual([
      400, 400, 400, 400,
    ]);
    expect(
      values(columnSides(opened({ entities: square(0, 0, 400) + square(1, 9, 700) + square(5, 99, 1100) }).primitives)),
    ).toEqual([]);
  });

  test('a wall is a pair of parallels that run beside one another; the next parallel a room away is none', () => {
    const pair = (y: number) => line(0, y, 8000, y) + line(0, y + 240, 8000, y + 240);
    const { primitives, sides } = opened({
      entities: pair(0) + pair(4000) + pair(9000) + line(0, 20000, 500, 20000) + line(0, 20400, 500, 20400),
    });
    expect(new Set(values(wallPairs(primitives, parallelFamilies(sides))))).toEqual(new Set([240]));
  });

  test('a stair is a run of equal treads; five of them, or lines as wide as deep, are none', () => {
    const run = (x: number, n: number, going: number, width: number) =>
      Array.from({ length: n }, (_, i) => line(x + i * going, 0, x + i * going, width)).join('');
    const { primitives, sides } = opened({
      entities: run(0, 12, 280, 1200) + run(50000, 5, 280, 1000) + run(80000, 12, 280, 300),
    });
    expect(values(stairGoings(primitives, parallelFamilies(sides)))).toEqual([280]);
  });

  test('grid spacings are between equal labelled circles in a row', () => {
    const bubbles = [0, 5400, 10800, 16950]
      .map((x, i) => circle(x, 0, 600) + text(x - 150, -150, 400, String(i + 1)))
      .join('');
    expect(
      values(gridSpacings(opened({ entities: bubbles + circle(30000, 0, 600) + circle(0, 9000, 900) }).primitives)),
    ).toEqual([5400, 5400, 6150]);
  });

  test('the scale is the one that most notes name', () => {
    expect(
      scaleNote(
        opened({
          entities:
            text(0, 0, 1, 'Plan 1:100') +
            text(0, 5, 1, 'Scale 1 : 100') +
            text(0, 9, 1, 'Detail 1:20') +
            text(0, 9, 1, 'at 11:30'),
        }).primitives,
      ),
    ).toBe(100);
    expect(scaleNote(opened({ entities: text(0, 0, 1, 'no note') }).primitives)).toBeNull();
  });
});

test.each([
  ['5400', 5400, 'whole'],
  ['5.40', 5.4, 'decimals'],
  ['5,40', 5.4, 'decimals'],
  ['~ 900', 900, 'whole'],
  ['12\'-6"', 12.5 * 0.3048, 'feet'],
  ['12\' 6 1/2"', (12 * 12 + 6.5) * 0.0254, 'feet'],
  ['8"', 8 * 0.0254, 'feet'],
  ["3'", 3 * 0.3048, 'feet'],
])('the written length %s is %d, %s', (words, number, form) => {
  const written = readWritten(words)!;
  expect(written.number).toBeCloseTo(number, 9);
  expect(written.form).toBe(form);
});

test.each(['A', '0', '', 'Room 5', '1:100', '5400 mm wide', '-12', "'", '"'])('"%s" is no written length', (words) => {
  expect(readWritten(words)).toBeNull();
});

test('the text of a dimension is read from its picture, an override before it, and set against its span', () => {
  const picture = block('*D1', line(0, 5, 5.4, 5) + text(2, 5.2, 0.2, '5400'));
  const dimension = (more: [number, string | number][]) =>
    groups(
      [0, 'DIMENSION'],
      [8, 'D'],
      [2, '*D1'],
      [10, 5.4],
      [20, 5],
      [70, 33],
      [13, 0],
      [23, 0],
      [14, 5.4],
      [24, 0],
      ...more,
    );
  const plain = opened({ blocks: picture, entities: dimension([]) });
  expect(dimensionTexts(plain.drawing, plain.primitives)).toMatchObject([{ value: 5.4, number: 5400, form: 'whole' }]);
  const changed = opened({ blocks: picture, entities: dimension([[1, '5.50']]) });
  expect(dimensionTexts(changed.drawing, changed.primitives)).toMatchObject([
    { value: 5.4, number: 5.5, form: 'decimals' },
  ]);
  // 5400 written at 5.4 drawn: the drawing is in metres, written in millimetres, whatever the header says.
  const verdict = opened({ header: units(4), blocks: picture, entities: dimension([]).repeat(5) }).verdict();
  expect(verdict.cues.find(({ cue }) => cue === 'dimension texts')!.favours).toBe('m');
});

test('numbers beside loose lines count where at least three agree on what they are', () => {
  const noted = (y: number, length: number, words: string) =>
    line(0, y, length, y) + text(length / 2 - 0.4, y + 0.1, 0.25, words);
  const agree = opened({ entities: noted(0, 5.4, '5400') + noted(5, 3.3, '3300') + noted(9, 6.9, '6900') });
  expect(looseDimensions(agree.primitives, agree.sides).map(({ number, value }) => number / value)).toEqual(
    [1000, 1000, 1000].map((n) => expect.closeTo(n, 6)),
  );
  const differ = opened({ entities: noted(0, 5.4, '5400') + noted(5, 3.3, '12') + noted(9, 6.9, '77') });
  expect(looseDimensions(differ.primitives, differ.sides)).toEqual([]);
});

test('the likelihood of a door falls off on both sides alike, by ratio, down to a floor', () => {
  const door = (metres: number) => logLikelihood(metres, 0.87, 0.2);
  expect(door(0.87 * 1.3)).toBeCloseTo(door(0.87 / 1.3), 12);
  expect(door(0.87)).toBeGreaterThan(door(1.1));
  expect(door(87)).toBeCloseTo(door(870), 12);
});

test('without header and content nothing is decided, and all units are as likely', () => {
  const { chosen, confidence, cues, probabilities } = opened({ entities: '' }).verdict();
  expect([chosen, cues]).toEqual([null, []]);
  expect(confidence).toBeCloseTo(0.2, 12);
  expect(Object.values(probabilities).reduce((a, b) => a + b, 0)).toBeCloseTo(1, 12);
});

test('a header that the size allows is believed as far as headers are, one that makes a house of three centimetres is not', () => {
  const fits = opened({ header: units(6), entities: line(0, 0, 30, 0) }).verdict();
  expect(fits.chosen).toBe('m');
  // Trusted at 0.85 against 0.15 for the four others, of which feet fit as well: 0.85 / (0.85 + 0.0375 + less).
  expect(fits.confidence).toBeLessThan(0.85 / 0.8875);
  expect(opened({ header: units(4), entities: line(0, 0, 30, 0) }).verdict().chosen).toBeNull();
});

test('no verdict is certain beyond 0.9984, however much speaks for it', () => {
  const much = Array.from(
    { length: 20 },
    (_, i) => arc(i * 3000, 0, 900, 0, 90) + line(i * 3000, 0, i * 3000, 900) + square(i * 3000, 5000, 400),
  ).join('');
  const { chosen, confidence } = opened({ header: units(4), entities: much }).verdict();
  expect(chosen).toBe('mm');
  expect(confidence).toBeLessThanOrEqual(0.9984);
});

test('header against content is said in words, with the observations counted', () => {
  const doors = Array.from(
    { length: 14 },
    (_, i) => arc(i * 3000, 0, 900, 0, 90) + line(i * 3000, 0, i * 3000, 900),
  ).join('');
  const verdict = opened({ header: units(6), entities: doors }).verdict();
  expect(verdict.chosen).toBe('mm');
  expect(conflict(verdict)).toEqual({
    header: 'The header says metres.',
    observations: expect.stringMatching(/^\d+ of \d+ observations say millimetres\.$/),
  });
  expect(conflict(opened({ header: units(4), entities: doors }).verdict())).toBeNull();
  expect(consequences(verdict, 0.001)).toContainEqual({ words: 'doors 0.90 m', sound: true });
  expect(consequences(verdict, 1)).toContainEqual({ words: 'doors 900.0 m', sound: false });
  const leaves = verdict.cues.find(({ cue }) => cue === 'door leaves')!;
  expect([seenAs(leaves, 'mm'), seenAs({ ...leaves, range: [0.9, 1.1] }, 'm')]).toEqual([
    '0.90 m',
    '0.90 \u2013 1.10 m',
  ]);
  expect(leaves.places).toHaveLength(14);
});

test('of a hundred plans in all units with wrong or missing headers at least 99 are right, and none is certain and wrong', () => {
  const outcomes = lengthUnits.flatMap((unit) =>
    headerStates.map((state) => ({ state, ...judgePlans(unit, state, 10, 1000) })),
  );
  const unaided = outcomes.filter(({ state }) => state !== 'right');
  expect(unaided.reduce((sum, { plans }) => sum + plans, 0)).toBe(100);
  expect(unaided.reduce((sum, { right }) => sum + right, 0)).toBeGreaterThanOrEqual(99);
  expect(outcomes.flatMap(({ certainlyWrong, failed }) => (certainlyWrong > 0 ? failed : []))).toEqual([]);
  expect(outcomes.filter(({ state }) => state === 'right').every(({ wrong }) => wrong === 0)).toBe(true);
});

test('the verdict shows each unit as it enters: the logs of a cue are at most zero, its weight the step to the next', () => {
  const verdict: UnitVerdict = opened({
    header: units(4),
    entities: arc(0, 0, 900, 0, 90) + line(0, 0, 0, 900),
  }).verdict();
  for (const { logs, weight, favours } of verdict.cues) {
    const sorted = Object.values(logs).sort((a, b) => b - a);
    expect(sorted[0]).toBeCloseTo(0, 2);
    expect(weight).toBeCloseTo(-sorted[1], 9);
    if (favours !== null) expect(logs[favours]).toBe(sorted[0]);
  }
});

test('plans drawn as plotted at 1:50 and 1:100 are told with their scale; a note on a plan at true size misleads nobody', () => {
  for (const scale of [50, 100]) {
    const { right, wrong } = judgePlans('mm', 'right', 12, 2000, scale);
    expect(right).toBeGreaterThanOrEqual(11);
    expect(wrong).toBe(0);
  }
  const note = text(0, 0, 250, 'Plan 1:100');
  const four = [0, 5000, 10000, 15000].map((x) => square(x, 0, 400)).join('');
  expect(opened({ header: units(4), entities: four + note }).verdict()).toMatchObject({ chosen: 'mm', scale: 1 });
  // The same at a hundredth: columns of 4 mm on paper.
  const paper = [0, 50, 100, 150].map((x) => square(x, 0, 4)).join('') + text(0, 0, 2.5, 'Plan 1:100');
  expect(opened({ header: units(4), entities: paper }).verdict()).toMatchObject({ chosen: 'mm', scale: 100 });
});
