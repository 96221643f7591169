import { modelWith } from '@/core/handover/testing/modelWith';
import { area } from '@/core/geometry/polygon';
import type { Point } from '@/core/geometry/vector';
import type { ReadModel } from '@/core/handover/model/readModel';
import { sectionSheet, sectionsOf } from './section';
import { stackSheet } from './stack';
import { builtOf, cutThrough, facesFrom, type Face } from './upright';

const box = (x: number, y: number, w: number, d: number): Point[] => [
  [x, y],
  [x + w, y],
  [x + w, y + d],
  [x, y + d],
];
const wall = (id: string, start: Point, end: Point, more: object = {}) => ({
  id,
  level: 'L',
  start,
  end,
  thickness: 0.4,
  height: 3,
  ...more,
});

/** A room of 10 by 6 m within walls of 0.4 m, a window to south, a slab of 0.2 m, a roof that rises to north. */
function modelOf(more: object = {}): ReadModel {
  return modelWith({
    levels: [{ id: 'L', name: 'Ground', elevation: 0, height: 3 }],
    grids: [
      { id: 'g1', label: '1', kind: 'line', start: [2, -2], end: [2, 8] },
      { id: 'g2', label: '2', kind: 'line', start: [8, -2], end: [8, 8] },
    ],
    walls: [
      wall('S', [0, -0.2], [10, -0.2]),
      wall('E', [10.2, -0.4], [10.2, 6.4]),
      wall('N', [10, 6.2], [0, 6.2]),
      wall('W', [-0.2, 6.4], [-0.2, -0.4]),
    ],
    openings: [{ id: 'o', wall: 'S', kind: 'window', offset: 2, width: 1.5, height: 1.2, sill: 0.9 }],
    columns: [{ id: 'c', level: 'L', position: [5, 3], section: { shape: 'rectangle', width: 0.3, depth: 0.5 } }],
    beams: [
      {
        id: 'b',
        level: 'L',
        start: [0, 3, 3],
        end: [10, 3, 3],
        section: { shape: 'rectangle', width: 0.3, depth: 0.5 },
      },
    ],
    slabs: [{ id: 's', level: 'L', outline: box(-0.4, -0.4, 10.8, 6.8), holes: [box(6, 1, 2, 2)], thickness: 0.2 }],
    zones: [{ id: 'z', level: 'L', outline: box(0, 0, 10, 6), height: 3 }],
    roofs: [
      {
        id: 'r',
        level: 'L',
        outline: [
          [-1, -1, 3],
          [11, -1, 3],
          [11, 7, 7],
          [-1, 7, 7],
        ],
        slope: (Math.atan(0.5) * 180) / Math.PI,
        direction: 90,
        thickness: 0.3,
      },
    ],
    ...more,
  });
}

const of = (faces: readonly Face[], kind: Face['kind'], cut: boolean): Point[][] =>
  faces.filter((face) => face.kind === kind && (face.behind === 0) === cut).map(({ ring }) => ring);
const extent = (ring: readonly Point[]): number[] => [
  Math.min(...ring.map(([x]) => x)),
  Math.min(...ring.map(([, y]) => y)),
  Math.max(...ring.map(([x]) => x)),
  Math.max(...ring.map(([, y]) => y)),
];
const close = (values: number[]) => values.map((value) => expect.closeTo(value, 9) as number);

test('a cut across goes through the wall beneath and above its window, through the slab, and along the roof', () => {
  // At x = 2.7, through the window from 2 to 3.5, northward: what is east is behind and to the right.
  const faces = facesFrom(builtOf(modelOf()), { from: [2.7, 0], along: [0, 1] });
  const walls = of(faces, 'wall', true).map(extent);
  expect(walls).toEqual([close([-0.4, 0, 0, 0.9]), close([-0.4, 2.1, 0, 3]), close([6, 0, 6.4, 3])]);
  const [slab, roof] = of(faces, 'slab', true);
  expect(extent(slab)).toEqual(close([-0.4, -0.2, 6.4, 0]));
  // The roof rises from 3 m at y = -1 by a half; upright it is its thickness over the cosine of its slope.
  expect(roof).toEqual([
    close([-1, 3]),
    close([7, 7]),
    close([7, 7 + 0.3 * Math.hypot(1, 0.5)]),
    close([-1, 3 + 0.3 * Math.hypot(1, 0.5)]),
  ]);
  expect(of(faces, 'beam', true).map(extent)).toEqual([close([2.85, 2.5, 3.15, 3])]);
});

test('a cut through a hole leaves it open, and what is to the right of its way is not seen', () => {
  const model = modelOf({ roofs: [] });
  const faces = facesFrom(builtOf(model), { from: [0, 2], along: [1, 0] });
  expect(of(faces, 'slab', true).map(extent)).toEqual([close([-0.4, -0.2, 6, 0]), close([8, -0.2, 10.4, 0])]);
  // Looking to north: the column and the north wall; the south wall with its window is behind one's back.
  expect(of(faces, 'column', false).map(extent)).toEqual([close([4.85, 0, 5.15, 3])]);
  expect(of(faces, 'opening', false)).toEqual([]);
  const south = facesFrom(builtOf(model), { from: [0, 2], along: [-1, 0] });
  expect(of(south, 'opening', false).map(extent)).toEqual([close([-3.5, 0.9, -2, 2.1])]);
  // Farther things are drawn first.
  const depths = south.filter(({ behind }) => behind > 0).map(({ behind }) => behind);
  expect(depths).toEqual([...depths].sort((a, b) => b - a));
});

test('the cut that a building has by itself is inside it and keeps off walls and columns', () => {
  const cut = cutThrough(builtOf(modelOf()), [1, 0])!;
  expect(cut.from[1]).toBeGreaterThan(0);
  expect(cut.from[1]).toBeLessThan(6);
  // Only the two walls across its way, of 0.4 m each, and no column.
  const cutWalls = of(facesFrom(builtOf(modelOf()), cut), 'wall', true);
  expect(cutWalls.reduce((sum, ring) => sum + Math.abs(area(ring)), 0)).toBeCloseTo(2 * 0.4 * 3, 9);
  expect(of(facesFrom(builtOf(modelOf()), cut), 'column', true)).toEqual([]);
  expect(cutThrough(builtOf(modelOf({ zones: [], slabs: [] })), [1, 0])).toBeNull();
});

test('sections and storeys are at the scale of their sheet', () => {
  const model = modelOf({
    levels: [
      { id: 'L', name: 'Ground', elevation: 0, height: 3 },
      { id: 'M', name: 'Upper', elevation: 3, height: 3 },
    ],
  });
  const wish = { project: 'Test', date: '2026-11-27', paper: 'A3', scale: 50 } as const;
  const sections = sectionsOf(builtOf(model));
  expect(sections.map(({ name }) => name)).toEqual(['A', 'B']);
  const { marks } = sectionSheet(builtOf(model), sections[1], wish);
  const texts = marks.flatMap((mark) => (mark.kind === 'text' ? [mark.text] : []));
  expect(texts).toEqual(
    expect.arrayContaining(['Section B', 'Ground +0.000 m', 'Upper +3.000 m', '1', '2', '1:50 on A3']),
  );
  // Grid lines 6 m apart are 120 mm apart at 1:50.
  const bubbles = marks.flatMap((mark) => (mark.kind === 'circle' ? [mark.at[0]] : []));
  expect(Math.abs(bubbles[1] - bubbles[0])).toBeCloseTo(120, 6);
  const stack = stackSheet(model, { ...wish, paper: 'A2', scale: 100 });
  const slab = stack.marks.find((mark) => mark.kind === 'area' && mark.rings.length === 2);
  const [outline] = slab?.kind === 'area' ? slab.rings : [[]];
  expect(Math.hypot(outline[1][0] - outline[0][0], outline[1][1] - outline[0][1])).toBeCloseTo(108, 6);
});
