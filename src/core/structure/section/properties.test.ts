import type { Point } from '@/core/geometry/vector';
import { propertiesOf, torsionOfRectangle } from './properties';

const close = (value: number) => expect.closeTo(value, 9);

test('a rectangle 0.3 x 0.6, a tube and a round bar by their formulas', () => {
  // b d3 / 12 and d b3 / 12; J = beta d b3 with beta = 0.229 for 1 to 2 (Timoshenko and Goodier, table).
  const beam = propertiesOf({ shape: 'rectangle', width: 0.3, depth: 0.6 });
  expect(beam).toMatchObject({ area: close(0.18), iy: close(0.0054), iz: close(0.00135), iyz: 0 });
  expect(beam.j / (0.6 * 0.3 ** 3)).toBeCloseTo(0.2287, 4);
  expect(torsionOfRectangle(1, 1)).toBeCloseTo(0.1406, 4);
  expect(torsionOfRectangle(10, 0.1) / (10 * 0.1 ** 3)).toBeCloseTo(0.3333 * (1 - 0.0063), 4);
  const tube = propertiesOf({ shape: 'circle', diameter: 0.2, wall: 0.01 });
  expect(tube.area).toBeCloseTo(Math.PI * 0.19 * 0.01, 12);
  expect(tube.j).toBeCloseTo(2 * tube.iy, 15);
  // A thin box 0.2 x 0.1 x 0.005: 4 (0.195 0.095)2 0.005 / 0.58, and 0.5 % for the wall by itself.
  const box = propertiesOf({ shape: 'rectangle', width: 0.2, depth: 0.1, wall: 0.005 });
  expect(box.area).toBeCloseTo(0.02 - 0.19 * 0.09, 12);
  expect(box.j / ((4 * (0.195 * 0.095) ** 2 * 0.005) / 0.58)).toBeCloseTo(1.002, 3);
});

/** An angle 200 x 100 x 10 mm with its corner at zero. */
const angle: Point[] = [
  [0, 0],
  [0.1, 0],
  [0.1, 0.01],
  [0.01, 0.01],
  [0.01, 0.2],
  [0, 0.2],
];

test('an angle has its centroid, its moments and its product of inertia, whichever way it is drawn', () => {
  // By hand in two rectangles: 0.1 x 0.01 and 0.01 x 0.19.
  const [a1, a2] = [0.001, 0.0019];
  const cy = (a1 * 0.05 + a2 * 0.005) / (a1 + a2);
  const cz = (a1 * 0.005 + a2 * 0.105) / (a1 + a2);
  const iyz = a1 * (0.05 - cy) * (0.005 - cz) + a2 * (0.005 - cy) * (0.105 - cz);
  const iy = (0.1 * 0.01 ** 3) / 12 + a1 * (0.005 - cz) ** 2 + (0.01 * 0.19 ** 3) / 12 + a2 * (0.105 - cz) ** 2;
  for (const outline of [angle, [...angle].reverse()]) {
    const made = propertiesOf({ shape: 'polygon', outline });
    expect(made.area).toBeCloseTo(0.0029, 12);
    expect(made.centroid).toEqual([close(cy), close(cz)]);
    expect(made.iyz).toBeCloseTo(iyz, 12);
    expect(made.iy).toBeCloseTo(iy, 12);
    // Thin: the sum of l t3 / 3, a little less for the free ends and more for the corner.
    expect(made.j / ((0.29 * 0.01 ** 3) / 3)).toBeGreaterThan(0.96);
    expect(made.j / ((0.29 * 0.01 ** 3) / 3)).toBeLessThan(1.03);
  }
});

test('torsion of polygons by finite elements: a square, 1 to 2, and an equilateral triangle, to half a per cent', () => {
  const rectangle = (b: number, d: number): Point[] => [
    [0, 0],
    [b, 0],
    [b, d],
    [0, d],
  ];
  const of = (outline: Point[]) => propertiesOf({ shape: 'polygon', outline }).j;
  expect(of(rectangle(0.4, 0.4)) / (0.14058 * 0.4 ** 4)).toBeCloseTo(1, 2);
  expect(of(rectangle(0.3, 0.6)) / torsionOfRectangle(0.3, 0.6)).toBeCloseTo(1, 2);
  // Root of 3 times a4 / 80.
  const triangle: Point[] = [
    [0, 0],
    [1, 0],
    [0.5, Math.sqrt(3) / 2],
  ];
  expect(of(triangle) / (Math.sqrt(3) / 80)).toBeCloseTo(1, 2);
  expect(of([...triangle, [0.5, 0]])).toBeGreaterThan(0);
});
