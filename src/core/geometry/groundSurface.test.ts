import * as fc from 'fast-check';
import { GroundSurface, type GroundPoint } from './groundSurface';
import { thinned } from './thinned';
import type { Point } from './vector';

const coordinate = fc.double({ min: -50, max: 50, noNaN: true });
const plane = ([x, y]: Point): number => 3 + 0.2 * x - 0.1 * y;

test('through points of a plane the ground is that plane wherever it was measured', () => {
  fc.assert(
    fc.property(
      fc.array(fc.tuple(coordinate, coordinate), { minLength: 3, maxLength: 40 }),
      coordinate,
      coordinate,
      (at, x, y) => {
        const ground = new GroundSurface(at.map((p): GroundPoint => [...p, plane(p)]));
        const height = ground.at([x, y]);
        if (height !== null) expect(height).toBeCloseTo(plane([x, y]), 6);
      },
    ),
  );
});

test('it has heights inside the hull only, and bends at the edges of its triangles', () => {
  const ground = new GroundSurface([
    [0, 0, 0],
    [10, 0, 0],
    [10, 10, 5],
    [0, 10, 5],
    [5, 5, 10],
  ]);
  expect(ground.triangles).toHaveLength(4);
  expect(ground.at([5, 5])).toBeCloseTo(10, 9);
  // Halfway from the foot of the slope to the top.
  expect(ground.at([5, 2.5])).toBeCloseTo(5, 9);
  expect(ground.at([11, 5])).toBeNull();
  // A line across at y = 5 goes over the hull at both ends and over the top.
  expect([...new Set(ground.bends([-5, 5], [15, 5]).map((at) => Number(at.toFixed(6))))].sort()).toEqual([
    0.25, 0.5, 0.75,
  ]);
  expect(new GroundSurface([]).at([0, 0])).toBeNull();
});

test('a line keeps its corners and loses what lies between them', () => {
  const straight = Array.from({ length: 11 }, (_, i): Point => [i, i % 2 === 0 ? 0 : 0.01]);
  expect(thinned([...straight, [10, 5]], 0.05)).toEqual([
    [0, 0],
    [10, 0],
    [10, 5],
  ]);
});
