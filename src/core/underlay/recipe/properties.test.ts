import fc from 'fast-check';
import { dxf, groups, line, readText } from '@/core/drawing/testing/dxf';
import { area } from '@/core/geometry/polygon';
import type { Point } from '@/core/geometry/vector';
import { cutEndless } from '../endless';
import { flatten } from '../flatten';
import { inOneDirection } from '../hatchEdges';
import { pathCount, type Primitives } from '../primitives';
import { closeGaps } from './closeGaps';
import { findClusters, findPlans, sortClusters } from './clusters';
import { mergeDuplicates } from './duplicates';
import { mainDirections, straighten } from './straighten';

/** What clean-up may never do, whatever the lines are. */
type Side = [number, number, number, number];
const coordinate = fc.integer({ min: 0, max: 300 }).map((n) => n * 10);
const side = fc.tuple(coordinate, coordinate, coordinate, coordinate).filter(([a, b, c, d]) => a !== c || b !== d);
const sides = fc.array(side, { minLength: 1, maxLength: 40 });
const primitivesOf = (entities: string): Primitives => flatten(readText(dxf({ entities })).drawing);
const drawn = (list: readonly Side[], layer = (_: number) => 'A') =>
  primitivesOf(list.map(([a, b, c, d], i) => line(a, b, c, d, layer(i))).join(''));
const ends = (p: Primitives, path: number): [Point, Point] =>
  [0, 1].map((k): Point => [
    p.xy[2 * (p.start[path] + k)] + p.origin[0],
    p.xy[2 * (p.start[path] + k) + 1] + p.origin[1],
  ]) as [Point, Point];

test('closing gaps moves no end further than the tolerance in each of its passes, and never onto another layer', () => {
  fc.assert(
    fc.property(sides, fc.integer({ min: 1, max: 30 }), (list, tolerance) => {
      const before = drawn(list, (i) => (i % 2 ? 'A' : 'B'));
      const { primitives: after, gaps } = closeGaps(before, tolerance);
      expect(pathCount(after)).toBe(pathCount(before));
      let moved = 0;
      for (let path = 0; path < pathCount(before); path += 1)
        ends(before, path).forEach((p, k) => {
          const q = ends(after, path)[k];
          const away = Math.hypot(p[0] - q[0], p[1] - q[1]);
          if (away > 0) moved += 1;
          expect(away).toBeLessThanOrEqual(8 * tolerance + 1e-9);
        });
      expect(gaps === 0).toBe(moved === 0);
      expect([...after.layer]).toEqual([...before.layer]);
    }),
    { numRuns: 80 },
  );
});

test('straightening keeps the middle of each line, changes its length by less than a thousandth, and ends in a main direction', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 0, max: 1.5, noNaN: true }),
      fc.array(fc.double({ min: -0.29, max: 0.29, noNaN: true }), { minLength: 1, maxLength: 8 }),
      (turn, tilts) => {
        const at = (angle: number, x: number, y: number): Side => [
          x,
          y,
          x + 5000 * Math.cos(angle),
          y + 5000 * Math.sin(angle),
        ];
        const straight = Array.from({ length: 20 }, (_, i) => at(turn + (i % 2) * (Math.PI / 2), i * 700, 0));
        const tilted = tilts.map((degrees, i) => at(turn + (degrees * Math.PI) / 180, 0, 20_000 + i * 3000));
        const before = drawn([...straight, ...tilted]);
        const after = straighten(before, 0.3).primitives;
        const [direction] = mainDirections(after, 0.005);
        for (let path = 0; path < pathCount(before); path += 1) {
          const [[a, b], [c, d]] = [ends(before, path), ends(after, path)];
          expect(Math.hypot(a[0] + b[0] - c[0] - d[0], a[1] + b[1] - c[1] - d[1])).toBeLessThan(1e-6);
          expect(Math.hypot(d[0] - c[0], d[1] - c[1]) / Math.hypot(b[0] - a[0], b[1] - a[1])).toBeCloseTo(1, 3);
          const off = Math.atan2(d[1] - c[1], d[0] - c[0]) - direction;
          expect(Math.abs(Math.sin(2 * off))).toBeLessThan(2e-5);
        }
      },
    ),
    { numRuns: 40 },
  );
});

test('merging pieces of one line covers the same stretch as before, each point once', () => {
  const pieces = fc.array(fc.tuple(fc.integer({ min: 0, max: 100 }), fc.integer({ min: 1, max: 30 })), {
    minLength: 1,
    maxLength: 25,
  });
  fc.assert(
    fc.property(pieces, fc.double({ min: 0, max: 3.1, noNaN: true }), (list, angle) => {
      const [c, s] = [Math.cos(angle) * 100, Math.sin(angle) * 100];
      const before = drawn(
        list.map(([from, length]) => [from * c, from * s, (from + length) * c, (from + length) * s]),
      );
      const after = mergeDuplicates(before, 0.5).primitives;
      const covered = new Set(list.flatMap(([from, length]) => Array.from({ length }, (_, k) => from + k)));
      const found: number[] = [];
      for (let path = 0; path < pathCount(after); path += 1) {
        const [from, to] = ends(after, path)
          .map(([x, y]) => (x * c + y * s) / 1e4)
          .sort((a, b) => a - b);
        for (let k = Math.round(from) + 0; k < Math.round(to); k += 1) found.push(k);
      }
      expect(found.sort((a, b) => a - b)).toEqual([...covered].sort((a, b) => a - b));
    }),
    { numRuns: 80 },
  );
});

test('lines of another layer, another direction or beside are not merged', () => {
  const p = drawn(
    [
      [0, 0, 1000, 0],
      [500, 0, 1500, 0],
      [0, 2, 1000, 2],
      [0, 0, 1000, 3],
    ],
    (i) => (i === 1 ? 'B' : 'A'),
  );
  expect(pathCount(mergeDuplicates(p, 1).primitives)).toBe(4);
});

const room = (x: number, y: number, w = 5000, h = 6000): Side[] => [
  [x, y, x + w, y],
  [x + w, y, x + w, y + h],
  [x + w, y + h, x, y + h],
  [x, y + h, x, y],
];
const plan = (x: number, y: number): Side[] => [0, 1, 2].flatMap((i) => room(x + i * 5000, y));

describe('clusters', () => {
  test('every path and text is in one cluster, and nothing in none', () => {
    fc.assert(
      fc.property(sides, (list) => {
        const p = drawn(list);
        const paths = findClusters(p)
          .flatMap((cluster) => cluster.paths)
          .sort((a, b) => a - b);
        expect(paths).toEqual([...Array(pathCount(p)).keys()]);
      }),
      { numRuns: 40 },
    );
    expect(findClusters(primitivesOf(''))).toEqual([]);
    expect(sortClusters([])).toEqual({ weighty: [], strays: [] });
  });

  test('plans and strays are the same wherever the drawing lies', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -5_000_000, max: 5_000_000 }),
        fc.integer({ min: -5_000_000, max: 5_000_000 }),
        (x, y) => {
          const shifted = [...plan(0, 0), ...plan(40_000, 0), [900_000, 0, 900_010, 0] as Side].map(
            ([a, b, c, d]): Side => [a + x, b + y, c + x, d + y],
          );
          const p = drawn(shifted);
          expect(findPlans(p)).toHaveLength(2);
          expect(sortClusters(findClusters(p)).strays.map(({ away }) => Math.round(away))).toEqual([845_000]);
        },
      ),
      { numRuns: 25 },
    );
  });

  test('one plan alone, a plan with a note beside it, and a plan in a frame are one plan', () => {
    const note = groups([0, 'TEXT'], [8, 'T'], [10, 16_500], [20, 500], [40, 300], [1, 'North']);
    const lines = (list: Side[]) => list.map(([a, b, c, d]) => line(a, b, c, d)).join('');
    for (const entities of [
      lines(plan(0, 0)),
      lines(plan(0, 0)) + note,
      lines([...plan(0, 0), ...room(-9000, -9000, 40_000, 30_000)]),
    ])
      expect(findPlans(primitivesOf(entities))).toHaveLength(1);
  });

  test('a stray line a thousand kilometres long does not make the plan disappear', () => {
    const p = drawn([...plan(0, 0), ...plan(0, 9000), [0, 0, 1e9, 1e9]]);
    expect(findPlans(p).length).toBeGreaterThanOrEqual(1);
  });
});

test('the edges of a loop, turned at will, run on and enclose what they enclosed', () => {
  fc.assert(
    fc.property(
      fc.array(fc.tuple(fc.double({ min: 5, max: 50, noNaN: true }), fc.boolean()), { minLength: 3, maxLength: 12 }),
      (spokes) => {
        const corners = spokes.map(([radius], i): Point => {
          const angle = (i / spokes.length) * 2 * Math.PI;
          return [radius * Math.cos(angle), radius * Math.sin(angle)];
        });
        const edges = corners.map((p, i) => {
          const q = corners[(i + 1) % corners.length];
          const points = spokes[i][1] ? [q, p] : [p, q];
          return { points, bulge: 0 };
        });
        const ring = inOneDirection(edges).map(({ points }) => points[0]);
        expect(Math.abs(area(ring))).toBeCloseTo(Math.abs(area(corners)), 6);
      },
    ),
    { numRuns: 100 },
  );
});

describe('endless lines', () => {
  const owner = { layer: 0, colour: 0, kind: 20, chain: 0, pen: 0, elevation: 0, entity: 0, top: 0 };
  const content = Float64Array.of(0, 0, 100, 0, 100, 50, 0, 50, 50, 25, 20, 10);
  const cut = (a: Point, b: Point, both: boolean) =>
    cutEndless([{ line: [a, b], both, owner }], content).map(({ from, to }) => [from, to]);

  test('are cut a tenth beyond the content: level, upright and sloping', () => {
    expect(cut([50, 20], [51, 20], true)).toEqual([
      [
        [-10, 20],
        [110, 20],
      ],
    ]);
    expect(cut([30, 0], [30, 1], true)).toEqual([
      [
        [30, -10],
        [30, 60],
      ],
    ]);
    expect(cut([0, 0], [1, 1], true)).toEqual([
      [
        [-10, -10],
        [60, 60],
      ],
    ]);
  });

  test('rays begin where they begin, and what passes the content by is not drawn', () => {
    expect(cut([50, 20], [51, 20], false)).toEqual([
      [
        [50, 20],
        [110, 20],
      ],
    ]);
    expect(cut([50, 20], [49, 20], false)).toEqual([
      [
        [50, 20],
        [-10, 20],
      ],
    ]);
    expect(cut([0, 500], [1, 500], true)).toEqual([]);
    expect(cut([500, 20], [501, 20], false)).toEqual([]);
  });
});
