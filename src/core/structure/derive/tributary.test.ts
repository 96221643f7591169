import * as fc from 'fast-check';
import type { Point } from '@/core/geometry/vector';
import { ringsOf } from '@/core/geometry/ringParts';
import { tributaryOf, type Carrier, type Patch } from './tributary';

const line = (a: Point, b: Point, cuts: number[] = [0.25, 0.5, 0.75]): Carrier => ({ axis: 0, a, b, cuts });
const point = (a: Point): Carrier => ({ axis: 0, a, b: a, cuts: [] });
const square = (width: number, height: number): Point[] => [
  [0, 0],
  [width, 0],
  [width, height],
  [0, height],
];

function divided(
  outline: Point[],
  holes: Point[][],
  carriers: Carrier[],
  options: { span?: number; overhang?: number } = {},
) {
  const patches: Patch[] = [];
  let lost = 0;
  tributaryOf(ringsOf(outline, holes), carriers, options, {
    take: (patch) => patches.push(patch),
    lose: ({ area }) => (lost += area),
  });
  const areaOf = (carrier: number) =>
    patches.filter((patch) => patch.carrier === carrier).reduce((sum, { area }) => sum + area, 0);
  return { patches, lost, areas: carriers.map((_, i) => areaOf(i)) };
}

test('on four sides the short ones take triangles and the long ones trapezoids; a hole takes none', () => {
  const sides = [line([0, 0], [8, 0]), line([8, 0], [8, 6]), line([8, 6], [0, 6]), line([0, 6], [0, 0])];
  // Triangles of 6 by 3 m; trapezoids of (8 + 2) / 2 by 3 m.
  expect(divided(square(8, 6), [], sides).areas).toEqual([15, 9, 15, 9].map((v) => expect.closeTo(v, 6)));
  const hole: Point[] = [
    [3.5, 0.5],
    [4.5, 0.5],
    [4.5, 1.5],
    [3.5, 1.5],
  ];
  expect(divided(square(8, 6), [hole], sides).areas[0]).toBeCloseTo(14, 6);
});

test('between a point and a line the border is a parabola: its area by the integral', () => {
  // Of a line at y = -2 and a point at (4, 2): (y + 2)2 = (x - 4)2 + (y - 2)2, so that y = (x - 4)2 / 8.
  const { areas } = divided(square(8, 4), [], [line([0, -2], [8, -2]), point([4, 2])], { overhang: Infinity });
  const under = (2 * 4 ** 3) / (3 * 8);
  // Chords over half a metre lie inside it: they leave a few hundredths of a square metre.
  expect(areas[0]).toBeCloseTo(under, 1);
  expect(areas[0] + areas[1]).toBeCloseTo(32, 6);
});

test('along a span everything goes to the two lines that it meets; the others get none', () => {
  const sides = [line([0, 0], [8, 0]), line([8, 0], [8, 6]), line([8, 6], [0, 6]), line([0, 6], [0, 0])];
  const across = divided(square(8, 6), [], sides, { span: Math.PI / 2 });
  expect(across.areas[0]).toBeCloseTo(24, 6);
  expect(across.areas[2]).toBeCloseTo(24, 6);
  expect(across.patches.some(({ over }) => over)).toBe(false);
});

test('an overhang passes its moment on, and what reaches too far is lost', () => {
  const beam = line([0, 0], [8, 0]);
  const near = divided(square(8, 2), [], [beam]);
  expect(near.patches.every(({ over }) => over)).toBe(true);
  // 16 m2 with their middle 1 m out.
  expect(near.patches.reduce((sum, { area, centre, foot }) => sum + area * (centre[1] - foot[1]), 0)).toBeCloseTo(
    16,
    6,
  );
  const far = divided(square(8, 5), [], [beam], { overhang: 3 });
  expect(far.areas[0] + far.lost).toBeCloseTo(40, 6);
  expect(far.lost).toBeGreaterThan(14);
  expect(divided(square(8, 5), [], []).lost).toBeCloseTo(40, 6);
});

const coordinate = fc.double({ min: -2, max: 12, noNaN: true });
const place = fc.tuple(coordinate, coordinate).map(([x, y]): Point => [x, y]);
const carriers = fc.array(
  fc.oneof(
    place.map(point),
    fc
      .tuple(place, place)
      .filter(([a, b]) => Math.hypot(a[0] - b[0], a[1] - b[1]) > 0.5)
      .map(([a, b]) => line(a, b)),
  ),
  { minLength: 1, maxLength: 40 },
);

test('whatever carries, the parts add up to the floor, and lie nearest to what takes them', () => {
  fc.assert(
    fc.property(carriers, (all) => {
      const { patches, lost, areas } = divided(square(10, 9), [], all, { overhang: Infinity });
      expect(areas.reduce((sum, area) => sum + area, 0) + lost).toBeCloseTo(90, 6);
      const away = ({ a, b }: Carrier, [x, y]: Point): number => {
        const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
        const t = Math.max(0, Math.min(1, ((x - a[0]) * dx + (y - a[1]) * dy) / (dx * dx + dy * dy || 1)));
        return Math.hypot(x - a[0] - t * dx, y - a[1] - t * dy);
      };
      for (const { carrier, centre } of patches) {
        const least = Math.min(...all.map((one) => away(one, centre)));
        // Borders are chords in cells of half a metre.
        expect(away(all[carrier], centre) - least).toBeLessThan(0.36);
      }
    }),
    { numRuns: 40 },
  );
});
