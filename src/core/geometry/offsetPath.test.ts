import fc from 'fast-check';
import { arcOfBulge } from './bulge';
import { bulgeThrough, offsetPath } from './offsetPath';
import { area } from './polygon';
import { distance, type Point } from './vector';

const straight = (points: Point[]) => ({ points, bulges: points.map(() => 0) });
const square: Point[] = [
  [0, 0],
  [4, 0],
  [4, 3],
  [0, 3],
];

test('a closed outline goes inwards to its left, each side by its own distance', () => {
  // Inside a rectangle of 4 by 3: 0.5 off all round leaves 3 by 2; sides of 1, 0, 0.5, 0 leave 4 by 1.5.
  expect(Math.abs(area(offsetPath(straight(square), 0.5, true)!.points))).toBeCloseTo(6, 12);
  expect(offsetPath(straight(square), [1, 0, 0.5, 0], true)!.points).toEqual([
    [0, 1],
    [4, 1],
    [4, 2.5],
    [0, 2.5],
  ]);
  expect(Math.abs(area(offsetPath(straight(square), -0.25, true)!.points))).toBeCloseTo(4.5 * 3.5, 12);
});

test('an open chain keeps its ends square and completes its corners', () => {
  const chain = offsetPath(
    straight([
      [0, 0],
      [5, 0],
      [5, 4],
    ]),
    0.1,
    false,
  )!;
  expect(chain.points.map((p) => p.map((v) => Number(v.toFixed(9))))).toEqual([
    [0, 0.1],
    [4.9, 0.1],
    [4.9, 4],
  ]);
});

test('an arc keeps its centre, and meets the straight side beside it', () => {
  // A quarter circle of radius 2 about (2, 2) after a line that touches it.
  const quarter = Math.tan(Math.PI / 8);
  const off = offsetPath(
    {
      points: [
        [0, 0],
        [2, 0],
        [4, 2],
      ],
      bulges: [0, quarter, 0],
    },
    0.5,
    false,
  )!;
  expect(off.points[1].map((v) => Number(v.toFixed(9)))).toEqual([2, 0.5]);
  const arc = arcOfBulge(off.points[1], off.points[2], off.bulges[1]);
  expect([arc.radius, ...arc.centre].map((v) => Number(v.toFixed(9)))).toEqual([1.5, 2, 2]);
});

test('where a side would vanish or turn round there is none', () => {
  expect(offsetPath(straight(square), 1.6, true)).toBeNull();
  const half = {
    points: [
      [0, 0],
      [2, 0],
    ] as Point[],
    bulges: [1],
  };
  expect(offsetPath(half, 1.2, false)).toBeNull();
});

test('there and back again is the same path', () => {
  const value = fc.double({ min: -50, max: 50, noNaN: true });
  fc.assert(
    fc.property(
      value,
      value,
      fc.double({ min: 0.2, max: 2.9, noNaN: true }),
      fc.double({ min: -0.3, max: 0.3, noNaN: true }),
      (x, y, angle, by) => {
        const path = straight([
          [x, y],
          [x + 8, y],
          [x + 8 + 8 * Math.cos(angle), y + 8 * Math.sin(angle)],
        ]);
        const there = offsetPath(path, by, false);
        if (there === null) return;
        const back = offsetPath(there, -by, false)!;
        for (const [i, p] of back.points.entries()) expect(distance(p, path.points[i])).toBeLessThan(1e-9);
      },
    ),
  );
});

test('three points make an arc: through the point, whichever side it lies on', () => {
  // Half a circle of radius 1 is a bulge of 1; a quarter of one is tan(22.5 degrees).
  expect(bulgeThrough([0, 0], [2, 0], [1, -1])).toBeCloseTo(1, 12);
  expect(bulgeThrough([0, 0], [2, 0], [1, 1])).toBeCloseTo(-1, 12);
  expect(bulgeThrough([0, 0], [2, 0], [1, 0])).toBe(0);
  const angle = fc.double({ min: 0.1, max: 6.1, noNaN: true });
  fc.assert(
    fc.property(angle, fc.double({ min: 0.05, max: 0.95, noNaN: true }), fc.boolean(), (sweep, t, left) => {
      const at = (turn: number): Point => [3 * Math.cos(left ? turn : -turn), 3 * Math.sin(left ? turn : -turn)];
      const arc = arcOfBulge(at(0), at(sweep), bulgeThrough(at(0), at(sweep), at(sweep * t)));
      expect(arc.radius).toBeCloseTo(3, 6);
      expect(arc.sweep).toBeCloseTo(left ? sweep : -sweep, 6);
    }),
  );
});
