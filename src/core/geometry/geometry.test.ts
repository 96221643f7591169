import fc from 'fast-check';
import { arcContains, arcOfBulge, bulgeOfSweep, chordCount, pointOnArc } from './bulge';
import { area, centroid, contains, convexHull, leastRectangle, simplify } from './polygon';
import { apply, compose, determinant, evenScale, invert, turnDirection, type Transform } from './transform';
import { degrees, distance, lineCrossing, radians, type Point } from './vector';

const near = (a: Point, b: Point, digits = 9) => {
  expect(a[0]).toBeCloseTo(b[0], digits);
  expect(a[1]).toBeCloseTo(b[1], digits);
};

test('a bulge of one is a half circle, of tan(22.5 degrees) a quarter', () => {
  const half = arcOfBulge([0, 0], [2, 0], 1);
  near(half.centre, [1, 0]);
  expect(half.radius).toBeCloseTo(1, 12);
  // Counter-clockwise from (0,0) to (2,0) about (1,0) runs below the chord.
  near(pointOnArc(half, 0.5), [1, -1]);
  const quarter = arcOfBulge([1, 0], [0, 1], Math.tan(Math.PI / 8));
  near(quarter.centre, [0, 0]);
  expect(quarter.sweep).toBeCloseTo(Math.PI / 2, 12);
});

test('an arc made from its sweep meets its ends', () => {
  fc.assert(
    fc.property(
      fc.double({ min: -6, max: 6, noNaN: true }).filter((sweep) => Math.abs(sweep) > 0.01),
      fc.double({ min: -3, max: 3, noNaN: true }),
      fc.double({ min: 0.1, max: 1e4, noNaN: true }),
      (sweep, start, radius) => {
        const at = (angle: number): Point => [radius * Math.cos(angle), radius * Math.sin(angle)];
        const arc = arcOfBulge(at(start), at(start + sweep), bulgeOfSweep(sweep));
        expect(arc.radius / radius).toBeCloseTo(1, 6);
        expect(distance(arc.centre, [0, 0]) / radius).toBeLessThan(1e-6);
        expect(arcContains(arc, start + sweep / 2)).toBe(true);
        expect(arcContains(arc, start + sweep / 2 + Math.PI)).toBe(Math.abs(sweep) >= 2 * Math.PI);
      },
    ),
  );
});

test('no chord leaves its arc by more than the sagitta', () => {
  for (const [radius, sweep, sagitta] of [
    [10, Math.PI, 0.01],
    [0.5, 6, 0.001],
    [1000, 0.3, 0.05],
  ]) {
    const step = sweep / chordCount(radius, sweep, sagitta);
    expect(radius * (1 - Math.cos(step / 2))).toBeLessThanOrEqual(sagitta * 1.0001);
  }
});

test('area and centre of area of an L: 3 by 3 less 2 by 2', () => {
  const corner: Point[] = [
    [0, 0],
    [3, 0],
    [3, 1],
    [1, 1],
    [1, 3],
    [0, 3],
  ];
  expect(area(corner)).toBeCloseTo(5, 12);
  // Moments by hand: (3 x 1 at 1.5, 0.5) and (1 x 2 at 0.5, 2).
  near(centroid(corner), [(3 * 1.5 + 2 * 0.5) / 5, (3 * 0.5 + 2 * 2) / 5]);
  expect([contains(corner, [0.5, 2.5]), contains(corner, [2, 2])]).toEqual([true, false]);
});

test('area keeps its digits at survey coordinates', () => {
  const far: Point[] = [
    [4.5e6, 5.4e6],
    [4.5e6 + 0.4, 5.4e6],
    [4.5e6 + 0.4, 5.4e6 + 0.4],
    [4.5e6, 5.4e6 + 0.4],
  ];
  expect(area(far)).toBeCloseTo(0.16, 7);
});

test('the least rectangle of a turned rectangle has its size and its turning', () => {
  fc.assert(
    fc.property(
      fc.double({ min: -44.9, max: 44.9, noNaN: true }),
      fc.double({ min: 0.1, max: 5, noNaN: true }),
      fc.double({ min: 0.1, max: 5, noNaN: true }),
      (turn, width, depth) => {
        const [c, s] = [Math.cos(radians(turn)), Math.sin(radians(turn))];
        const corners = (
          [
            [-1, -1],
            [1, -1],
            [1, 1],
            [-1, 1],
          ] as Point[]
        ).map(([x, y]): Point => [7 + (x * width * c - y * depth * s) / 2, 3 + (x * width * s + y * depth * c) / 2]);
        const rectangle = leastRectangle(corners)!;
        near(rectangle.centre, [7, 3], 8);
        expect(rectangle.width).toBeCloseTo(width, 8);
        expect(rectangle.depth).toBeCloseTo(depth, 8);
        expect(degrees(rectangle.rotation)).toBeCloseTo(turn, 6);
      },
    ),
  );
});

test('the hull leaves out inner points, and simplify what stands amid straight sides', () => {
  expect(
    convexHull([
      [0, 0],
      [2, 0],
      [1, 1],
      [2, 2],
      [0, 2],
      [1, 0.5],
    ]),
  ).toHaveLength(4);
  expect(
    simplify(
      [
        [0, 0],
        [1, 0],
        [2, 0],
        [2, 0],
        [2, 2],
        [0, 2],
      ],
      1e-6,
    ),
  ).toEqual([
    [0, 0],
    [2, 0],
    [2, 2],
    [0, 2],
  ]);
});

test('a map and its inverse lead back, and compose applies the inner first', () => {
  const turn: Transform = [0, 1, -1, 0, 5, 6];
  const grow: Transform = [2, 0, 0, 3, 0, 0];
  near(apply(compose(turn, grow), [1, 1]), [5 - 3, 6 + 2]);
  near(apply(invert(compose(turn, grow)), apply(compose(turn, grow), [0.3, -7])), [0.3, -7]);
  expect([evenScale(turn), evenScale(grow), determinant(grow)]).toEqual([1, null, 6]);
  expect(turnDirection(turn, 0)).toBeCloseTo(Math.PI / 2, 12);
});

test('lines cross where they should and parallels nowhere', () => {
  near(lineCrossing([0, 0], [4, 4], [0, 4], [4, 0])!.point, [2, 2]);
  expect(lineCrossing([0, 0], [1, 0], [0, 1], [5, 1])).toBeNull();
});
