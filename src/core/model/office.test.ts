import { parseSettings } from '@/cli/settings';
import { officeRecipes, officeRoles, officeSettings } from './office';
import { emptyState, type PlacementRow, type ProjectState } from './state';

const drawings = ['00000000-0000-4000-8000-000000000001', '00000000-0000-4000-8000-000000000002'];
const role = (drawing: number, layer: string, of: 'wall' | 'column' | null) => ({
  id: `${drawings[drawing]}/${layer}`,
  drawingId: drawings[drawing],
  layer,
  role: of,
  suggested: false,
  shown: true,
  libraryId: null,
});
const placement = (drawing: number, unit: PlacementRow['unit'], confirmed = true): PlacementRow => ({
  id: drawings[drawing],
  unit,
  scale: 1,
  confirmed,
  origin: [0, 0],
  target: [0, 0],
  turning: 0,
  mirrored: false,
  upright: null,
});
const byId = <T extends { id: string }>(rows: T[]): Record<string, T> =>
  Object.fromEntries(rows.map((row) => [row.id, row]));
const strays = (id: string) => ({ id, on: true, step: { kind: 'strays' as const } });
const region = {
  id: 'r',
  on: true,
  step: {
    kind: 'region' as const,
    keep: 'inside' as const,
    polygon: [
      [0, 0],
      [1, 0],
      [1, 1],
    ] as [number, number][],
  },
};

const state = (own: Partial<ProjectState>): ProjectState => ({ ...emptyState, ...own });

test('the roles of several drawings are one map, and the first that speaks of a layer counts', () => {
  const map = officeRoles(
    state({
      role: byId([
        role(0, 'A-WALL', 'wall'),
        role(1, 'A-WALL', 'column'),
        role(1, 'S-COL', 'column'),
        role(1, 'X', null),
      ]),
    }),
    'Marram',
  );
  expect(map).toMatchObject({ name: 'Marram', firstNumber: null });
  expect(map?.rules).toEqual([
    { pattern: 'A-WALL', role: 'wall', of: 'layer' },
    { pattern: 'S-COL', role: 'column', of: 'layer' },
  ]);
  expect(officeRoles(state({ role: byId([role(0, 'X', null)]) }), 'Marram')).toBeNull();
});

test('the settings for the command line are those that it reads', () => {
  const settings = officeSettings(
    state({
      role: byId([role(0, 'A-WALL', 'wall')]),
      placement: byId([placement(0, 'cm'), placement(1, 'mm', false)]),
      level: {
        a: {
          id: 'a',
          name: 'Cellar',
          elevation: -3,
          height: 2.5,
          kind: 'foundation',
          buildUp: 0,
          slab: 0,
          repeats: null,
        },
        b: { id: 'b', name: 'Street', elevation: 0.2, height: 3.5, kind: 'ground', buildUp: 0, slab: 0, repeats: null },
      },
    }),
  );
  const read = parseSettings(JSON.stringify(settings));
  expect(read).toMatchObject({
    ok: true,
    value: {
      unit: 'cm',
      level: { name: 'Street', elevation: 0.2, height: 3.5 },
      roles: { 'A-WALL': 'wall' },
      recipe: [],
    },
  });
  expect(officeSettings(emptyState)).toMatchObject({ unit: 'auto', roles: 'auto' });
});

test('recipes that do the same are one, and what is a place in one drawing stays there', () => {
  const recipes = officeRecipes(
    state({
      recipe: {
        a: { id: 'a', steps: [strays('1'), region] },
        b: { id: 'b', steps: [strays('2')] },
        c: { id: 'c', steps: [strays('3'), strays('4')] },
        d: { id: 'd', steps: [region] },
      },
    }),
    'Marram',
  );
  expect(recipes.map(({ name, steps }) => [name, steps.length])).toEqual([
    ['Marram', 1],
    ['Marram 2', 2],
  ]);
});
