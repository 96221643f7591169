import * as fc from 'fast-check';
import type { Point } from '@/core/geometry/vector';
import type { ElementOf, ElementRow } from '@/core/kinds/element';
import { plainLevel } from '@/core/model/levels';
import { resolveBuilding } from '@/core/resolved/resolve';
import { bodiesOf, type Bodies, type BodyPart } from './bodies';
import { boxesOf, firstMet, meansRather, type Ray } from './ray';

const levels = [{ ...plainLevel, id: 'L1', name: 'Ground', elevation: 1, height: 3 }];
const common = { levelId: 'L1', source: null };
const rectangle = (width: number, depth: number): Point[] => [
  [0, 0],
  [width, 0],
  [width, depth],
  [0, depth],
];
const wall = (more: Partial<ElementOf<'wall'>['shape']> = {}): ElementRow => ({
  ...common,
  id: 'w',
  kind: 'wall',
  shape: { start: [0, 0], end: [6, 0], thickness: 0.2, height: null, bulge: 0, outer: false, ...more },
});
const opening = (offset: number, sill: number, height: number): ElementRow => ({
  ...common,
  id: `o${offset}`,
  kind: 'opening',
  shape: { wall: 'w', use: 'window', offset, width: 1, height, sill },
});
const beam = (more: Partial<ElementOf<'beam'>['shape']> = {}): ElementRow => ({
  ...common,
  id: 'b',
  kind: 'beam',
  shape: { start: [0, 0], end: [3, 4], section: { shape: 'rectangle', width: 0.3, depth: 0.5 }, mark: '', ...more },
});

const bodies = (...elements: ElementRow[]): Bodies => bodiesOf(resolveBuilding({ levels, elements }));
const partOf = ({ parts }: Bodies, kind: BodyPart['kind']): BodyPart => parts.find((part) => part.kind === kind)!;

/** The volume inside triangles that look outward: the sum of the tetrahedra to the origin (divergence theorem). */
function volume({ triangles: t }: BodyPart): number {
  let sum = 0;
  for (let i = 0; i < t.length; i += 9) {
    const [ax, ay, az, bx, by, bz, cx, cy, cz] = t.subarray(i, i + 9);
    sum += ax * (by * cz - bz * cy) - ay * (bx * cz - bz * cx) + az * (bx * cy - by * cx);
  }
  return sum / 6;
}

/** The sum of areas times normals: zero where a body is closed. */
function openness({ triangles: t }: BodyPart): number {
  const sum = [0, 0, 0];
  for (let i = 0; i < t.length; i += 9) {
    const [u, v] = [3, 6].map((k) => [t[i + k] - t[i], t[i + k + 1] - t[i + 1], t[i + k + 2] - t[i + 2]]);
    sum[0] += u[1] * v[2] - u[2] * v[1];
    sum[1] += u[2] * v[0] - u[0] * v[2];
    sum[2] += u[0] * v[1] - u[1] * v[0];
  }
  return Math.hypot(...sum);
}

test('bodies are as large as what they are of, and closed', () => {
  // A wall of 6 m x 0.2 m x 3 m with a window of 1 m x 1.2 m and a door of 1 m x 2.1 m.
  const pierced = partOf(bodies(wall(), opening(1, 0.9, 1.2), opening(4, 0, 2.1)), 'wall');
  expect(volume(pierced)).toBeCloseTo(6 * 0.2 * 3 - 0.2 * (1.2 + 2.1), 5);
  expect(openness(pierced)).toBeCloseTo(0, 5);
  // Two openings over one another.
  const stacked = partOf(bodies(wall(), opening(1, 0, 1), opening(1.5, 1.5, 1)), 'wall');
  expect(volume(stacked)).toBeCloseTo(6 * 0.2 * 3 - 0.2 * 2, 5);
  // A beam of 5 m in plan that falls by 0.5 m: its section stands square to it.
  const inclined = partOf(bodies(beam({ endDrop: 0.5 })), 'beam');
  expect(volume(inclined)).toBeCloseTo(0.3 * 0.5 * Math.hypot(5, 0.5), 5);
  expect(openness(inclined)).toBeCloseTo(0, 5);
  const hollow: ElementRow = {
    ...common,
    id: 'c',
    kind: 'column',
    shape: {
      position: [2, 2],
      rotation: 30,
      section: { shape: 'rectangle', width: 0.3, depth: 0.2, wall: 0.01 },
      mark: '',
    },
  };
  expect(volume(partOf(bodies(hollow), 'column'))).toBeCloseTo(3 * (0.3 * 0.2 - 0.28 * 0.18), 5);
  const slab: ElementRow = {
    ...common,
    id: 's',
    kind: 'slab',
    shape: {
      outline: rectangle(6, 4),
      holes: [rectangle(1, 1).map(([x, y]): Point => [x + 2, y + 2])],
      thickness: 0.25,
    },
  };
  expect(volume(partOf(bodies(slab), 'slab'))).toBeCloseTo(0.25 * (24 - 1), 5);
  // 30 degrees over 24 m2: what is 0.2 m thick square to the slope is thicker upright.
  const roof: ElementRow = {
    ...common,
    id: 'r',
    kind: 'roof',
    shape: { outline: rectangle(6, 4), eaves: 2.5, slope: 30, direction: 0, thickness: 0.2 },
  };
  expect(volume(partOf(bodies(roof), 'roof'))).toBeCloseTo((24 * 0.2) / Math.cos(Math.PI / 6), 4);
});

test('a bent wall with a window is closed and follows its arc', () => {
  // A half circle of radius 3 m: pi * 3 long along its axis.
  const bent = partOf(bodies(wall({ bulge: 1 }), opening(4, 1, 1)), 'wall');
  expect(openness(bent)).toBeCloseTo(0, 4);
  expect(volume(bent)).toBeCloseTo(0.2 * (Math.PI * 3 * 3 - 1), 2);
});

test('whatever the openings, a wall loses what they take', () => {
  const one = fc.record({
    offset: fc.double({ min: 0, max: 5, noNaN: true }),
    sill: fc.double({ min: 0, max: 1.5, noNaN: true }),
    height: fc.double({ min: 0.1, max: 1.5, noNaN: true }),
  });
  fc.assert(
    fc.property(one, fc.integer({ min: -9, max: 9 }), ({ offset, sill, height }, tenths) => {
      const body = partOf(bodies(wall({ bulge: tenths / 10 }), opening(offset, sill, height)), 'wall');
      expect(openness(body)).toBeLessThan(1e-3);
    }),
    { numRuns: 60 },
  );
});

test('members hang below their line, and their sections turn with their angle', () => {
  const extent = (part: BodyPart) => boxesOf(part);
  // The line lies at the storey's top, 4 m: the body from 3.5 m to 4 m.
  const [, , low, , , high] = extent(partOf(bodies(beam()), 'beam'));
  expect([low, high]).toEqual([3.5, 4].map((z) => expect.closeTo(z, 5)));
  // Turned by 90 degrees about its own axis, which is the line: 0.5 m to the side.
  const along = beam({ end: [3, 0], angle: 90 });
  const [, minY, minZ, , maxY, maxZ] = extent(partOf(bodies(along), 'beam'));
  expect([maxY - minY, maxZ - minZ]).toEqual([expect.closeTo(0.5, 5), expect.closeTo(0.3, 5)]);
  // Upright: no plan length, 1 m of height.
  const upright = beam({ end: [0, 0], drop: 0, endDrop: 1 });
  expect(volume(partOf(bodies(upright), 'beam'))).toBeCloseTo(0.3 * 0.5 * 1, 5);
});

test('a ray meets the first body below the cut', () => {
  const { parts } = bodies(wall(), beam({ start: [3, -2], end: [3, 2] }));
  const ray: Ray = { from: [3, 0, 100], along: [0, 0, -1] };
  const met = (cut: number) =>
    parts
      .flatMap((part) => firstMet(part, boxesOf(part), ray, cut) ?? [])
      .sort((a, b) => a.at - b.at)
      .map(({ elementId, at }) => [elementId, 100 - at]);
  // Both reach up to 4 m; below 3.2 m only the wall is left, cut: its faces are open there and its foot is met.
  expect(
    met(Infinity)
      .map(([id]) => id)
      .sort(),
  ).toEqual(['b', 'w']);
  expect(met(Infinity)[0][1]).toBeCloseTo(4, 5);
  expect(met(3.2)).toEqual([['w', expect.closeTo(1, 5)]]);
  expect(
    parts.flatMap((part) => firstMet(part, boxesOf(part), { from: [9, 9, 9], along: [0, 0, -1] }, 99) ?? []),
  ).toEqual([]);
});

test('of two that end flush with one another a click means the slighter one, else the nearer one', () => {
  const column = { elementId: 'c', kind: 'column', at: 10.0005 } as const;
  const wallAt = (at: number) => ({ elementId: 'w', kind: 'wall', at }) as const;
  expect([meansRather(column, wallAt(10)), meansRather(wallAt(10), column)]).toEqual([true, false]);
  expect([meansRather(column, wallAt(9.9)), meansRather(wallAt(9.9), column)]).toEqual([false, true]);
});

test('a building far from zero keeps its last digit', () => {
  const [x, y] = [400_000, 5_800_000];
  const far = wall({ start: [x, y], end: [x + 6.001, y] });
  const { origin, parts } = bodies(far);
  const [minX, , , maxX] = boxesOf(partOf({ origin, parts, box: null }, 'wall'));
  expect(origin).toEqual([x, y, 0]);
  expect(maxX - minX).toBeCloseTo(6.001, 5);
});
