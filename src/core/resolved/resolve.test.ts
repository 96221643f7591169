import type { ElementRow } from '@/core/kinds/element';
import { plainLevel } from '@/core/model/levels';
import type { LevelRow } from '@/core/model/state';
import { resolveBuilding } from './resolve';

const level = (id: string, elevation: number, more: Partial<LevelRow> = {}): LevelRow => ({
  ...plainLevel,
  id,
  name: id,
  elevation,
  height: 3,
  ...more,
});
const common = { levelId: 'L1', source: null };
const section = { shape: 'rectangle', width: 0.2, depth: 0.2 } as const;
const wall: ElementRow = {
  ...common,
  id: 'w',
  kind: 'wall',
  shape: { start: [0, 0], end: [6, 0], thickness: 0.2, height: null, bulge: 0, outer: false },
};
const door = (id: string, wallId: string, offset: number): ElementRow => ({
  ...common,
  id,
  kind: 'opening',
  shape: { wall: wallId, use: 'door', offset, width: 1, height: 2, sill: 0 },
});
const column: ElementRow = {
  ...common,
  id: 'c',
  kind: 'column',
  shape: { position: [0, 0], rotation: 0, section, mark: '' },
};

test('heights follow from the storey; a wall may have its own, and a brace two', () => {
  const low: ElementRow = { ...wall, id: 'low', shape: { ...wall.shape, height: 1.1 } as never };
  const brace: ElementRow = {
    ...common,
    id: 'b',
    kind: 'beam',
    shape: { start: [0, 0], end: [4, 0], section, mark: '', drop: 0.1, endDrop: 2.9 },
  };
  const slab: ElementRow = {
    ...common,
    id: 's',
    kind: 'slab',
    shape: {
      outline: [
        [0, 0],
        [1, 0],
        [1, 1],
      ],
      holes: [],
      thickness: 0.2,
    },
  };
  const levels = [level('L1', 2, { buildUp: 0.12 })];
  const { columns, walls, beams, slabs, unresolved } = resolveBuilding({
    levels,
    elements: [column, wall, low, brace, slab],
  });
  expect(columns[0]).toMatchObject({ base: 2, top: 5 });
  expect(walls.map(({ base, top }) => [base, top])).toEqual([
    [2, 5],
    [2, 3.1],
  ]);
  expect([beams[0].startTop, beams[0].endTop]).toEqual([4.9, 2.1]);
  // The structure's top lies below the finish.
  expect(slabs[0].top).toBe(1.88);
  expect(unresolved).toEqual([]);
});

test('a level that repeats another has all of it, with ids of its own and openings in its own walls', () => {
  const levels = [level('L2', 3, { repeats: 'L1' }), level('L1', 0)];
  const building = resolveBuilding({ levels, elements: [wall, door('d', 'w', 2), column] });
  expect(building.storeys.map(({ level: { id } }) => id)).toEqual(['L1', 'L2']);
  expect(building.walls.map(({ id, base, openings }) => [id, base, openings.map((one) => [one.id, one.wall])])).toEqual(
    [
      ['w', 0, [['d', 'w']]],
      ['w@L2', 3, [['d@L2', 'w@L2']]],
    ],
  );
  expect(building.columns.map(({ id, elementId }) => [id, elementId])).toEqual([
    ['c', 'c'],
    ['c@L2', 'c'],
  ]);
});

test('what cannot be resolved is told and left out: no level, no wall, beyond the wall', () => {
  const lost: ElementRow = { ...column, id: 'lost', levelId: null };
  const stray: ElementRow = { ...column, id: 'stray', levelId: 'gone' };
  const elements = [wall, door('fits', 'w', 5), door('over', 'w', 5.2), door('alone', 'nowhere', 0), lost, stray];
  const building = resolveBuilding({ levels: [level('L1', 0)], elements });
  expect(building.walls[0].openings.map(({ id }) => id)).toEqual(['fits']);
  expect(building.columns).toEqual([]);
  expect(building.unresolved.map(({ rule, elements: ids }) => [rule, ids])).toEqual([
    ['noLevel', ['lost', 'stray']],
    ['beyondWall', ['over']],
    ['noWall', ['alone']],
  ]);
  expect(building.unresolved[0].message).toMatch(/^2 columns belong to no level/);
  expect(building.unresolved[1].message).toContain('ends 6.20 m from the start of a wall that is 6.00 m long');
});

test('grid lines belong to no level and to the whole building', () => {
  const grid: ElementRow = {
    id: 'g',
    levelId: null,
    source: null,
    kind: 'grid',
    shape: { label: 'A', kind: 'line', start: [0, 0], end: [0, 9] },
  };
  const { grids, unresolved } = resolveBuilding({ levels: [level('L1', 0)], elements: [grid] });
  expect([grids.length, unresolved]).toEqual([1, []]);
});
