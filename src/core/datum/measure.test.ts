import fc from 'fast-check';
import type { Point } from '@/core/geometry/vector';
import { measure } from './measure';

test('a distance of 3 and 4 is 5, and along axes turned by the same direction all of it is across', () => {
  expect(
    measure(
      'distance',
      [
        [1, 1],
        [4, 5],
      ],
      null,
    ),
  ).toMatchObject({ length: 5, across: 3, up: 4, direction: Math.atan2(4, 3) });
  expect(
    measure(
      'distance',
      [
        [1, 1],
        [4, 5],
      ],
      { origin: [9, 9], angle: Math.atan2(4, 3) },
    ),
  ).toMatchObject({ across: expect.closeTo(5, 12), up: expect.closeTo(0, 12) });
});

test('a run tells each spacing and all of them', () => {
  expect(
    measure(
      'run',
      [
        [0, 0],
        [5.4, 0],
        [10.8, 0],
        [16.95, 0],
      ],
      null,
    ),
  ).toEqual({
    mode: 'run',
    spacings: [5.4, expect.closeTo(5.4, 12), expect.closeTo(6.15, 12)],
    length: expect.closeTo(16.95, 12),
  });
});

test('an angle is between the two arms, whichever comes first; an arm of nothing has none', () => {
  expect(
    measure(
      'angle',
      [
        [1, 0],
        [0, 0],
        [0, 5],
      ],
      null,
    ),
  ).toEqual({ mode: 'angle', angle: Math.PI / 2 });
  expect(
    measure(
      'angle',
      [
        [0, 5],
        [0, 0],
        [-1, -1],
      ],
      null,
    ),
  ).toEqual({ mode: 'angle', angle: expect.closeTo((3 * Math.PI) / 4, 12) });
  expect(
    measure(
      'angle',
      [
        [0, 0],
        [0, 0],
        [1, 0],
      ],
      null,
    ),
  ).toBeNull();
});

test('an area is the same from either side, at survey coordinates too: 32.4 by 17.1', () => {
  const [e, n] = [4_501_230.4, 5_402_118.75];
  const ring: Point[] = [
    [e, n],
    [e + 32.4, n],
    [e + 32.4, n + 17.1],
    [e, n + 17.1],
  ];
  for (const points of [ring, [...ring].reverse()]) {
    const found = measure('area', points, null);
    expect(found?.mode === 'area' && [found.area, found.perimeter]).toEqual([
      expect.closeTo(32.4 * 17.1, 6),
      expect.closeTo(99, 6),
    ]);
  }
});

test('too few points measure nothing', () => {
  expect([
    measure('distance', [[0, 0]], null),
    measure('run', [], null),
    measure(
      'angle',
      [
        [0, 0],
        [1, 0],
      ],
      null,
    ),
    measure(
      'area',
      [
        [0, 0],
        [1, 0],
      ],
      null,
    ),
  ]).toEqual([null, null, null, null]);
});

test('a triangle\u2019s area is half the product of base and height, wherever it lies', () => {
  const number = fc.double({ min: -1000, max: 1000, noNaN: true });
  fc.assert(
    fc.property(
      number,
      number,
      fc.double({ min: 0.1, max: 50, noNaN: true }),
      fc.double({ min: 0.1, max: 50, noNaN: true }),
      number,
      (x, y, base, height, slant) => {
        const found = measure(
          'area',
          [
            [x, y],
            [x + base, y],
            [x + slant, y + height],
          ],
          null,
        );
        expect(found?.mode === 'area' && found.area).toBeCloseTo((base * height) / 2, 6);
      },
    ),
  );
});
