import type { Point } from '@/core/geometry/vector';
import type { ElementOf, ElementRow } from '@/core/kinds/element';
import type { StandingTies } from '@/core/kinds/tie';
import { plainLevel } from '@/core/model/levels';
import type { LevelRow } from '@/core/model/state';
import { roofsToRidge } from '@/core/tracing/making/roofs';
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
const rectangle = (width: number, depth: number): Point[] => [
  [0, 0],
  [width, 0],
  [width, depth],
  [0, depth],
];
/** A house of 12 by 8 m, ridge along x at y = 4; eaves at 3 m, 45 degrees: the ridge lies at 7 m. */
const made = roofsToRidge(rectangle(12, 8), { outline: [], eaves: 3, slope: 45, direction: 0, thickness: 0.2 });
const roofs: ElementRow[] = made.ok
  ? made.value.map((shape, i): ElementOf<'roof'> => ({ ...common, id: `r${i}`, kind: 'roof', shape }))
  : [];
const wall = (id: string, start: Point, end: Point, ties: StandingTies): ElementRow => ({
  ...common,
  id,
  kind: 'wall',
  shape: { start, end, thickness: 0.2, height: null, bulge: 0, outer: true, ties },
});
const column = (id: string, position: Point, ties: StandingTies): ElementRow => ({
  ...common,
  id,
  kind: 'column',
  shape: { position, rotation: 0, section: { shape: 'circle', diameter: 0.3 }, mark: '', ties },
});
const zone = (outline: Point[]): ElementRow => ({
  ...common,
  id: 'z',
  kind: 'zone',
  shape: { name: '', number: '', outline, holes: [], height: null, ties: { top: 'roof' } },
});
const under: StandingTies = { top: 'roof' };
const close = (value: number) => Number(value.toFixed(9)) + 0;

describe('under a roof', () => {
  const levels = [level('L1', 10)];

  test('a gable wall rises to the ridge and falls again; one along the eaves is level', () => {
    const { walls, unresolved } = resolveBuilding({
      levels,
      elements: [...roofs, wall('gable', [6, 0], [6, 8], under), wall('eaves', [0, 1], [12, 1], under)],
    });
    const [gable, eaves] = walls;
    expect(gable.profile?.map((p) => p.map(close))).toEqual([
      [0, 13],
      [4, 17],
      [8, 13],
    ]);
    expect([gable.top, eaves.top].map(close)).toEqual([17, 14]);
    expect(eaves.profile?.map((p) => p.map(close))).toEqual([
      [0, 14],
      [12, 14],
    ]);
    expect(unresolved).toEqual([]);
  });

  test('walls and columns on the very edge of a plane are under it, on all four sides', () => {
    const corners = rectangle(12, 8);
    const elements = [
      ...roofs,
      ...corners.map((p, i) => wall(`w${i}`, p, corners[(i + 1) % 4], under)),
      ...corners.map((p, i) => column(`c${i}`, p, under)),
    ];
    const { walls, columns, unresolved } = resolveBuilding({ levels, elements });
    expect(unresolved).toEqual([]);
    expect(walls.map(({ top }) => close(top))).toEqual([13, 17, 13, 17]);
    expect(columns.map(({ top }) => close(top))).toEqual([13, 13, 13, 13]);
  });

  test('a wall that runs out from under it has its storey\u2019s top beyond', () => {
    const { walls } = resolveBuilding({ levels, elements: [...roofs, wall('w', [6, 2], [6, 10], under)] });
    expect(walls[0].profile?.map((p) => p.map(close))).toEqual([
      [0, 15],
      [2, 17],
      [6, 13],
      [8, 13],
    ]);
  });

  test('a wall that only passes under it is not told; of walls beside it all are told at once, and kept', () => {
    const elements = [
      ...roofs,
      wall('through', [6, -3], [6, 12], under),
      wall('b1', [20, 0], [20, 5], under),
      wall('b2', [22, 0], [22, 5], under),
    ];
    const { walls, unresolved } = resolveBuilding({ levels, elements });
    expect(walls).toHaveLength(3);
    expect(unresolved).toMatchObject([{ rule: 'noRoof', elements: ['b1', 'b2'], kept: true }]);
    expect(unresolved[0].message).toMatch(/^No roof plane covers 2 walls .* Draw it/);
  });

  test('a column ends at the plane over it, and where there is none that is told', () => {
    const { columns, unresolved } = resolveBuilding({
      levels,
      elements: [...roofs, column('in', [3, 2], under), column('out', [30, 2], under)],
    });
    expect(columns.map(({ top }) => close(top))).toEqual([15, 13]);
    expect(unresolved).toMatchObject([{ rule: 'noRoof', elements: ['out'] }]);
  });

  test('a room holds what lies below the planes: half a prism over each', () => {
    const { zones } = resolveBuilding({ levels, elements: [...roofs, zone(rectangle(12, 8))] });
    // 3 m of upright walls over 96 m2, and a prism of 12 m by half of 8 by 4.
    expect(close(zones[0].underRoofs!.volume)).toBe(96 * 3 + 12 * 16);
    expect([close(zones[0].underRoofs!.covered), zones[0].underRoofs!.roofs.sort()]).toEqual([96, ['r0', 'r1']]);
    const half = resolveBuilding({ levels, elements: [...roofs, zone(rectangle(6, 8))] }).zones[0];
    expect(close(half.underRoofs!.volume)).toBe((96 * 3 + 12 * 16) / 2);
  });
});

describe('ends tied to levels', () => {
  const levels = [level('L1', 0), level('L2', 3), level('L3', 6, { repeats: 'L1' }), level('L4', 9)];
  const tied = column('c', [0, 0], { base: { level: 'L1', offset: -0.5 }, top: { level: 'L2', offset: 0.25 } });
  const brace: ElementRow = {
    ...common,
    id: 'b',
    kind: 'beam',
    shape: {
      start: [0, 0],
      end: [4, 0],
      section: { shape: 'circle', diameter: 0.1 },
      mark: '',
      ties: { start: { level: 'L1', offset: 0 }, end: { level: 'L2', offset: -0.1 } },
    },
  };

  test('lie where their level says, and follow it; a storey that repeats another has them as many storeys up', () => {
    const at = (second: number) => {
      const moved = levels.map((one) => (one.id === 'L2' ? { ...one, elevation: second } : one));
      return resolveBuilding({ levels: moved, elements: [tied, brace] });
    };
    expect(at(3).columns.map(({ base, top }) => [base, top])).toEqual([
      [-0.5, 3.25],
      [5.5, 9.25],
    ]);
    expect(at(3.4).columns[0].top).toBeCloseTo(3.65, 12);
    expect(at(3).beams.map(({ startTop, endTop }) => [startTop, close(endTop)])).toEqual([
      [0, 2.9],
      [6, 8.9],
    ]);
  });

  test('to a level that is not there are told, and lie as their own level has it', () => {
    const lost = column('c', [0, 0], { top: { level: 'gone', offset: 0 } });
    const { columns, unresolved } = resolveBuilding({ levels: [level('L1', 0)], elements: [lost] });
    expect(columns[0].top).toBe(3);
    expect(unresolved).toMatchObject([{ rule: 'noTie', elements: ['c'] }]);
  });
});
