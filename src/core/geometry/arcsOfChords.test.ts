import { withArcs } from './arcsOfChords';
import type { Point } from './vector';

const exact = { onCircle: 2e-5, sagitta: Infinity };
/** As a drawing in whole millimetres has it. */
const rounded = { onCircle: 1e-3, sagitta: 0.02 };
const millimetres = ([x, y]: Point): Point => [Math.round(x * 1000) / 1000, Math.round(y * 1000) / 1000];

/** Points of a circle about zero, from an angle on by steps, degrees. */
const round = (radius: number, from: number, step: number, chords: number): Point[] =>
  Array.from({ length: chords + 1 }, (_, i): Point => {
    const angle = ((from + i * step) * Math.PI) / 180;
    return [radius * Math.cos(angle), radius * Math.sin(angle)];
  });

test('runs of chords are arcs, and what is beside them stays straight', () => {
  // A wall bent by a quarter turn of 3.0 and 3.3: each face of 24 chords.
  const face = (radius: number) =>
    Array.from({ length: 25 }, (_, i): Point => [
      radius * Math.cos((i * Math.PI) / 48),
      radius * Math.sin((i * Math.PI) / 48),
    ]);
  const { points, bulges } = withArcs([...face(3.3), ...face(3).reverse()], true, exact);
  expect(points).toHaveLength(4);
  const quarter = Math.tan(Math.PI / 8);
  expect(bulges.map((bulge) => Math.abs(bulge)).sort((a, b) => a - b)).toEqual(
    [0, 0, quarter, quarter].map((value) => expect.closeTo(value, 6)),
  );
  expect(bulges.reduce((sum, bulge) => sum + bulge, 0)).toBeCloseTo(0, 9);
  const octagon = Array.from({ length: 8 }, (_, i): Point => [
    Math.cos((i * Math.PI) / 4),
    Math.sin((i * Math.PI) / 4),
  ]);
  expect(withArcs(octagon, true, exact).bulges).toEqual(octagon.map(() => 0));
});

test('corners rounded to whole millimetres are on their arc, however flat, with a shorter first and last chord', () => {
  // Of a radius of 9 m, from 3 to 87 degrees: chords of 5 degrees, the first of 2 and the last of 2.
  const angles = [3, ...Array.from({ length: 17 }, (_, i) => 5 + 5 * i), 87];
  const line = angles.map((angle) => millimetres(round(9, angle, 0, 0)[0]));
  const { points, bulges } = withArcs([[9, -3], ...line, [-3, 9]], false, rounded);
  expect(points).toHaveLength(4);
  expect(bulges[1]).toBeCloseTo(Math.tan((84 * Math.PI) / 180 / 4), 3);
  // Turned the other way the arc bends the other way.
  expect(withArcs([...line].reverse(), false, rounded).bulges[0]).toBeCloseTo(-bulges[1], 6);
});

test('a ring becomes arcs that go all the way round', () => {
  const { points, bulges } = withArcs(round(2, 11, 10, 35).map(millimetres), true, rounded);
  expect(points.length).toBeLessThanOrEqual(3);
  expect(bulges.reduce((sum, bulge) => sum + 4 * Math.atan(bulge), 0)).toBeCloseTo(2 * Math.PI, 3);
});

test('what has corners keeps them: a bay of five sides, a wavy line, a straight line drawn badly', () => {
  const straight = (points: Point[]) => withArcs(points, false, rounded).bulges.every((bulge) => bulge === 0);
  // Sides of 3 m that turn by 10 degrees leave their circle by 65 mm.
  expect(straight(round(3 / (2 * Math.sin((5 * Math.PI) / 180)), 0, 10, 5))).toBe(true);
  expect(straight(Array.from({ length: 12 }, (_, i): Point => [i, i % 2]))).toBe(true);
  expect(straight(Array.from({ length: 12 }, (_, i): Point => [i, 0.0008 * ((i * 7) % 3)]))).toBe(true);
});
