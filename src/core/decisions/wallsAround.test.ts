import { Model } from '@/core/model/model';
import { emptyState, type DrawingRow, type ProjectState } from '@/core/model/state';
import type { ElementRow } from '@/core/kinds/element';
import { isStructural, wallsAround } from './wallsAround';

const drawing = (id: string, name: string, levelId: string): DrawingRow => ({
  id,
  name,
  fileId: id,
  fileName: `${name}.dxf`,
  revision: 1,
  levelId,
  alsoOn: [],
  discarded: false,
  setAside: false,
});
const wall = (id: string, levelId: string, from: string, x: number): ElementRow => ({
  id,
  levelId,
  source: { drawing: from, handles: [] },
  kind: 'wall',
  shape: { start: [x, 0], end: [x, 5], thickness: 0.2, height: null, bulge: 0, outer: false },
});
const level = (id: string, elevation: number, repeats: string | null = null) => ({
  id,
  name: id,
  elevation,
  height: 3,
  kind: 'floor' as const,
  buildUp: 0,
  slab: 0,
  repeats,
});
const byId = <T extends { id: string }>(rows: T[]) => Object.fromEntries(rows.map((row) => [row.id, row]));
const state: ProjectState = {
  ...emptyState,
  level: byId([level('ground', 0), level('first', 3), level('second', 6, 'first'), level('third', 9)]),
  drawing: byId([
    drawing('arch', 'Ground floor', 'ground'),
    drawing('frame', 'Ground floor structure', 'ground'),
    drawing('top', 'Third floor', 'third'),
  ]),
  element: byId([wall('a', 'ground', 'arch', 1), wall('s', 'ground', 'frame', 2), wall('f', 'first', 'arch', 3)]),
};
const model = new Model(state);
const places = (walls: readonly { start: readonly number[] }[] | null) => walls && walls.map(({ start }) => start[0]);

test('a plan is held against the structural drawings of its level, and these are not held against themselves', () => {
  expect(places(wallsAround(model, state.drawing.arch).structural)).toEqual([2]);
  expect(wallsAround(model, state.drawing.frame).structural).toBeNull();
});

test('the level below counts as what it repeats; the lowest has none below', () => {
  expect(places(wallsAround(model, state.drawing.top).below)).toEqual([3]);
  expect(wallsAround(model, state.drawing.arch).below).toBeNull();
});

test.each([
  ['Structural plan L1', true],
  ['Tragwerksplan EG', true],
  ['Schalplan', true],
  ['Ground floor', false],
  ['Infrastructure', false],
])('%s is structural: %p', (name, says) => expect(isStructural(name)).toBe(says));
