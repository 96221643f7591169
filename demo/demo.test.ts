import { columns, gridArcs, gridLines } from './building';
import { basement } from './basement';
import { groundFloor } from './ground';
import { beamSizes, framing } from './framing';
import { crossSection } from './section';
import { sheet } from './sheet';
import { upperFloor, upperStrays } from './upper';
import { onSurvey, yard } from './yard';
import { defaultLimits } from '@/core/drawing/limits';
import { readDxf } from '@/core/drawing/reader';
import { asDrawn } from '@/core/datum/placement';
import { digest } from '@/core/handover/intake/digest';
import type { ColumnCandidate, GridCandidate } from '@/core/reading/candidate';
import { rowsOfSheet } from '@/core/reading/beams/sheetRows';
import { read } from '@/core/reading/read';
import { toleranceFor } from '@/core/patterns/settings';
import { Scene } from '@/core/reading/scene';

const plan = groundFloor();
const reading = readDxf(new TextEncoder().encode(plan.dxf));
if (!reading.ok) throw new Error(reading.message);
const { drawing, primitives, intake } = digest('ground.dxf', '', reading.value, defaultLimits);
const { candidates, unread } = read({
  scene: new Scene(
    drawing,
    primitives,
    asDrawn('mm'),
    intake.layers.map((layer) => layer.role),
  ),
  tolerance: toleranceFor('mm'),
});
const grid = candidates.filter((c): c is GridCandidate => c.kind === 'grid');
const found = candidates.filter((c): c is ColumnCandidate => c.kind === 'column');

test('the account adds up to what the generator drew, kind by kind', () => {
  const total = new Map<string, number>();
  for (const row of [...intake.read, ...intake.leftOut]) total.set(row.kind, (total.get(row.kind) ?? 0) + row.count);
  expect(Object.fromEntries(total)).toEqual(plan.counts);
  expect(intake.layers.reduce((sum, layer) => sum + layer.entities, 0)).toBe(
    Object.values(plan.counts).reduce((a, b) => a + b, 0),
  );
});

test('every grid line of the building is read with its label, within a millimetre', () => {
  expect(grid.map((c) => c.element.label).sort()).toEqual(
    [...gridLines(), ...gridArcs()].map((line) => line.label).sort(),
  );
  for (const truth of gridLines()) {
    const line = grid.find((c) => c.element.label === truth.label)!.element;
    if (line.kind !== 'line') throw new Error(`${truth.label} is not straight`);
    const away = (a: readonly [number, number], b: readonly [number, number]) => Math.hypot(a[0] - b[0], a[1] - b[1]);
    expect(
      Math.min(
        away(line.start, truth.start) + away(line.end, truth.end),
        away(line.start, truth.end) + away(line.end, truth.start),
      ),
    ).toBeLessThan(0.001);
  }
  for (const truth of gridArcs())
    expect(grid.find((c) => c.element.label === truth.label)!.element).toMatchObject({ kind: 'arc' });
});

test('every column is read once, where it is drawn, with its true size and turning', () => {
  expect(unread).toEqual([]);
  expect(found).toHaveLength(columns().length);
  for (const truth of plan.columnsAsDrawn) {
    const match = found.find(
      (c) => Math.hypot(c.element.position[0] - truth.position[0], c.element.position[1] - truth.position[1]) < 0.001,
    );
    expect(match).toBeDefined();
    expect(match!.element.section).toEqual(truth.section);
    expect(match!.element.rotation).toBeCloseTo(truth.rotation, 6);
  }
});

test('what was drawn wrongly on purpose is doubted, and nothing else', () => {
  expect(
    found
      .filter((c) => c.doubt)
      .map((c) => `${c.crossing!.name}: ${c.doubt}`)
      .sort(),
  ).toEqual([
    '2/A: 5.0 mm off',
    '3/C: 6.0 mm off',
    '4/A: size rounded',
    '4/D: drawn twice',
    '5/B: 12 mm off',
    '6/A: gap of 6.0 mm',
    '6/D: 2.0 mm off',
  ]);
});

const opened = (text: string) => {
  const result = readDxf(new TextEncoder().encode(text));
  if (!result.ok) throw new Error(result.message);
  return { ...digest('plan.dxf', '', result.value, defaultLimits), warnings: result.value.account.warnings };
};

test.each([
  ['the upper floor', upperFloor()],
  ['the basement', basement()],
  ['the yard', yard()],
  ['the sheet', sheet()],
  ['the cross-section', crossSection()],
  ['the framing over the ground floor', framing('ground')],
  ['the framing over the upper floor', framing('upper')],
  ['everything on one layer', groundFloor({ oneLayer: true })],
  ['revision B', groundFloor({ revision: 'B' })],
])('%s: the account adds up to what was drawn, and nothing is left out', (_, { dxf, counts }) => {
  const { intake: report, warnings } = opened(dxf);
  expect(Object.fromEntries(report.read.map((row) => [row.kind, row.count]))).toEqual(counts);
  expect([report.leftOut, warnings]).toEqual([[], []]);
});

test('the dots of the upper floor are its strays, by their distance from the frame', () => {
  const {
    intake: { strays },
  } = opened(upperFloor().dxf);
  const places = strays.map(({ box }) => box[0].map((value) => value / 1000)).sort((a, b) => a[0] - b[0]);
  expect(places).toEqual([...upperStrays].sort((a, b) => a[0] - b[0]));
});

test('the yard keeps its millimetres at survey coordinates', () => {
  const { drawing: survey, primitives: p } = opened(yard().dxf);
  const layer = survey.layers.findIndex(({ name }) => name === 'C-BLDG');
  const path = [...p.layer.keys()].find((i) => p.layer[i] === layer)!;
  const corners: [number, number][] = [
    [-0.15, -0.15],
    [32.7, -0.15],
    [32.7, 17.25],
    [-0.15, 17.25],
  ];
  corners.map(onSurvey).forEach(([x, y], i) => {
    // What is kept about the local origin survives 32 bits: the board shows it to the millimetre.
    expect(Math.fround(p.xy[2 * (p.start[path] + i)]) + p.origin[0]).toBeCloseTo(x, 3);
    expect(Math.fround(p.xy[2 * (p.start[path] + i) + 1]) + p.origin[1]).toBeCloseTo(y, 3);
  });
});

test('everything on one layer is one layer, and draws the same', () => {
  const { drawing: one, primitives: p } = opened(groundFloor({ oneLayer: true }).dxf);
  expect(one.layers.map(({ name }) => name)).toEqual(['0']);
  expect(p.xy.length).toBe(primitives.xy.length);
});

/** Two ends from the left, or from below, within a millimetre. */
const inOrder = (p: readonly number[], q: readonly number[]) =>
  p[0] - q[0] > 0.001 || (Math.abs(p[0] - q[0]) <= 0.001 && p[1] > q[1]) ? [q, p] : [p, q];

test.each(['ground', 'upper'] as const)(
  'the framing over the %s floor is read beam by beam, with the size of its mark',
  (over) => {
    const plan = framing(over);
    const { drawing: sheetOf, primitives: shown, intake } = opened(plan.dxf);
    const types = opened(crossSection().dxf);
    const { candidates } = read({
      scene: new Scene(
        sheetOf,
        shown,
        asDrawn('mm'),
        intake.layers.map(({ role }) => role),
      ),
      accepted: [],
      tolerance: toleranceFor('mm'),
      // What T1 is, the table on the section's sheet says.
      linked: [{ sheet: 'section', rows: rowsOfSheet(types.drawing, types.primitives) }],
    });
    const key = (a: readonly number[], b: readonly number[], mark: string, width: number, depth: number): string =>
      [...[...a, ...b].map((value) => (Math.round(value * 1000) / 1000 + 0).toFixed(3)), mark, width, depth].join(' ');
    const found = candidates.flatMap((candidate) => {
      if (candidate.kind !== 'beam' || candidate.element.section.shape !== 'rectangle') return [];
      const { start, end, mark, section } = candidate.element;
      const [a, b] = inOrder(start, end);
      return [key(a, b, mark, section.width, section.depth)];
    });
    const truth = plan.beams.map(({ start, end, mark }) => {
      const [a, b] = inOrder(start, end);
      return key(a, b, mark, beamSizes[mark].width, beamSizes[mark].depth);
    });
    expect(found.sort()).toEqual(truth.sort());
  },
);
