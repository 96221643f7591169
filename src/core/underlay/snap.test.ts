import fc from 'fast-check';
import { dxf, groups, line, readText } from '@/core/drawing/testing/dxf';
import type { Point } from '@/core/geometry/vector';
import { mainContent } from './mainContent';
import { flatten } from './flatten';
import { buildIndex, openIndex } from './pieces';
import { buildSegments, visibleSegments } from './segments';
import { snapsNear } from './snap';

function opened(entities: string) {
  const { drawing } = readText(dxf({ entities }));
  const primitives = flatten(drawing);
  const index = openIndex(buildIndex(primitives));
  const names = drawing.layers.map((layer) => layer.name);
  const near = (at: Point, reach: number, shown = (_: number) => true) =>
    snapsNear(primitives, index, names, [at[0] - primitives.origin[0], at[1] - primitives.origin[1]], reach, shown).map(
      (snap) => ({
        kind: snap.kind,
        words: snap.words,
        at: [snap.point[0] + primitives.origin[0], snap.point[1] + primitives.origin[1]],
      }),
    );
  return { drawing, primitives, near };
}

const circle = (x: number, y: number, r: number, layer: string) =>
  groups([0, 'CIRCLE'], [8, layer], [10, x], [20, y], [40, r]);

test('it holds on to ends, crossings, middles and centres, and says so in words', () => {
  const { near } = opened(line(0, 0, 10, 0, 'A-WALL') + line(4, -5, 4, 5, 'A-GRID') + circle(30, 30, 3, 'A-COLS'));
  expect(near([0.2, 0.1], 1)[0]).toEqual({ kind: 'end', words: 'end of line on A-WALL', at: [0, 0] });
  const crossing = near([4.1, 0.1], 0.5)[0];
  expect([crossing.kind, crossing.words]).toEqual(['crossing', 'crossing of A-WALL and A-GRID']);
  expect(crossing.at).toEqual([4, 0]);
  expect(near([5.1, 0.05], 0.5)[0]).toMatchObject({ kind: 'middle', at: [5, 0] });
  expect(near([30.1, 30], 0.5)[0]).toMatchObject({ kind: 'centre', words: 'centre of circle on A-COLS' });
  expect(near([7.3, 0.2], 0.5)[0]).toMatchObject({ kind: 'nearest' });
  expect(near([20, 20], 1)).toEqual([]);
});

test('a line crosses a circle at both of its points and an arc only where it is', () => {
  const { near } = opened(
    circle(0, 0, 5, 'C') +
      line(-10, 3, 10, 3, 'L') +
      groups([0, 'ARC'], [8, 'R'], [10, 50], [20, 0], [40, 5], [50, 0], [51, 90]) +
      line(40, 3, 60, 3, 'L'),
  );
  expect(
    near([4, 3], 0.3)
      .find((snap) => snap.kind === 'crossing')!
      .at.map((v) => Number(v.toFixed(9))),
  ).toEqual([4, 3]);
  expect(near([-4, 3], 0.3).some((snap) => snap.kind === 'crossing')).toBe(true);
  expect(near([54, 3], 0.3).some((snap) => snap.kind === 'crossing')).toBe(true);
  expect(near([46, 3], 0.3).some((snap) => snap.kind === 'crossing')).toBe(false);
});

test('hidden layers are not held on to', () => {
  const { near, drawing } = opened(line(0, 0, 10, 0, 'A') + line(0, 0.1, 10, 0.1, 'B'));
  const hidden = drawing.layers.findIndex((layer) => layer.name === 'A');
  expect(near([0, 0], 0.5, (layer) => layer !== hidden).every((snap) => snap.words.includes('B'))).toBe(true);
});

test('of all ends in reach none is missed: the same as looking at every line', () => {
  const coordinate = fc.integer({ min: -500, max: 500 });
  fc.assert(
    fc.property(
      fc.array(fc.tuple(coordinate, coordinate, coordinate, coordinate), { minLength: 1, maxLength: 60 }),
      coordinate,
      coordinate,
      (sides, x, y) => {
        const { near } = opened(sides.map(([a, b, c, d]) => line(a, b, c, d)).join(''));
        const least = Math.min(
          ...sides.flatMap(([a, b, c, d]) => [Math.hypot(a - x, b - y), Math.hypot(c - x, d - y)]),
        );
        fc.pre(least < 40);
        const best = near([x, y], 41).filter((snap) => snap.kind === 'end');
        expect(best.length === 0 ? near([x, y], 41).length : 1).toBeGreaterThan(0);
        if (best.length > 0)
          expect(Math.min(...best.map((snap) => Math.hypot(snap.at[0] - x, snap.at[1] - y)))).toBeCloseTo(least, 6);
      },
    ),
    { numRuns: 60 },
  );
});

test('all segments in view are drawn when they are large, a share when they are specks, none out of view or hidden', () => {
  const entities =
    Array.from({ length: 400 }, (_, i) =>
      line((i % 20) * 10, Math.floor(i / 20) * 10, (i % 20) * 10 + 1, Math.floor(i / 20) * 10, i % 2 ? 'A' : 'B'),
    ).join('') + line(0, 0, 200, 200, 'A');
  const { primitives, drawing } = opened(entities);
  const store = buildSegments(primitives);
  const out = new Uint32Array(store.layer.length * 2);
  const none = new Uint8Array(drawing.layers.length);
  const all: [number, number, number, number] = [-1e4, -1e4, 1e4, 1e4];
  expect(visibleSegments(store, all, 0.1, none, out)).toBe(802);
  expect(new Set(out.subarray(0, 802)).size).toBe(802);
  const far = visibleSegments(store, all, 10, none, out) / 2;
  expect(far).toBeLessThan(200);
  expect(far).toBeGreaterThan(40);
  expect(visibleSegments(store, [5000, 5000, 6000, 6000], 0.1, none, out)).toBe(0);
  const hidden = Uint8Array.from(drawing.layers, (layer) => (layer.name === 'B' ? 1 : 0));
  expect(visibleSegments(store, all, 0.1, hidden, out)).toBe(402);
});

test('the main content leaves strays out', () => {
  const { primitives } = opened(
    Array.from({ length: 50 }, (_, i) => line(i, 0, i, 20)).join('') +
      groups([0, 'POINT'], [8, '0'], [10, 1e6], [20, -1e6]),
  );
  expect(mainContent(primitives)).toEqual([
    [0, 0],
    [49, 20],
  ]);
});
