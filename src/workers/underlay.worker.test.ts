import { groundFloor, revisionB } from '../../demo/ground';
import { gridLines } from '../../demo/building';
import { crossSection } from '../../demo/section';
import { sheet, sheetSpots } from '../../demo/sheet';
import { upperFloor } from '../../demo/upper';
import { asDrawn } from '@/core/datum/placement';
import { packDrawing } from '@/core/drawing/packDrawing';
import { readDxf } from '@/core/drawing/reader';
import type { Recipe } from '@/core/underlay/recipe/steps';
import { defaultSettings } from '@/core/patterns/settings';
import { noWallsAround } from '@/core/reading/walls/bearing';
import type { Order, ReadingOrder } from './orders';
import type { UnderlayWorker } from './underlay.worker';

/** The worker's own functions, with the border between threads left out. */
let api: UnderlayWorker;
jest.mock('comlink', () => ({
  expose: (exposed: UnderlayWorker) => {
    api = exposed;
  },
  transfer: (value: unknown) => value,
}));

const served: Record<string, string> = {
  ground: groundFloor().dxf,
  later: groundFloor({ revision: 'B' }).dxf,
  upper: upperFloor().dxf,
  sheet: sheet().dxf,
  section: crossSection().dxf,
};
const fetched: string[] = [];

beforeAll(async () => {
  Object.assign(globalThis, {
    fetch: async (url: string) => {
      fetched.push(url);
      const text = served[url];
      if (text === undefined)
        return new Response(JSON.stringify({ message: 'This drawing is not there any more.' }), { status: 404 });
      const result = readDxf(new TextEncoder().encode(text));
      if (!result.ok) throw new Error(result.message);
      return new Response(packDrawing(result.value.drawing) as never);
    },
  });
  await import('./underlay.worker');
});

const order = (file: string, recipe: Recipe = [], more: Partial<Order> = {}): Order => ({
  drawingId: `d-${file}`,
  fileId: file,
  url: file,
  recipe,
  metresPerUnit: 0.001,
  dashed: false,
  ...more,
});

test('a drawing is opened with what the board needs, its unit judged from the whole file', async () => {
  const data = await api.open(order('ground'));
  expect(data.layers.map(({ name }) => name)).toContain('A-COLS');
  expect(data.layers.find(({ name }) => name === '0')!.empty).toBe(false);
  expect(data.blocks.map(({ name }) => name)).toEqual(expect.arrayContaining(['DESK', 'CHAIR', 'GRID-BUBBLE']));
  expect(api.unit('d-ground')).toMatchObject({ header: 'm', chosen: 'mm' });
  expect(data.segments.layer.length).toBeGreaterThan(data.primitives.layer.length);
  expect(data.counts).toEqual({});
});

test('a file is fetched once, however many drawings show it and however often they are cleaned anew', async () => {
  fetched.length = 0;
  await api.open(order('sheet'));
  await api.open(order('sheet', [{ id: 's', on: true, step: { kind: 'strays' } }]));
  await api.open(order('sheet', [], { drawingId: 'another' }));
  expect(fetched).toEqual(['sheet']);
});

test('a file that this window sends is read here, is the same as from the server, and is not fetched', async () => {
  fetched.length = 0;
  api.ahead(1, new Blob([groundFloor().dxf]));
  api.sent(1, 'sent');
  const [here, there] = [await api.open(order('sent')), await api.open(order('ground', [], { drawingId: 'there' }))];
  expect(fetched).not.toContain('sent');
  expect(here).toEqual(there);
  // What was made ready is given away once; the next one is made anew.
  expect(await api.open(order('sent'))).toEqual(there);
});

test('of a file sent that cannot be read here, or of an upload that came to nothing, the server is asked', async () => {
  fetched.length = 0;
  api.ahead(2, new Blob(['no drawing']));
  api.sent(2, 'upper');
  api.ahead(3, new Blob([groundFloor().dxf]));
  api.sent(3, null);
  expect((await api.open(order('upper'))).primitives.layer.length).toBeGreaterThan(0);
  expect(fetched).toEqual(['upper']);
});

/** The ground floor as a file that says it has so many megabytes. */
function sized(megabytes: number): Blob {
  const blob = new Blob([groundFloor().dxf]);
  Object.defineProperty(blob, 'size', { value: megabytes * 1024 * 1024 });
  return blob;
}

test('of many files sent at once those beyond 64 MB in all come from the server', async () => {
  fetched.length = 0;
  for (const [key, megabytes] of [
    [11, 40],
    [12, 40],
    [13, 20],
  ])
    api.ahead(key, sized(megabytes));
  Object.assign(served, { 'sent-12': served.ground });
  for (const key of [11, 12, 13]) api.sent(key, `sent-${key}`);
  for (const key of [11, 12, 13]) await api.open(order(`sent-${key}`));
  expect(fetched).toEqual(['sent-12']);
});

test('a file that no drawing shows any more is let go', async () => {
  await api.open(order('upper', [], { drawingId: 'one' }));
  fetched.length = 0;
  for (const file of ['section', 'upper', 'section']) await api.open(order(file, [], { drawingId: 'alone' }));
  expect(fetched.filter((file) => file === 'section')).toHaveLength(2);
});

test('a file that cannot be fetched says why, and is tried again the next time', async () => {
  await expect(api.open(order('nothing'))).rejects.toThrow('This drawing is not there any more.');
  served.nothing = served.upper;
  expect((await api.open(order('nothing'))).primitives.layer.length).toBeGreaterThan(0);
});

test('a step shows what it would touch: the lines of nine dimensions, where they are', async () => {
  await api.open(order('ground'));
  const { count, lines, origin } = api.preview('d-ground', { kind: 'leaveOutKinds', groups: ['dimensions'] }, null);
  expect(count).toEqual({ entities: 9, words: '9 dimensions' });
  // Six below at y = -4.6 m, three to the left at x = -11.4 m, besides the boxes of their texts.
  const at = Array.from({ length: lines.length / 4 }, (_, i) =>
    [
      lines[4 * i] + origin[0],
      lines[4 * i + 1] + origin[1],
      lines[4 * i + 2] + origin[0],
      lines[4 * i + 3] + origin[1],
    ].map(Math.round),
  );
  expect(at).toContainEqual([0, -4600, 5400, -4600]);
  expect(at.filter(([x1, , x2]) => x1 === -11400 && x2 === -11400)).toHaveLength(3);
});

test('a step of the recipe is looked at as it stands there: after those before, without itself', async () => {
  const recipe: Recipe = [
    { id: 'a', on: true, step: { kind: 'leaveOutLayers', patterns: ['A-DIMS'] } },
    { id: 'b', on: true, step: { kind: 'leaveOutKinds', groups: ['dimensions', 'hatches'] } },
  ];
  const { counts } = await api.open(order('ground', recipe));
  expect([counts.a.entities, counts.b.entities]).toEqual([9, 7]);
  // After the layer of dimensions is out only the seven hatches are left to touch.
  expect(api.preview('d-ground', recipe[1].step, 1).count.entities).toBe(7);
  expect(api.preview('d-ground', recipe[1].step, 0).count.entities).toBe(9 + 7);
});

test('what is suggested is what the drawing shows, and less once some of it is taken', async () => {
  await api.open(order('upper'));
  const before = api.suggest('d-upper').map(({ step }) => step.kind);
  expect(before.slice(0, 2)).toEqual(['strays', 'leaveOutKinds']);
  await api.open(order('upper', [{ id: 's', on: true, step: { kind: 'strays' } }]));
  expect(api.suggest('d-upper').map(({ step }) => step.kind)).toEqual(before.slice(1));
});

test('the plans of a sheet come with their boxes in the drawing and a picture of each', async () => {
  await api.open(order('sheet'));
  const plans = api.plans('d-sheet');
  expect(plans).toHaveLength(5);
  const corners = plans.map(({ box }) => box[0].map((value) => Math.round(value / 100) / 10).join()).sort();
  // The grid runs 1.5 m beyond to the left, the title stands 3.4 m below.
  expect(corners).toEqual(sheetSpots.map(([x, y]) => [x - 1.5, y - 3.4].join()).sort());
  for (const { lines } of plans) expect(lines.length).toBeGreaterThan(4 * 20);
});

test('two revisions are compared layer by layer, with pictures of what came and went about one origin', async () => {
  const picture = await api.compare({ fileId: 'ground', url: 'ground' }, { fileId: 'later', url: 'later' });
  const columns = picture.layers.find(({ layer }) => layer === 'A-COLS')!;
  expect(columns).toMatchObject({ changed: Object.keys(revisionB.moved).length, came: 0, went: 0 });
  const corners = Array.from({ length: picture.came.length / 2 }, (_, i) => [
    picture.came[2 * i] + picture.origin[0],
    picture.came[2 * i + 1] + picture.origin[1],
  ]);
  // Column 4/B, 250 by 600, stood at (16.95, 6.9) and moved by 300 mm.
  expect(Math.min(...corners.map(([x, y]) => Math.hypot(x - (16950 + 300 + 125), y - (6900 + 300))))).toBeLessThan(1);
  expect(picture.total.same).toBeGreaterThan(400);
});

/** Reading a drawing in millimetres by the roles of its layers alone. */
const readingOf = (roles: ReadingOrder['roles']): ReadingOrder => ({
  placement: asDrawn('mm'),
  roles,
  picked: { lines: [], blocks: [], alike: [] },
  meanings: [],
  accepted: [],
  settings: defaultSettings,
  zero: 0,
  around: noWallsAround,
  sheets: [],
  answers: [],
});

test('grid and columns are read from the cleaned drawing: what is left out is not there', async () => {
  const { layers } = await api.open(order('ground'));
  const roles = layers.map(({ name }) => {
    if (name === 'A-GRID') return 'grid' as const;
    if (name === 'A-COLS') return 'column' as const;
    return null;
  });
  const all = (await api.read('d-ground', readingOf(roles))).candidates;
  expect(all.filter(({ kind }) => kind === 'grid').length).toBe(gridLines().length + 2);
  await api.open(order('ground', [{ id: 'x', on: true, step: { kind: 'leaveOutLayers', patterns: ['A-COLS'] } }]));
  expect((await api.read('d-ground', readingOf(roles))).candidates.filter(({ kind }) => kind === 'column')).toEqual([]);
});

test('a reading can be stopped with what it has, and a later one takes its place', async () => {
  const { layers } = await api.open(order('ground'));
  const what = readingOf(
    layers.map(({ name }) => {
      if (name === 'A-GRID') return 'grid';
      return name === 'A-WALL' ? 'wall' : null;
    }),
  );
  const heard: string[] = [];
  const stopped = await api.read('d-ground', what, ({ doing }) => {
    heard.push(doing);
    if (doing === 'columns') api.stopReading('d-ground');
  });
  expect(heard[heard.length - 1]).toBe('columns');
  expect([new Set(stopped.candidates.map(({ kind }) => kind)), stopped.left.includes('wall')]).toEqual([
    new Set(['grid']),
    true,
  ]);
  const [first, second] = await Promise.all([api.read('d-ground', what), api.read('d-ground', what)]);
  expect([first.left.length > 0, second.left]).toEqual([true, []]);
  expect(api.grid('d-ground', what).length).toBe(gridLines().length + 2);
});

test('while the lines of one layer are told apart a stop is heard', async () => {
  const { layers } = await api.open(order('ground'));
  const what = readingOf(layers.map(() => 'mixed'));
  const heard: string[] = [];
  const stopped = await api.read('d-ground', what, ({ doing }) => {
    heard.push(doing);
    if (heard.length === 3) api.stopReading('d-ground');
  });
  expect(heard).toEqual(['sorting lines', 'sorting lines', 'sorting lines']);
  expect([stopped.candidates, stopped.left.includes('grid')]).toEqual([[], true]);
});

test('a drawing that is not open is an error of ours, told as one', () => {
  expect(() => api.suggest('never opened')).toThrow('not open in this worker');
});

test('the worker compares dimensions, reads heights and names what is of another unit', async () => {
  await api.open(order('ground'));
  await api.open(order('section'));
  // The ground floor's nine dimensions are written as they are drawn.
  expect(api.dimensions('d-ground')).toMatchObject({ total: 9, agree: 9, differ: [], writtenIn: 'mm' });
  expect(api.mixed('d-ground')).toEqual([]);
  const heights = api.section('d-section');
  expect(heights.ok && heights.value.marks.map(({ elevation }) => elevation)).toEqual([-3.15, 0, 3.9, 7.5, 8.6]);
  const none = api.section('d-ground');
  expect(none.ok ? none.value.marks : none.message).toEqual(expect.anything());
});
