import { asDrawn } from '@/core/datum/placement';
import { block, dxf, groups, insert, line, readText } from '@/core/drawing/testing/dxf';
import type { LibraryRow } from '@/core/model/library';
import type { Role } from '@/core/sorting/roles';
import { flatten } from '@/core/underlay/flatten';
import type { ColumnCandidate, WallCandidate } from './candidate';
import { read, readStages } from './read';
import { Scene, type PickedRoles } from './scene';
import { defaultSettings, toleranceFor, type ReadingSettings } from '@/core/patterns/settings';

const roles: Record<string, Role> = { G: 'grid', C: 'column', W: 'wall' };
const handle = (text: string): [number, string] => [5, text];
const box = (x: number, y: number, w: number, d: number, layer: string, own: string) =>
  groups(
    [0, 'LWPOLYLINE'],
    handle(own),
    [8, layer],
    [90, 4],
    [70, 1],
    [10, x],
    [20, y],
    [10, x + w],
    [20, y],
    [10, x + w],
    [20, y + d],
    [10, x],
    [20, y + d],
  );
const wall = (layer: string, y: number, thickness: number) =>
  line(0, y, 6, y, layer) + line(0, y + thickness, 6, y + thickness, layer);

function sceneOf(entities: string, picked?: PickedRoles, blocks = '') {
  const { drawing } = readText(dxf({ blocks, entities }));
  return new Scene(
    drawing,
    flatten(drawing),
    asDrawn('m'),
    drawing.layers.map(({ name }) => roles[name] ?? null),
    picked,
  );
}
const withExact = (exact: Partial<ReadingSettings['exact']>): ReadingSettings => ({
  ...defaultSettings,
  exact: { ...defaultSettings.exact, ...exact },
});
const columnsIn = (scene: Scene, settings = defaultSettings) =>
  read({ scene, settings, tolerance: toleranceFor('m', settings) }).candidates.filter(
    (c): c is ColumnCandidate => c.kind === 'column',
  );

test('left between two stages a reading gives what it has, and says what it had not come to', () => {
  const reading = readStages({
    scene: sceneOf(box(0, 0, 0.4, 0.4, 'C', 'A1') + wall('W', 5, 0.2)),
    tolerance: toleranceFor('m'),
  });
  const heard: string[] = [];
  for (let step = reading.next(); !step.done; step = reading.next()) {
    heard.push(step.value.doing);
    if (step.value.doing !== 'beams') continue;
    expect(step.value.soFar.candidates.map(({ kind }) => kind).sort()).toEqual(['column', 'wall']);
    expect(step.value.soFar.left).toEqual(['beam', 'slab', 'zone', 'outdoor', 'luminaire', 'contour']);
  }
  expect(heard).toEqual([
    'sorting lines',
    'grid lines',
    'columns',
    'faces of walls',
    'walls and openings',
    'nodes of walls',
    'beams',
    'zones',
    'slabs',
    'outdoor surfaces',
    'luminaires',
    'terrain',
  ]);
});

test('picked lines and blocks have roles of their own, the picked line before the block, the inner block before the outer', () => {
  const entities =
    box(0, 0, 0.4, 0.4, 'X', 'A1') +
    box(2, 0, 0.3, 0.3, 'C', 'A2') +
    insert('POST', 5, 0, [handle('A3')]) +
    insert('PAIR', 8, 0, [handle('A4')]);
  const post = block('POST', box(0, 0, 0.25, 0.25, '0', 'B1'));
  const pair = block('PAIR', insert('POST', 0, 0, [handle('B2')]) + box(1, 0, 0.5, 0.5, '0', 'B3'));
  const widths = (picked: PickedRoles) =>
    columnsIn(sceneOf(entities, picked, post + pair))
      .map(({ element: { section } }) => section.shape === 'rectangle' && section.width)
      .sort();
  expect(widths({ lines: new Map(), blocks: new Map() })).toEqual([0.3]);
  expect(
    widths({
      lines: new Map([
        ['A1', 'column'],
        ['A2', 'ignore'],
      ]),
      blocks: new Map(),
    }),
  ).toEqual([0.4]);
  expect(widths({ lines: new Map(), blocks: new Map([['POST', 'column']]) })).toEqual([0.25, 0.25, 0.3]);
  expect(
    widths({
      lines: new Map(),
      blocks: new Map([
        ['PAIR', 'column'],
        ['POST', 'ignore'],
      ]),
    }),
  ).toEqual([0.3, 0.5]);
});

test('a layer that means a construction gives its walls that thickness; drawn otherwise they are doubted', () => {
  const scene = sceneOf(wall('W', 0, 0.2) + wall('W', 5, 0.12));
  const meaning: LibraryRow = {
    id: '00000000-0000-4000-8000-000000000001',
    name: 'Masonry 200',
    kind: 'wall',
    thickness: 0.2,
    layers: [],
  };
  const meanings = scene.drawing.layers.map(({ name }) => (name === 'W' ? meaning : null));
  const walls = read({ scene, meanings, tolerance: toleranceFor('m') })
    .candidates.filter((c): c is WallCandidate => c.kind === 'wall')
    .sort((a, b) => a.element.start[1] - b.element.start[1]);
  expect(
    walls.map(({ element, raw, libraryId, doubt }) => [
      element.thickness,
      Number(raw.thickness.toFixed(6)),
      libraryId,
      doubt,
    ]),
  ).toEqual([
    [0.2, 0.2, meaning.id, null],
    [0.2, 0.12, meaning.id, 'drawn as 120 mm'],
  ]);
  expect(walls[1].confidence).toBeLessThan(walls[0].confidence);
});

test('settings: the module that sizes are rounded to, what a column may measure, how far ends may lie apart', () => {
  const odd = box(0, 0, 0.404, 0.404, 'C', 'A1');
  const sideOf = (settings: ReadingSettings) =>
    columnsIn(sceneOf(odd), settings).map(({ element: { section } }) => section.shape === 'rectangle' && section.width);
  expect(sideOf(defaultSettings)).toEqual([0.405]);
  expect(sideOf(withExact({ module: 0.05 }))).toEqual([0.4]);
  expect(sideOf({ ...defaultSettings, column: { least: 0.5, most: 2 } })).toEqual([]);
  const loose =
    line(0, 0, 0.4, 0, 'C') + line(0.4, 0, 0.4, 0.4, 'C') + line(0.4, 0.4, 0, 0.4, 'C') + line(0, 0.4, 0, 0.03, 'C');
  expect(columnsIn(sceneOf(loose))).toHaveLength(0);
  expect(columnsIn(sceneOf(loose), withExact({ gap: 0.05 }))).toHaveLength(1);
  expect(toleranceFor('in').roundingModule).toBeCloseTo(0.00635, 9);
});

test('ways to read the same lines share grid and columns where those are read of the same paths, else not', () => {
  const entities = box(0, 0, 0.4, 0.4, 'C', 'A1') + wall('W', 5, 0.2) + wall('X', 9, 0.2);
  const tolerance = toleranceFor('m');
  const { drawing } = readText(dxf({ entities }));
  const sceneWith = (given: Record<string, Role>) =>
    new Scene(
      drawing,
      flatten(drawing),
      asDrawn('m'),
      drawing.layers.map(({ name }) => given[name] ?? null),
    );
  const ways: Record<string, Role>[] = [roles, { ...roles, X: 'wall' }, { ...roles, C: 'wall' }, { G: 'grid' }];
  const frames: NonNullable<Parameters<typeof read>[0]['frames']> = new Map();
  for (const given of ways)
    expect(read({ scene: sceneWith(given), tolerance, frames }).candidates).toEqual(
      read({ scene: sceneWith(given), tolerance }).candidates,
    );
  // The first two know the same column; the other two have none.
  expect(frames.size).toBe(2);
});
