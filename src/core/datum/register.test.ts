import type { GridLine } from '@/core/kinds/grid';
import fc from 'fast-check';
import { gridLines } from '../../../demo/building';
import { onUpperSheet } from '../../../demo/upper';
import type { Point } from '@/core/geometry/vector';
import { carry, fitRigid, type PointPair } from './fit';
import { registerByGrid, spacingDifferences } from './register';

const pair = (from: Point, to: Point, name = ''): PointPair => ({ name, from, to });
const fitted = (pairs: PointPair[]) => {
  const result = fitRigid(pairs);
  if (!result.ok) throw new Error(result.message);
  return result.value;
};

test('a quarter turn and a shift are found from two points', () => {
  const fit = fitted([pair([0, 0], [10, 5]), pair([4, 0], [10, 9])]);
  expect(fit.turning).toBeCloseTo(Math.PI / 2, 12);
  expect(carry(fit, [0, 0]).map((v) => Number(v.toFixed(9)))).toEqual([10, 5]);
  expect(fit.rms).toBeLessThan(1e-12);
});

test('residuals by hand: of three points on a line one misses by 30 mm across, so each end gives 10 and the middle 20', () => {
  // The best line through (0,0), (1,0.03), (2,0) is y = 0.01: the shift is up by 0.01, no turn.
  const fit = fitted([pair([0, 0], [0, 0]), pair([1, 0], [1, 0.03]), pair([2, 0], [2, 0])]);
  expect(fit.residuals.map(({ away }) => Number(away.toFixed(9)))).toEqual([0.01, 0.02, 0.01]);
  expect(fit.rms).toBeCloseTo(Math.sqrt((0.01 ** 2 + 0.02 ** 2 + 0.01 ** 2) / 3), 9);
});

test('any turning and shift is found again, at survey coordinates too', () => {
  const number = fc.double({ min: -5e6, max: 5e6, noNaN: true });
  const near = fc.double({ min: -60, max: 60, noNaN: true });
  fc.assert(
    fc.property(
      fc.double({ min: -3.1, max: 3.1, noNaN: true }),
      number,
      number,
      fc.array(fc.tuple(near, near), { minLength: 2, maxLength: 12 }),
      (turning, x, y, points) => {
        fc.pre(Math.max(...points.map(([a, b]) => Math.hypot(a - points[0][0], b - points[0][1]))) > 1);
        const truth = { centre: [0, 0] as Point, target: [x, y] as Point, turning };
        const fit = fitted(points.map((p) => pair(p, carry(truth, p))));
        for (const p of points) {
          const [a, b] = [carry(fit, p), carry(truth, p)];
          expect(Math.hypot(a[0] - b[0], a[1] - b[1])).toBeLessThan(1e-6);
        }
      },
    ),
  );
});

test.each([
  [[], /No pair.*at least two/],
  [[pair([0, 0], [1, 1])], /One pair.*at least two/],
  [[pair([0, 0], [1, 1]), pair([0, 0.001], [1, 1.001])], /lie on one another/],
  [[pair([0, 0], [1, 1]), pair([9, 0], [1, 1.001])], /lie on one another/],
] as [PointPair[], RegExp][])('pairs that fix nothing are refused with a sentence', (pairs, words) => {
  const result = fitRigid(pairs);
  expect(result.ok ? '' : result.message).toMatch(words);
});

const grid: GridLine[] = gridLines().map((line) => ({ kind: 'line', ...line }));
const moved = (lines: GridLine[], map: (p: Point) => Point): GridLine[] =>
  lines.map((line) => (line.kind === 'line' ? { ...line, start: map(line.start), end: map(line.end) } : line));
const registered = (from: GridLine[], to: GridLine[]) => {
  const result = registerByGrid(from, to);
  if (!result.ok) throw new Error(result.message);
  return result.value;
};

test('the upper floor, drawn a kilometre off and a quarter turn round, falls onto the ground floor\u2019s grid', () => {
  const { fit, outliers, differences } = registered(
    moved(grid, (p) => onUpperSheet([...p])),
    grid,
  );
  expect(fit.turning).toBeCloseTo(-Math.PI / 2, 9);
  expect(Math.max(...fit.residuals.map(({ away }) => away))).toBeLessThan(1e-6);
  expect([outliers, differences]).toEqual([[], []]);
  const [x, y] = carry(fit, onUpperSheet([10.8, 6.9]));
  expect(Math.hypot(x - 10.8, y - 6.9)).toBeLessThan(1e-6);
});

test('a line that stands elsewhere is told with its spacings, not averaged in', () => {
  const shifted = grid.map((line): GridLine =>
    line.label === '5' && line.kind === 'line'
      ? { ...line, start: [line.start[0] + 0.15, line.start[1]], end: [line.end[0] + 0.15, line.end[1]] }
      : line,
  );
  const { fit, outliers, differences } = registered(shifted, grid);
  expect(Math.max(...fit.residuals.map(({ away }) => away))).toBeLessThan(1e-9);
  expect(outliers.every(({ name, away }) => name.startsWith('5/') && Math.abs(away - 0.15) < 1e-9)).toBe(true);
  expect(outliers.length).toBeGreaterThanOrEqual(4);
  expect(differences.map(({ between, here, there }) => [between, Number((here - there).toFixed(6))])).toEqual([
    ['4 and 5', 0.15],
    ['5 and 6', -0.15],
  ]);
});

test('missing and added lines do not matter; too few common labels, other grids and a wrong unit are refused', () => {
  const few = grid.filter(({ label }) => ['1', '2', 'A', 'B'].includes(label));
  expect(
    registered([...few, { kind: 'line', label: 'Z', start: [0, 50], end: [9, 50] }], grid).fit.residuals,
  ).toHaveLength(4);
  const none = registerByGrid(
    grid.map((line) => ({ ...line, label: `X${line.label}` })),
    grid,
  );
  expect(none.ok ? '' : none.message).toMatch(/^0 grid lines have the same label/);
  const wrongUnit = registerByGrid(
    moved(grid, ([x, y]) => [x * 10, y * 10]),
    grid,
  );
  expect(wrongUnit.ok ? '' : wrongUnit.message).toMatch(/different grids, or the unit of one is wrong/);
});

test('spacings are compared within a family only, whichever way the lines run', () => {
  const line = (label: string, x: number, up: boolean): GridLine => ({
    kind: 'line',
    label,
    start: up ? [x, 0] : [x, 9],
    end: up ? [x, 9] : [x, 0],
  });
  expect(
    spacingDifferences(
      [line('1', 0, true), line('2', 5, false), line('3', 9, true)],
      [line('1', 100, false), line('2', 105.2, true), line('3', 109, true)],
    ).map(({ between }) => between),
  ).toEqual(['1 and 2', '2 and 3']);
  expect(
    spacingDifferences(
      [line('1', 0, true), { kind: 'line', label: 'A', start: [0, 0], end: [9, 0] }],
      [line('1', 0, true), { kind: 'line', label: 'A', start: [0, 5], end: [9, 5] }],
    ),
  ).toEqual([]);
});
