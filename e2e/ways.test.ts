import type { Page } from 'playwright-core';
import type { ElementRow } from '@/core/kinds/element';
import { wallLength } from '@/core/kinds/wall';
import type { ProjectState } from '@/core/model/state';
import { ask, boardMap, newProject, openStage, part, problems, station, stateOf, type Stage, settled } from './harness';

let stage: Stage;
beforeAll(async () => {
  stage = await openStage();
}, 60_000);
afterAll(async () => stage.close());

type P = [number, number];
const uuid = (n: number): string => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;
const corners: P[] = [
  [0, 0],
  [8, 0],
  [8, 6],
  [0, 6],
];

/** A room of four walls on a grid, with columns at two of its corners, a slab, a zone, a beam and a yard beside it. */
function room(levelId: string): ElementRow[] {
  const common = { levelId, source: null, libraryId: null };
  const section = { shape: 'rectangle', width: 0.4, depth: 0.4 } as const;
  const inner: P[] = corners.map(([x, y]) => [x === 0 ? 0.1 : 7.9, y === 0 ? 0.1 : 5.9]);
  const grid = (n: number, label: string, start: P, end: P): ElementRow => ({
    ...common,
    levelId: null,
    id: uuid(n),
    kind: 'grid',
    shape: { label, kind: 'line', start, end },
  });
  return [
    grid(1, '1', [0, -2], [0, 8]),
    grid(2, '2', [8, -2], [8, 8]),
    grid(3, 'A', [-2, 0], [10, 0]),
    grid(4, 'B', [-2, 6], [10, 6]),
    ...corners.map((start, i): ElementRow => ({
      ...common,
      id: uuid(10 + i),
      kind: 'wall',
      shape: { start, end: corners[(i + 1) % 4], thickness: 0.2, height: null, bulge: 0, outer: true },
    })),
    { ...common, id: uuid(20), kind: 'column', shape: { position: [0, 6], rotation: 0, section, mark: '' } },
    { ...common, id: uuid(21), kind: 'column', shape: { position: [8, 6], rotation: 0, section, mark: '' } },
    { ...common, id: uuid(30), kind: 'slab', shape: { outline: corners, holes: [], thickness: 0.2 } },
    {
      ...common,
      id: uuid(31),
      kind: 'zone',
      shape: { name: 'Lab', number: '1', outline: inner, holes: [], height: null },
    },
    {
      ...common,
      id: uuid(32),
      kind: 'beam',
      shape: { start: [0, 3], end: [8, 3], section: { ...section, width: 0.3 }, mark: '' },
    },
    {
      ...common,
      id: uuid(34),
      kind: 'wall',
      shape: { start: [11, -1.5], end: [13, -1.5], thickness: 0.2, height: null, bulge: 0, outer: true },
    },
    {
      ...common,
      id: uuid(33),
      kind: 'outdoor',
      shape: {
        name: 'Yard',
        outline: [
          [11, 0],
          [14, 0],
          [14, 6],
          [11, 6],
        ],
        height: 0.1,
      },
    },
  ];
}

interface Board {
  page: Page;
  project: string;
  /** Moves to points and clicks on them. */
  click: (...points: P[]) => Promise<void>;
  drag: (from: P, to: P) => Promise<void>;
  /** The elements now, once all is saved. */
  now: () => Promise<Record<string, ElementRow>>;
  way: (name: string) => Promise<void>;
  done: (label: RegExp) => Promise<void>;
  undo: () => Promise<void>;
}

/** A project of that room, at Tracing, looked at from near. */
async function atBoard(name: string): Promise<Board & { close: () => Promise<void> }> {
  const { page, context } = await stage.person();
  const project = await newProject(stage, page, name);
  const { state, history } = (
    await ask<{ state: ProjectState; history: { version: number } }>(stage, `/api/projects/${project}/state`)
  ).body;
  const rows = room(Object.keys(state.level)[0]);
  const answer = await ask(stage, `/api/projects/${project}/edits`, {
    seen: history.version,
    clientId: crypto.randomUUID(),
    edit: { label: 'A room', changes: rows.map((row) => ({ table: 'element', id: row.id, row })) },
  });
  expect(answer.status).toBe(200);
  await page.getByText(`${rows.length} elements`).first().waitFor();
  await station(page, 'Tracing');
  await page.evaluate((at) => window.zirconBoard?.look(at), [-3, -3, 15, 9] as [number, number, number, number]);
  await settled(page);
  const at = await boardMap(page);
  const to = async (p: P) => {
    const [x, y] = at(...p);
    await page.mouse.move(x + 2, y + 2);
    await page.mouse.move(x, y);
    await settled(page);
  };
  return {
    page,
    project,
    async click(...points) {
      for (const p of points) {
        await to(p);
        await page.mouse.down();
        await page.mouse.up();
        await settled(page);
      }
    },
    async drag(from, until) {
      await to(from);
      await page.mouse.down();
      await page.mouse.move(...at((from[0] + until[0]) / 2, (from[1] + until[1]) / 2));
      await to(until);
      await page.mouse.up();
    },
    now: async () => (await stateOf(stage, page, project)).element,
    way: (button) =>
      page.getByRole('region', { name: 'Bench' }).getByRole('button', { name: button, exact: true }).click(),
    done: (label) => page.getByRole('button', { name: label }).waitFor(),
    undo: async () => {
      await page.keyboard.press('Control+z');
      await page.getByRole('button', { name: /^Undo: A room/ }).waitFor();
    },
    close: async () => context.close(),
  };
}

/** A kind, a way of making it, where is clicked, and what is then said of it. */
const made: [kind: string, way: string, points: P[], enter: boolean, label: string][] = [
  [
    'Grid line',
    'Line by line',
    [
      [3, -2],
      [3, 8],
    ],
    false,
    'Draw 1 grid line',
  ],
  ['Grid line', 'By spacings', [[-2.5, -2.5]], false, 'Draw 9 grid lines'],
  [
    'Grid line',
    'Arc',
    [
      [12, 7.5],
      [14, 7.5],
      [12, 9],
    ],
    false,
    'Draw 1 grid line',
  ],
  [
    'Grid line',
    'Copies of one',
    [
      [0, 7],
      [-2, 7],
    ],
    false,
    'Draw 5 grid lines',
  ],
  ['Column', 'One by one', [[4, 4.2]], false, 'Draw 1 column'],
  [
    'Column',
    'Along a line',
    [
      [1, 1.4],
      [7, 1.4],
    ],
    false,
    'Draw 3 columns',
  ],
  [
    'Column',
    'By its outline',
    [
      [2, 1.2],
      [2.6, 1.2],
      [2.6, 1.8],
    ],
    true,
    'Draw 1 column',
  ],
  [
    'Beam',
    'From support to support',
    [
      [0, 6],
      [8, 6],
    ],
    true,
    'Draw 1 beam',
  ],
  ['Beam', 'Along a grid line', [[-1, 6]], false, 'Draw 1 beam'],
  [
    'Wall',
    'In a chain',
    [
      [2, 1],
      [2, 2.2],
      [4, 2.2],
    ],
    true,
    'Draw 2 walls',
  ],
  ['Opening', 'Where clicked', [[3, 0]], false, 'Draw 1 opening'],
  [
    'Opening',
    'From a node',
    [
      [3, 0],
      [2, 0],
    ],
    false,
    'Draw 1 opening',
  ],
  ['Opening', 'Middle of the wall', [[3, 0]], false, 'Draw 1 opening'],
  ['Opening', 'Equally spaced', [[3, 0]], false, 'Draw 3 openings'],
  [
    'Slab',
    'By its outline',
    [
      [10, 7],
      [12, 7],
      [12, 8],
    ],
    true,
    'Draw 1 slab',
  ],
  ['Slab', 'Between walls', [[4, 4.2]], false, 'Draw 1 slab'],
  [
    'Slab',
    'An opening in it',
    [
      [2, 1],
      [3, 1],
      [3, 2],
    ],
    true,
    'Draw 1 slab opening',
  ],
  [
    'Zone',
    'By its outline',
    [
      [10, 7],
      [12, 7],
      [12, 8],
    ],
    true,
    'Draw 1 zone',
  ],
  [
    'Zone',
    'Divide one',
    [
      [4, 0.1],
      [4, 5.9],
    ],
    false,
    'Divide a zone',
  ],
  [
    'Outdoor surface',
    'By its outline',
    [
      [10, 7],
      [12, 7],
      [12, 8],
    ],
    true,
    'Draw 1 outdoor surface',
  ],
  [
    'Roof plane',
    'By its outline, eaves first',
    [
      [10, 7],
      [12, 7],
      [12, 8],
    ],
    true,
    'Draw 1 roof plane',
  ],
  [
    'Roof plane',
    'Two planes to a ridge',
    [
      [0, 0],
      [8, 6],
    ],
    false,
    'Draw 2 roof planes',
  ],
  ['Support', 'One by one', [[0, 6]], false, 'Draw 1 support'],
  ['Point load', 'One by one', [[4, 3]], false, 'Draw 1 point load'],
  [
    'Line load',
    'In a chain',
    [
      [0, 3],
      [8, 3],
    ],
    true,
    'Draw 1 line load',
  ],
  ['Area load', 'Between walls', [[4, 4.2]], false, 'Draw 1 area load'],
  ['Area load', 'On a whole slab', [[4, 4.2]], false, 'Draw 1 area load'],
  [
    'Area load',
    'By its outline',
    [
      [10, 7],
      [12, 7],
      [12, 8],
    ],
    true,
    'Draw 1 area load',
  ],
  ['Luminaire', 'One by one', [[4, 4.2]], false, 'Draw 1 luminaire'],
  [
    'Luminaire',
    'In a row',
    [
      [0.1, 4.2],
      [7.9, 4.2],
    ],
    false,
    'Draw 3 luminaires',
  ],
  [
    'Luminaire',
    'In a field',
    [
      [0.1, 0.1],
      [7.9, 5.9],
    ],
    false,
    'Draw 6 luminaires',
  ],
  ['Calculation area', 'In a zone', [[4, 4.2]], false, 'Draw 1 calculation area'],
  [
    'Calculation area',
    'By its outline',
    [
      [10, 7],
      [12, 7],
      [12, 8],
    ],
    true,
    'Draw 1 calculation area',
  ],
];

test('every kind is made in each of its ways with the mouse, and undone', async () => {
  const { page, click, drag, way, done, undo, now, close } = await atBoard('Every way');
  const before = await now();
  for (const [kind, name, points, enter, label] of made) {
    await page.getByRole('radio', { name: kind, exact: true }).click();
    await way(name);
    await click(...points);
    if (enter) await page.keyboard.press('Enter');
    await done(new RegExp(`^Undo: ${label}$`));
    await undo();
  }
  for (const [kind, name, label] of [
    ['Column', 'At crossings in a box', 'Draw 2 columns'],
    ['Beam', 'Between columns in a box', 'Draw 1 beam'],
    ['Support', 'Under columns in a box', 'Draw 2 supports'],
  ]) {
    await page.getByRole('radio', { name: kind, exact: true }).click();
    await way(name);
    await drag([-1, -1], [9, 7]);
    await done(new RegExp(`^Undo: ${label}$`));
    await undo();
  }
  await page.getByRole('radio', { name: 'Zone', exact: true }).click();
  await way('Between walls');
  await click([4, 4.2]);
  // One lies there already: that is said at the cursor, and nothing is stored.
  await settled(page);
  await page.getByRole('radio', { name: 'Slab', exact: true }).click();
  await way('The whole building');
  await click([4, 4.2]);
  await done(/^Undo: Draw 1 slab$/);
  await undo();
  expect(await now()).toEqual(before);
  await close();
});

const shapeOf = <T>(elements: Record<string, ElementRow>, n: number): T => elements[uuid(n)].shape as T;
type Line = { start: P; end: P; bulge: number };
const near = (p: P): unknown => p.map((value) => expect.closeTo(value, 1) as unknown);

test('what is selected is moved, copied, turned, mirrored, repeated and aligned with the mouse', async () => {
  const { page, click, way, done, undo, now, close } = await atBoard('Every change');
  await part(page, 'Change');
  /** Selects the beam, which lies alone. */
  const selectBeam = async () => {
    await page.getByRole('button', { name: /^beams 1/ }).click();
    await page.getByText('1 selected').waitFor();
  };
  await selectBeam();
  await way('Move');
  await click([0, 3], [0, 2]);
  await done(/^Undo: Move 1 beam/);
  expect(shapeOf<Line>(await now(), 32).start).toEqual(near([0, 2]));
  await undo();
  await way('Copy');
  await click([0, 3], [0, 2]);
  await done(/^Undo: Copy 1 beam/);
  expect(Object.values(await now()).filter(({ kind }) => kind === 'beam')).toHaveLength(2);
  await undo();
  await way('Turn');
  await click([0, 3], [4, 3], [0, 5]);
  await done(/^Undo: Turn 1 beam/);
  expect(shapeOf<Line>(await now(), 32).end).toEqual(near([0, 11]));
  await undo();
  await way('Mirror');
  await click([0, 2], [8, 2]);
  await done(/^Undo: Mirror 1 beam/);
  expect(shapeOf<Line>(await now(), 32).start).toEqual(near([0, 1]));
  await undo();
  await way('Align to a line');
  await click([3, 0]);
  await done(/^Undo: Align 1 beam/);
  await undo();
  await way('To the left, outwards');
  await done(/^Undo: Set off 1 beam/);
  await undo();
  await page.keyboard.press('Escape');
  await page.keyboard.press('Escape');
  await click([0.1, 6.1]);
  await page.getByRole('button', { name: /^1.column$/ }).waitFor();
  await way('Repeat at crossings');
  await click([0, 6], [-1, -1], [9, 1]);
  await done(/^Undo: Copy 1 column/);
  expect(Object.values(await now()).filter(({ kind }) => kind === 'column')).toHaveLength(4);
  await undo();
  await close();
});

test('ends are cut back, corners closed, walls split, bent and joined, outlines changed with the mouse', async () => {
  const { page, click, way, done, undo, now, close } = await atBoard('Every edit');
  await part(page, 'Change');
  await way('Cut back or lengthen');
  await click([8, -1.6], [11.3, -1.5]);
  await done(/^Undo: /);
  expect(shapeOf<Line>(await now(), 34).start).toEqual(near([8, -1.5]));
  await undo();
  await way('Close a corner');
  await click([6, 3], [8, 2]);
  await done(/^Undo: Close a corner/);
  await undo();
  await way('Split');
  await click([4, 3]);
  await done(/^Undo: Split a beam/);
  const halves = Object.values(await now()).filter(({ kind }) => kind === 'beam');
  expect(halves).toHaveLength(2);
  await page.getByRole('button', { name: 'Split', exact: true }).click();
  await page.getByRole('button', { name: /^beams 2/ }).click();
  await way('Join');
  await done(/^Undo: Join two beams/);
  expect(Object.values(await now()).filter(({ kind }) => kind === 'beam')).toHaveLength(1);
  await page.keyboard.press('Control+z');
  await done(/^Undo: Split a beam/);
  await undo();
  await way('Bend');
  await click([4, 0], [4, -2]);
  await done(/^Undo: Bend a wall/);
  // A sagitta of 2 m over a chord of 8 m: a radius of 5 m, and 2 asin(4/5) of it.
  expect(wallLength(shapeOf(await now(), 10))).toBeCloseTo(5 * 2 * Math.asin(0.8), 1);
  await undo();
  await way('Add a corner');
  await click([13.9, 3], [15, 3]);
  await done(/^Undo: Add a corner/);
  expect(shapeOf<{ outline: P[] }>(await now(), 33).outline).toHaveLength(5);
  await way('Remove a corner');
  await click([13.8, 5.8]);
  await done(/^Undo: Remove a corner/);
  expect(shapeOf<{ outline: P[] }>(await now(), 33).outline).toHaveLength(4);
  await page.keyboard.press('Control+z');
  await undo();
  await way('Set off an edge');
  await click([12.5, 5.9]);
  await done(/^Undo: Set off/);
  await undo();
  await way('Move an end or corner');
  await click([7.5, 3]);
  await page.keyboard.type('2');
  await page.keyboard.press('Enter');
  await done(/^Undo: Change a beam/);
  await undo();
  await close();
});

test('ends are tied to levels and under a roof, members turned round, zones put to their walls', async () => {
  const { page, way, done, undo, now, close } = await atBoard('Ties');
  await part(page, 'Change');
  await page.getByRole('button', { name: /^columns 2/ }).click();
  await page.getByRole('combobox', { name: 'Top' }).click();
  await page.getByRole('option', { name: 'under the roof' }).click();
  await done(/^Undo: Tie 2 columns/);
  expect(shapeOf<{ ties: unknown }>(await now(), 20).ties).toEqual({ top: 'roof' });
  await page.getByRole('combobox', { name: 'Foot' }).click();
  await page.getByRole('option', { name: /^at / }).first().click();
  const offset = page.getByRole('textbox', { name: 'Above that level' });
  await offset.fill('-0.5 m');
  await offset.press('Enter');
  await settled(page);
  expect(shapeOf<{ ties: { base: { offset: number } } }>(await now(), 20).ties.base.offset).toBe(-0.5);
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await undo();
  await page.getByRole('button', { name: /^beams 1/ }).click();
  await way('Turn round');
  await done(/^Undo: Turn 1 beam round/);
  expect(shapeOf<Line>(await now(), 32).start).toEqual([8, 3]);
  await way('Make alike');
  await done(/^Undo: Let 1 beam run alike/);
  await page.keyboard.press('Control+z');
  await undo();
  await page.getByRole('textbox', { name: 'Filter by words' }).fill('lab');
  await page.getByRole('button', { name: 'Select 1', exact: true }).click();
  await way('Fit zones to walls');
  await page.getByText('The zones fit their walls already.').waitFor();
  await close();
});

test('two windows draw and change at once: both end with what both did', async () => {
  const mine = await atBoard('Two at once');
  const other = await stage.person();
  await other.page.goto(`${stage.address}/projects/${mine.project}`);
  await other.page
    .getByText(/15 elements/)
    .first()
    .waitFor();
  await station(other.page, 'Tracing');
  await part(other.page, 'Change');
  await mine.page.getByRole('radio', { name: 'Column', exact: true }).click();
  await mine.way('One by one');
  await Promise.all([
    mine.click([4, 4.2], [6, 4.2]),
    (async () => {
      await other.page.getByRole('button', { name: /^beams 1/ }).click();
      await other.page.getByRole('region', { name: 'Bench' }).getByRole('button', { name: 'Turn round' }).click();
    })(),
  ]);
  // The last step of the project may be either's: what counts is that both windows have all three.
  for (const { page } of [mine, other])
    await page
      .getByText(/17 elements/)
      .first()
      .waitFor();
  await other.page
    .getByText(/17 elements/)
    .first()
    .waitFor();
  const elements = await mine.now();
  expect(Object.values(elements).filter(({ kind }) => kind === 'column')).toHaveLength(4);
  expect(shapeOf<Line>(elements, 32).start).toEqual([8, 3]);
  await other.context.close();
  await mine.close();
});

test('the server refuses a column on a column, an opening over another, and a tie to no level, naming why', async () => {
  const { page, project, now, close } = await atBoard('Doubles');
  const elements = await now();
  const send = async (row: object) => {
    const { history } = (await ask<{ history: { version: number } }>(stage, `/api/projects/${project}/state`)).body;
    return ask<{ message: string }>(stage, `/api/projects/${project}/edits`, {
      seen: history.version,
      clientId: crypto.randomUUID(),
      edit: { label: 'Double', changes: [{ table: 'element', id: (row as { id: string }).id, row }] },
    });
  };
  const column = elements[uuid(20)];
  const twice = await send({ ...column, id: crypto.randomUUID() });
  expect([twice.status, twice.body.message]).toEqual([
    409,
    expect.stringMatching(/A column stands at 0.00, 6.00 already/),
  ]);
  const door = (offset: number) => ({
    ...column,
    id: crypto.randomUUID(),
    kind: 'opening',
    shape: { wall: uuid(10), use: 'door', offset, width: 1, height: 2, sill: 0 },
  });
  expect((await send(door(2))).status).toBe(200);
  const over = await send(door(2.5));
  expect([over.status, over.body.message]).toEqual([409, expect.stringMatching(/would lie over the door beside it/)]);
  expect((await send(door(3))).status).toBe(200);
  const loose = await send({ ...column, shape: { ...column.shape, ties: { top: { level: uuid(999), offset: 0 } } } });
  expect([loose.status, loose.body.message]).toEqual([409, expect.stringMatching(/tied to a level/)]);
  await page
    .getByText(/17 elements/)
    .first()
    .waitFor();
  await close();
});

test('nothing went wrong in the pages', () => {
  expect(problems).toEqual([]);
});
