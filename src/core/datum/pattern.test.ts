import type { GridLine } from '@/core/kinds/grid';
import fc from 'fast-check';
import { gridArcs, gridLines } from '../../../demo/building';
import { onUpperSheet } from '../../../demo/upper';
import type { Point } from '@/core/geometry/vector';
import { carry } from './fit';
import { registerByPattern } from './pattern';

const grid: GridLine[] = gridLines().map((line) => ({ kind: 'line', ...line }));
const moved = (lines: GridLine[], map: (p: Point) => Point): GridLine[] =>
  lines.map((line) =>
    line.kind === 'line' ? { ...line, label: '?', start: map(line.start), end: map(line.end) } : line,
  );
const fitted = (from: GridLine[], to: GridLine[]) => {
  const result = registerByPattern(from, to);
  if (!result.ok) throw new Error(result.message);
  return result.value;
};
const refused = (from: GridLine[], to: GridLine[]) => {
  const result = registerByPattern(from, to);
  return result.ok ? 'fitted' : result.message;
};

/** Straight grid lines at distances across and up. */
const lattice = (xs: number[], ys: number[]): GridLine[] => [
  ...xs.map((x, i): GridLine => ({
    kind: 'line',
    label: String(i + 1),
    start: [x, -2],
    end: [x, Math.max(...ys) + 2],
  })),
  ...ys.map((y, i): GridLine => ({ kind: 'line', label: 'ABCDEFG'[i], start: [-2, y], end: [Math.max(...xs) + 2, y] })),
];

test('the upper floor without labels falls onto the ground floor by its spacings', () => {
  const {
    registration: { fit, outliers },
    mirrored,
  } = fitted(
    moved(grid, (p) => onUpperSheet([p[0], p[1]])),
    grid,
  );
  expect(mirrored).toBe(false);
  expect(fit.turning).toBeCloseTo(-Math.PI / 2, 9);
  const at = carry(fit, onUpperSheet([10.8, 6.9]));
  expect(Math.hypot(at[0] - 10.8, at[1] - 6.9)).toBeLessThan(1e-6);
  expect(outliers).toEqual([]);
  expect(fit.residuals.map(({ name }) => name)).toContain('3/B');
});

test('a basement under a part of the building finds its bays, though the grid above has more directions', () => {
  const basement = grid.filter(({ label }) => ['1', '2', '3', '4', 'A', 'B', 'C'].includes(label));
  const {
    registration: { fit },
  } = fitted(
    moved(basement, ([x, y]) => [40 - x, 12 - y]),
    grid,
  );
  expect(Math.abs(fit.turning)).toBeCloseTo(Math.PI, 9);
  expect(carry(fit, [40 - 10.8, 12 - 6.9]).map((v) => Number(v.toFixed(9)) + 0)).toEqual([10.8, 6.9]);
  const { registration: up } = fitted(
    moved(grid, ([x, y]) => [-y, x]),
    basement,
  );
  expect(carry(up.fit, [-6.9, 10.8]).map((v) => Number(v.toFixed(9)) + 0)).toEqual([10.8, 6.9]);
});

test('worked: three bays of 4, 5, 7 and two of 6, 3, moved by (100, 50)', () => {
  const one = lattice([0, 4, 9, 16], [0, 6, 9]);
  const {
    registration: { fit },
  } = fitted(
    moved(one, ([x, y]) => [x - 100, y - 50]),
    one,
  );
  expect(fit.turning).toBeCloseTo(0, 12);
  expect(carry(fit, [-100, -50]).map((v) => Number(v.toFixed(9)) + 0)).toEqual([0, 0]);
});

test('lines that are missing or added on either side do not matter', () => {
  const one = lattice([0, 4, 9, 16, 22], [0, 6, 9, 14]);
  const other = moved(one, ([x, y]) => [-y, x]).filter((_, i) => i !== 2 && i !== 7);
  const more: GridLine = { kind: 'line', label: '?', start: [-40, -3], end: [-40, 30] };
  const {
    registration: { fit },
  } = fitted([...other, more], one);
  expect(carry(fit, [0, 9]).map((v) => Number(v.toFixed(9)) + 0)).toEqual([9, 0]);
});

test('a drawing that shows the plan mirror-wise is told so, and fits once it is turned over', () => {
  const one = lattice([0, 4, 9, 16, 22], [0, 6, 9, 14]);
  const {
    mirrored,
    registration: { fit },
  } = fitted(
    moved(one, ([x, y]) => [30 - x, y]),
    one,
  );
  expect(mirrored).toBe(true);
  // Turned over at x = 0 the point (30 - 9, 6) is (-21, 6); it belongs to (9, 6).
  expect(carry(fit, [-21, 6]).map((v) => Number(v.toFixed(9)) + 0)).toEqual([9, 6]);
});

test.each([
  [
    'even bays fit in many ways',
    lattice([0, 5, 10, 15], [0, 5, 10]),
    lattice([0, 5, 10, 15], [0, 5, 10]),
    /fit in several ways.*too regular/,
  ],
  [
    'a grid that is the same turned by a half',
    lattice([0, 4, 9, 13], [0, 6, 12]),
    lattice([0, 4, 9, 13], [0, 6, 12]),
    /fit in several ways/,
  ],
  ['lines in one direction only', lattice([0, 4, 9], []).slice(0, 3), lattice([0, 4, 9], [0, 5]), /one direction only/],
  [
    'another building',
    lattice([0, 4.1, 9.3, 17], [0, 6.7]),
    lattice([0, 5, 11, 18], [0, 4]),
    /No more than \d+ grid lines/,
  ],
] as [string, GridLine[], GridLine[], RegExp][])('%s: refused with a sentence', (_, from, to, words) => {
  expect(refused(from, to)).toMatch(words);
});

test('an arc goes along without taking part', () => {
  const arcs = gridArcs().map((arc): GridLine => ({ kind: 'arc', ...arc }));
  expect(fitted([...moved(grid, ([x, y]) => [x + 9, y]), ...arcs], [...grid, ...arcs]).mirrored).toBe(false);
});

test('any turning and shift of an irregular grid is found again', () => {
  const one = lattice([0, 4, 9.5, 16.2, 22], [0, 6.3, 9.1, 14]);
  fc.assert(
    fc.property(
      fc.double({ min: -3.1, max: 3.1, noNaN: true }),
      fc.double({ min: -5000, max: 5000, noNaN: true }),
      fc.double({ min: -5000, max: 5000, noNaN: true }),
      (turning, x, y) => {
        const truth = { centre: [0, 0] as Point, target: [x, y] as Point, turning };
        const {
          registration: { fit },
        } = fitted(
          moved(one, (p) => carry(truth, p)),
          one,
        );
        const back = carry(fit, carry(truth, [16.2, 9.1]));
        expect(Math.hypot(back[0] - 16.2, back[1] - 9.1)).toBeLessThan(1e-5);
      },
    ),
    { numRuns: 40 },
  );
});
