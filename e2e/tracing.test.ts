import type { Page } from 'playwright-core';
import { groundFloor } from '../demo/ground';
import { across, up } from '../demo/building';
import type { ElementKind, ElementOf } from '@/core/kinds/element';
import type { ProjectState } from '@/core/model/state';
import {
  ask,
  boardMap,
  bringIn,
  confirmMillimetres,
  fileNamed,
  newProject,
  openStage,
  part,
  problems,
  station,
  stateOf,
  type Stage,
  settled,
} from './harness';

let stage: Stage;
beforeAll(async () => {
  stage = await openStage();
}, 60_000);
afterAll(async () => stage.close());

const ofKind = <K extends ElementKind>(state: ProjectState, kind: K): ElementOf<K>[] =>
  Object.values(state.element).filter((element) => element.kind === kind) as unknown as ElementOf<K>[];
const rounded = (value: unknown): unknown =>
  JSON.parse(JSON.stringify(value, (_, v: unknown) => (typeof v === 'number' ? Number(v.toFixed(6)) + 0 : v)));

/** A project with the demo's ground floor as underlay and nothing in the model, at Tracing. */
async function emptyLevel(name: string, page: Page): Promise<string> {
  const project = await newProject(stage, page, name);
  await bringIn(page, fileNamed('marram-ground.dxf', groundFloor().dxf));
  await confirmMillimetres(page);
  await station(page, 'Tracing');
  return project;
}

const kind = (page: Page, name: string) => page.getByRole('radio', { name, exact: true }).click();
const way = (page: Page, name: string) =>
  page.getByRole('region', { name: 'Bench' }).getByRole('button', { name, exact: true }).click();
const undoes = (page: Page, label: RegExp) => page.getByRole('button', { name: label }).waitFor();

/** Looks at a box of the project; then clicks and drags between points of it. */
async function hand(page: Page, box: [number, number, number, number] = [-3, -3, 9, 9]) {
  await page.evaluate((at) => window.zirconBoard?.look(at), box);
  await settled(page);
  const at = await boardMap(page);
  const move = async (e: number, n: number) => {
    await page.mouse.move(...at(e, n));
    await page.mouse.move(at(e, n)[0] + 0.5, at(e, n)[1]);
    await settled(page);
  };
  return {
    move,
    click: async (e: number, n: number) => {
      await move(e, n);
      await page.mouse.down();
      await page.mouse.up();
      await settled(page);
    },
    drag: async (from: [number, number], to: [number, number]) => {
      await page.mouse.move(...at(...from));
      await page.mouse.down();
      await page.mouse.move(...at((from[0] + to[0]) / 2, (from[1] + to[1]) / 2));
      await page.mouse.move(...at(...to));
      await settled(page);
      await page.mouse.up();
      await settled(page);
    },
  };
}

test('a bay is drawn from an empty level: what the cursor holds on to and what is typed is what is stored', async () => {
  const { page, context } = await stage.person();
  const project = await emptyLevel('A bay by hand', page);
  const { click, move, drag } = await hand(page);
  // Grid lines 1, 2, A and B, held on to where the drawing's cross or end.
  await kind(page, 'Grid line');
  await way(page, 'Line by line');
  for (const [from, to] of [
    [
      [0, 0],
      [0, up[1]],
    ],
    [
      [across[1], 0],
      [across[1], up[1]],
    ],
    [
      [0, 0],
      [across[1], 0],
    ],
    [
      [0, up[1]],
      [across[1], up[1]],
    ],
  ] as [[number, number], [number, number]][]) {
    await click(...from);
    await click(...to);
  }
  await undoes(page, /^Undo: Draw 1 grid line/);
  // Columns at all crossings in a box; the box is drawn round them.
  await kind(page, 'Column');
  await way(page, 'At crossings in a box');
  await drag([-1.5, -1.5], [across[1] + 1.5, up[1] + 1.5]);
  await undoes(page, /^Undo: Draw 4 columns/);
  await kind(page, 'Beam');
  await way(page, 'Between columns in a box');
  await drag([-1.5, -1.5], [across[1] + 1.5, up[1] + 1.5]);
  await undoes(page, /^Undo: Draw 4 beams/);
  // A wall along the first axis: its far end is typed.
  await kind(page, 'Wall');
  await way(page, 'In a chain');
  await click(0, 0);
  await move(3, 0.4);
  await page.keyboard.type('5.1+0.3');
  await page.keyboard.press('Tab');
  await page.keyboard.type('0');
  await page.keyboard.press('Enter');
  await page.keyboard.press('Enter');
  await undoes(page, /^Undo: Draw 1 wall/);
  await kind(page, 'Opening');
  await way(page, 'Middle of the wall');
  await click(2, 0);
  await undoes(page, /^Undo: Draw 1 opening/);
  const state = await stateOf(stage, page, project);
  const at = ofKind(state, 'column')
    .map(({ shape }) => rounded(shape.position))
    .sort();
  expect(at).toEqual(
    [
      [0, 0],
      [0, 6.9],
      [5.4, 0],
      [5.4, 6.9],
    ].sort(),
  );
  expect(
    ofKind(state, 'grid')
      .map(({ shape }) => shape.label)
      .sort(),
  ).toEqual(['1', '2', 'A', 'B']);
  expect(ofKind(state, 'beam')).toHaveLength(4);
  expect(rounded(ofKind(state, 'wall')[0].shape)).toMatchObject({ start: [0, 0], end: [5.4, 0], thickness: 0.2 });
  // 5.4 m less the door's 1.01 m, halved.
  expect(rounded(ofKind(state, 'opening')[0].shape)).toMatchObject({ offset: 2.195 });
  await context.close();
});

test('the same bay is taken from the drawing in under twenty clicks, with its source', async () => {
  const { page, context } = await stage.person();
  const project = await emptyLevel('A bay by take', page);
  const { click, drag, move } = await hand(page);
  let clicks = 0;
  const takes = async (name: string, many: string, act: () => Promise<void>, label: RegExp) => {
    await kind(page, name);
    await way(page, `Take ${many} by a click`);
    clicks += 2;
    await act();
    await undoes(page, label);
  };
  await takes(
    'Column',
    'columns',
    async () => {
      clicks += 1;
      await move(0, 0.19);
      await settled(page);
      await drag([-1.5, -1.5], [across[1] + 1.5, up[1] + 1.5]);
    },
    /^Undo: Take 4 columns/,
  );
  await takes(
    'Wall',
    'walls',
    async () => {
      clicks += 1;
      await move(across[1], 3.2);
      await settled(page);
      await click(across[1], 3.3);
    },
    /^Undo: Take 1 wall/,
  );
  const state = await stateOf(stage, page, project);
  expect(clicks).toBeLessThan(20);
  expect(ofKind(state, 'column').map(({ shape }) => rounded(shape.position))).toEqual(
    expect.arrayContaining([
      [0, 6.9],
      [5.4, 6.9],
    ]),
  );
  const [wall] = ofKind(state, 'wall');
  expect(rounded(wall.shape)).toMatchObject({ thickness: 0.15 });
  expect(wall.source!.handles.length).toBeGreaterThan(0);
  // What is taken counts as accepted at Reading.
  expect(Object.values(state.decision).filter(({ verdict }) => verdict === 'accepted')).toHaveLength(5);
  await context.close();
});

test('with the keyboard alone: a grid by spacings, columns on it and beams between them', async () => {
  const { page, context } = await stage.person();
  const project = await newProject(stage, page, 'By keyboard');
  await station(page, 'Tracing');
  const board = page.getByRole('application');
  /** Types a point of the project on the board. */
  const typePoint = async (e: string, n: string) => {
    await board.focus();
    await page.keyboard.type(e);
    await page.keyboard.press('Tab');
    await page.keyboard.type(n);
    await page.keyboard.press('Enter');
  };
  const press = async (role: 'button' | 'radio', name: string) => {
    await page.getByRole(role, { name, exact: true }).focus();
    await page.keyboard.press('Space');
  };
  await press('radio', 'Grid line');
  await press('button', 'By spacings');
  await page.getByRole('textbox', { name: 'Spacings across' }).fill('2x5.4');
  await page.getByRole('textbox', { name: 'Spacings up' }).fill('6');
  await typePoint('0', '0');
  await undoes(page, /^Undo: Draw 5 grid lines/);
  await press('radio', 'Column');
  await press('button', 'At crossings in a box');
  await typePoint('0-1', '0-1');
  await typePoint('12', '7');
  await undoes(page, /^Undo: Draw 6 columns/);
  await press('radio', 'Beam');
  await press('button', 'Between columns in a box');
  await typePoint('0-1', '0-1');
  await typePoint('12', '7');
  await undoes(page, /^Undo: Draw 7 beams/);
  const state = await stateOf(stage, page, project);
  expect(ofKind(state, 'column').map(({ shape }) => rounded(shape.position))).toEqual(
    expect.arrayContaining([
      [0, 0],
      [10.8, 6],
    ]),
  );
  await context.close();
});

/** A project with two walls at a corner, a column and a door, made through the server. */
async function corner(page: Page, name: string): Promise<{ project: string; wall: string }> {
  const project = await newProject(stage, page, name);
  const { state, history } = (
    await ask<{ state: ProjectState; history: { version: number } }>(stage, `/api/projects/${project}/state`)
  ).body;
  const [level] = Object.values(state.level);
  const common = { levelId: level.id, source: null, libraryId: null };
  const [a, b, door, column] = Array.from({ length: 4 }, () => crypto.randomUUID());
  const wall = (id: string, start: number[], end: number[]) => ({
    ...common,
    id,
    kind: 'wall',
    shape: { start, end, thickness: 0.2, height: null, bulge: 0, outer: false },
  });
  const rows = [
    wall(a, [0, 0], [6, 0]),
    wall(b, [6, 0.01], [6, 4]),
    {
      ...common,
      id: column,
      kind: 'column',
      shape: { position: [0, 4], rotation: 0, section: { shape: 'circle', diameter: 0.4 }, mark: '' },
    },
    {
      ...common,
      id: door,
      kind: 'opening',
      shape: { wall: a, use: 'door', offset: 2, width: 1, height: 2, sill: 0 },
    },
  ];
  const answer = await ask(stage, `/api/projects/${project}/edits`, {
    seen: history.version,
    clientId: crypto.randomUUID(),
    edit: { label: 'A corner', changes: rows.map((row) => ({ table: 'element', id: row.id, row })) },
  });
  expect(answer.status).toBe(200);
  await page
    .getByText(/4 elements/)
    .first()
    .waitFor();
  await station(page, 'Tracing');
  return { project, wall: a };
}

test('a level is tidied up: shown first, applied in one step, and found tidy after it', async () => {
  const { page, context } = await stage.person();
  const { project } = await corner(page, 'Tidied');
  await part(page, 'Tidy');
  await page.getByRole('button', { name: 'Show what changes' }).click();
  await page.getByText(/1 element changed; shown on the board/).waitFor();
  await page.getByRole('button', { name: 'Apply' }).click();
  await undoes(page, /^Undo: Tidy up/);
  expect(rounded(ofKind(await stateOf(stage, page, project), 'wall').map(({ shape }) => shape.start))).toEqual(
    expect.arrayContaining([[6, 0]]),
  );
  await page.getByRole('button', { name: 'Show what changes' }).click();
  await page.getByText(/Nothing to tidy up/).waitFor();
  await context.close();
});

test('what is selected is moved, copied, turned, mirrored, set off, changed, held and deleted', async () => {
  const { page, context } = await stage.person();
  const { project } = await corner(page, 'Changed');
  await part(page, 'Change');
  const { click } = await hand(page);
  await click(0, 4);
  await page.getByText('1 selected').waitFor();
  const columns = async () =>
    ofKind(await stateOf(stage, page, project), 'column').map(({ shape }) => rounded(shape.position));
  await way(page, 'Move');
  await click(0, 4);
  await page.keyboard.type('1.5');
  await page.keyboard.press('Tab');
  await page.keyboard.type('0');
  await page.keyboard.press('Enter');
  await undoes(page, /^Undo: Move 1 column/);
  expect(await columns()).toEqual([[1.5, 4]]);
  await way(page, 'Copy');
  await page.getByRole('textbox', { name: 'Copies in a row' }).fill('2');
  await page.keyboard.press('Enter');
  await click(1.5, 4);
  await page.keyboard.type('2');
  await page.keyboard.press('Tab');
  await page.keyboard.type('0');
  await page.keyboard.press('Enter');
  await undoes(page, /^Undo: Copy 1 column/);
  expect((await columns()).sort()).toEqual([
    [1.5, 4],
    [3.5, 4],
    [5.5, 4],
  ]);
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'All like these' }).click();
  await page.getByText('3 selected').waitFor();
  await page.getByRole('textbox', { name: 'Diameter' }).fill('0.5');
  await page.keyboard.press('Enter');
  await undoes(page, /^Undo: Diameter of 3 columns/);
  await page.getByRole('button', { name: 'Give marks' }).click();
  await undoes(page, /^Undo: Mark 3 columns/);
  const marked = ofKind(await stateOf(stage, page, project), 'column').map(({ shape }) => [
    shape.position[0],
    shape.mark,
  ]);
  expect(marked.sort()).toEqual([
    [1.5, 'C1'],
    [3.5, 'C2'],
    [5.5, 'C3'],
  ]);
  await way(page, 'Hold');
  await page.getByText('Checked: there to snap to, not to be changed.').waitFor();
  await way(page, 'Delete');
  await settled(page);
  expect(await columns()).toHaveLength(3);
  await way(page, 'Let go');
  await undoes(page, /^Undo: Let go 3 columns/);
  // A wall, by its list: set off to its left, then the corner closed.
  await page.getByRole('button', { name: /^walls \d/ }).click();
  await page.getByText('2 selected').waitFor();
  await way(page, 'To the left, outwards');
  await undoes(page, /^Undo: Set off 2 walls/);
  expect(ofKind(await stateOf(stage, page, project), 'wall')).toHaveLength(4);
  await context.close();
});

test('a grip is dragged with what is joined to it; a wall is split, and what breaks a door is refused', async () => {
  const { page, context } = await stage.person();
  const { project, wall } = await corner(page, 'Gripped');
  await part(page, 'Change');
  const { click, drag } = await hand(page);
  await click(1, 0);
  await page.getByText('1 selected').waitFor();
  await drag([0, 0], [1, 1.5]);
  await undoes(page, /^Undo: Change a wall/);
  const state = await stateOf(stage, page, project);
  const { shape } = state.element[wall] as ElementOf<'wall'>;
  expect(Math.hypot(shape.start[0] - 1, shape.start[1] - 1.5)).toBeLessThan(0.2);
  await page.keyboard.press('Control+z');
  await page.getByRole('button', { name: /^Undo: A corner/ }).waitFor();
  await way(page, 'Split');
  await click(2.5, 0);
  await settled(page);
  expect(ofKind(await stateOf(stage, page, project), 'wall')).toHaveLength(2);
  await click(4.5, 0);
  await undoes(page, /^Undo: Split a wall/);
  const after = await stateOf(stage, page, project);
  expect(ofKind(after, 'wall')).toHaveLength(3);
  expect(ofKind(after, 'opening')[0].shape).toMatchObject({ wall, offset: 2 });
  await context.close();
});

test('the list of edits says what was done, takes a name, and goes back to it as a new edit', async () => {
  const { page, context } = await stage.person();
  const { project } = await corner(page, 'Past');
  await part(page, 'Change');
  await page.getByRole('button', { name: /^walls \d/ }).click();
  await way(page, 'Delete');
  await undoes(page, /^Undo: Delete 2 walls/);
  await part(page, 'History');
  const edits = page.getByRole('list', { name: 'Edits' }).getByRole('listitem');
  await edits.first().getByText('this window').waitFor();
  const before = edits.filter({ hasText: 'A corner' });
  await before.getByRole('button', { name: 'Name' }).click();
  await page.getByRole('textbox', { name: 'Name of this point' }).fill('before revision C');
  await page.keyboard.press('Enter');
  await before.getByText('before revision C').waitFor();
  await before.getByRole('button', { name: 'Go back here' }).click();
  await undoes(page, /^Undo: Go back to/);
  expect(ofKind(await stateOf(stage, page, project), 'wall')).toHaveLength(2);
  await page.keyboard.press('Control+z');
  await settled(page);
  expect(ofKind(await stateOf(stage, page, project), 'wall')).toHaveLength(0);
  await context.close();
});

test('a key is given to another letter, and the letter that is taken is refused', async () => {
  const { page, context } = await stage.person();
  await newProject(stage, page, 'Keys');
  await station(page, 'Tracing');
  await page.keyboard.press('Control+/');
  const loupe = page.getByRole('button', { name: /^The loupe, while the key is held/ });
  await loupe.click();
  await page.keyboard.press('n');
  await page.getByText(/That key is taken by/).waitFor();
  await page.keyboard.press('y');
  await page.getByRole('button', { name: 'The loupe, while the key is held: key Y' }).waitFor();
  await page.reload();
  await page.getByRole('button', { name: 'Guide and keys' }).click();
  await part(page, 'Keys');
  await page.getByRole('button', { name: 'The loupe, while the key is held: key Y' }).waitFor();
  await context.close();
});

test('the server refuses what would be stored broken, naming why', async () => {
  const { page, context } = await stage.person();
  const { project, wall } = await corner(page, 'Broken');
  const { state, history } = (
    await ask<{ state: ProjectState; history: { version: number } }>(stage, `/api/projects/${project}/state`)
  ).body;
  const row = state.element[wall] as ElementOf<'wall'>;
  const send = (shape: object) =>
    ask<{ message: string }>(stage, `/api/projects/${project}/edits`, {
      seen: history.version,
      clientId: crypto.randomUUID(),
      edit: { label: 'Broken', changes: [{ table: 'element', id: wall, row: { ...row, shape } }] },
    });
  const short = await send({ ...row.shape, end: [2.5, 0] });
  expect([short.status, short.body.message]).toEqual([409, expect.stringMatching(/beyond the end of its wall/)]);
  const none = await send({ ...row.shape, end: row.shape.start });
  expect([none.status, none.body.message]).toEqual([409, expect.stringMatching(/wall would be stored broken/)]);
  await context.close();
});

test('nothing went wrong in the pages', () => {
  expect(problems).toEqual([]);
});
