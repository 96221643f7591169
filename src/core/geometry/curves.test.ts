import fc from 'fast-check';
import { alongCurve, quarters, splineCurve } from './curves';
import { composeSpace, planeSpace, seenFromAbove, spaceOf } from './space';
import { apply, compose, type Transform } from './transform';
import type { Point } from './vector';

const along = (curve: (t: number) => Point, breaks: number[], sagitta: number) => {
  const points: Point[] = [curve(breaks[0])];
  alongCurve(curve, breaks, sagitta, (p) => points.push(p));
  return points;
};

test('no chord of an ellipse leaves it by more than the sagitta', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 0.5, max: 50, noNaN: true }),
      fc.double({ min: 0.05, max: 1, noNaN: true }),
      fc.double({ min: 0.001, max: 0.1, noNaN: true }),
      (a, ratio, sagitta) => {
        const curve = (t: number): Point => [a * Math.cos(t), a * ratio * Math.sin(t)];
        const points = along(curve, quarters(0, 2 * Math.PI), sagitta);
        for (let i = 0; i + 1 < points.length; i += 1) {
          const [p, q] = [points[i], points[i + 1]];
          const [from, to] = [Math.atan2(p[1] / ratio, p[0]), Math.atan2(q[1] / ratio, q[0])];
          const turn = (((to - from) % (2 * Math.PI)) + 2 * Math.PI) % (2 * Math.PI);
          const [dx, dy] = [q[0] - p[0], q[1] - p[1]];
          for (let k = 1; k < 20; k += 1) {
            const [x, y] = curve(from + (turn * k) / 20);
            // The distance from the chord's line, looked at in more places than the halving looks.
            expect(Math.abs((x - p[0]) * dy - (y - p[1]) * dx) / Math.hypot(dx, dy)).toBeLessThanOrEqual(
              sagitta * 1.02 + 1e-12,
            );
          }
        }
      },
    ),
    { numRuns: 40 },
  );
});

test('a rational quadratic with the weight cos(45 degrees) is a quarter circle', () => {
  const found = splineCurve({
    degree: 2,
    closed: false,
    knots: [0, 0, 0, 1, 1, 1],
    controls: [1, 0, 1, 1, 0, 1],
    weights: [1, Math.SQRT1_2, 1],
    fits: [],
  })!;
  for (let t = 0; t <= 1; t += 0.1) expect(Math.hypot(...found.curve(t))).toBeCloseTo(1, 12);
});

test('a cubic of one span is its Bezier curve: at the middle an eighth, three, three and an eighth of its points', () => {
  const { curve } = splineCurve({
    degree: 3,
    closed: false,
    knots: [0, 0, 0, 0, 1, 1, 1, 1],
    controls: [0, 0, 0, 8, 8, 8, 8, 0],
    weights: [],
    fits: [],
  })!;
  expect(curve(0.5)).toEqual([(0 + 3 * 0 + 3 * 8 + 8) / 8, (0 + 3 * 8 + 3 * 8 + 0) / 8]);
});

test('knots that fall or span nothing make no curve', () => {
  const data = { degree: 2, closed: false, controls: [0, 0, 1, 1, 2, 0], weights: [], fits: [] };
  expect(splineCurve({ ...data, knots: [0, 0, 0, 0, 0, 0] })).toBeNull();
  expect(splineCurve({ ...data, knots: [0, 0, 2, 1, 3, 3] })).toBeNull();
});

test('the axes of planes follow the arbitrary-axis rule', () => {
  // The world's own plane, and seen from behind: x turns over.
  expect(seenFromAbove(planeSpace([0, 0, 1]), 0).map((v) => v + 0)).toEqual([1, 0, 0, 1, 0, 0]);
  expect(seenFromAbove(planeSpace([0, 0, -1]), 0).map((v) => v + 0)).toEqual([-1, 0, 0, 1, 0, 0]);
  // Facing y: x axis = z x y = (-1, 0, 0), y axis = y x (-1,0,0) = (0, 0, 1): upright, so no y is seen in the plan.
  expect(seenFromAbove(planeSpace([0, 1, 0]), 7).map((v) => v + 0)).toEqual([-1, 0, 0, 0, 0, 7]);
});

test('every plane has axes of length one, square to one another and to the normal', () => {
  const part = fc.double({ min: -1, max: 1, noNaN: true });
  fc.assert(
    fc.property(part, part, part, (x, y, z) => {
      const size = Math.hypot(x, y, z);
      fc.pre(size > 0.01);
      const m = planeSpace([x / size, y / size, z / size]);
      const axis = (column: number) => [m[column], m[4 + column], m[8 + column]];
      const dot = (a: number[], b: number[]) => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
      for (let i = 0; i < 3; i += 1)
        for (let j = 0; j < 3; j += 1) expect(dot(axis(i), axis(j))).toBeCloseTo(i === j ? 1 : 0, 9);
    }),
  );
});

test('maps of the plane are the same in space', () => {
  const [turn, grow]: Transform[] = [
    [0, 1, -1, 0, 5, 6],
    [2, 0, 0, 3, 1, 1],
  ];
  const flat = apply(compose(turn, grow), [3, 4]);
  expect(apply(seenFromAbove(composeSpace(spaceOf(turn), spaceOf(grow)), 99), [3, 4])).toEqual(flat);
});
