import type { Page } from 'playwright-core';
import { finishedName } from '@/cli/seedFinished';
import type { ProjectState } from '@/core/model/state';
import {
  ask,
  boardMap,
  clickOn,
  newProject,
  openFinished,
  part,
  problems,
  selection,
  station,
  type Stage,
  settled,
  openProject,
} from './harness';

let stage: Stage;
let project: string;

beforeAll(async () => {
  ({ stage, project } = await openFinished());
}, 90_000);
afterAll(async () => stage.close());

const stateOf = async (id: string) =>
  (await ask<{ state: ProjectState }>(stage, `/api/projects/${id}/state`)).body.state;
const columnsOf = (state: ProjectState) =>
  Object.values(state.element).flatMap((element) => (element.kind === 'column' ? [element] : []));

/** Opens the finished project, at Handover, where the board shows the model alone. */
async function open(page: Page): Promise<void> {
  await openProject(stage, page, project);
  await station(page, 'Handover');
  await part(page, 'Single files');
}

/** Drags between points of the project. */
async function drag(page: Page, from: [number, number], to: [number, number], key?: 'Shift'): Promise<void> {
  await settled(page);
  const at = await boardMap(page);
  if (key) await page.keyboard.down(key);
  await page.mouse.move(...at(...from));
  await page.mouse.down();
  await page.mouse.move(...at((from[0] + to[0]) / 2, (from[1] + to[1]) / 2));
  await page.mouse.move(...at(...to));
  await settled(page);
  await page.mouse.up();
  if (key) await page.keyboard.up(key);
}

test('the finished project is one building: a click selects a column, Ctrl adds one, Escape clears', async () => {
  const { page, context } = await stage.person();
  await open(page);
  // Grid crossings 1/A and 2/A of the demo's building.
  await clickOn(page, [0, 0]);
  await selection(page)
    .getByText(/^column/)
    .waitFor();
  await page.keyboard.down('Control');
  await clickOn(page, [5.4, 0]);
  await page.keyboard.up('Control');
  await selection(page).getByRole('button', { name: '2 columns' }).waitFor();
  await page.keyboard.press('Escape');
  await selection(page).waitFor({ state: 'detached' });
  await context.close();
});

test('a box selects what lies inside it; a kind leaves the others out; Delete deletes, and undo brings back', async () => {
  const { page, context } = await stage.person();
  await open(page);
  const before = columnsOf(await stateOf(project));
  const inside = before.filter(
    ({ levelId, shape: { position } }) =>
      levelId === before.find(({ shape }) => Math.hypot(...shape.position) < 0.1)!.levelId &&
      position[0] < 12 &&
      position[0] > -1 &&
      position[1] < 8 &&
      position[1] > -1,
  );
  await drag(page, [-1, -1], [12, 8], 'Shift');
  await selection(page)
    .getByRole('button', { name: /\d+ columns/ })
    .click();
  await selection(page)
    .getByRole('button', { name: `${inside.length} columns` })
    .waitFor();
  await selection(page).getByRole('button', { name: 'Delete' }).click();
  await selection(page).waitFor({ state: 'detached' });
  await page.getByText(/^Saved/).waitFor();
  expect(columnsOf(await stateOf(project))).toHaveLength(before.length - inside.length);
  await page.getByRole('button', { name: `Undo: Delete ${inside.length} columns` }).click();
  await page.getByRole('button', { name: /^Redo/ }).waitFor();
  await page.getByText(/^Saved/).waitFor();
  expect(columnsOf(await stateOf(project))).toHaveLength(before.length);
  await context.close();
});

test('two windows drag at once: each column lands where it was dropped, and both windows show both', async () => {
  const [one, two] = [await stage.person(), await stage.person()];
  await Promise.all([open(one.page), open(two.page)]);
  const before = (await stateOf(project)).element;
  await clickOn(one.page, [5.4, 0]);
  await clickOn(two.page, [16.95, 17.1]);
  await Promise.all([drag(one.page, [5.4, 0], [5.4, -6]), drag(two.page, [16.95, 17.1], [16.95, 23])]);
  for (const { page } of [one, two]) {
    await settled(page);
    await page.getByText(/^Saved/).waitFor();
  }
  const moved = columnsOf(await stateOf(project)).filter(({ id, shape }) => {
    const was = before[id];
    return was.kind === 'column' && Math.hypot(was.shape.position[1] - shape.position[1]) > 1;
  });
  // Where something was held on to, a column lies on it: within reach of where it was dropped.
  expect(moved.map(({ shape }) => shape.position.map(Math.round)).sort()).toEqual([
    [expect.closeTo(17, -0.2), expect.closeTo(23, -0.4)],
    [expect.closeTo(5, -0.2), expect.closeTo(-6, -0.4)],
  ]);
  const [up, down] = moved.map(({ shape }) => shape.position).sort((a, b) => b[1] - a[1]) as [number, number][];
  // Each window's click finds what the other moved.
  await clickOn(one.page, up);
  await selection(one.page)
    .getByText(/^column/)
    .waitFor();
  await clickOn(two.page, down);
  await selection(two.page)
    .getByText(/^column/)
    .waitFor();
  await one.context.close();
  await two.context.close();
});

test('a step of one project, queued while the server is away, never lands in the project opened next', async () => {
  const { page, context } = await stage.person();
  const other = await newProject(stage, page, 'Opened next');
  const mine = await newProject(stage, page, 'Left behind');
  let away = true;
  await context.route(`**/api/projects/${mine}/edits`, (route) => (away ? route.abort() : route.continue()));
  await page.getByRole('button', { name: 'Add level' }).click();
  await page.getByText(/Server away/).waitFor();
  // Inside the application, so that the window goes on; the way back is asked about only where the page is left.
  await page.evaluate((address) => history.pushState({}, '', address), `/projects/${mine}`);
  await page.getByRole('link', { name: 'Zircon Frame' }).click();
  await page.getByText('Opened next', { exact: true }).click();
  await page.waitForURL(new RegExp(other));
  away = false;
  const levels = async (id: string) => Object.keys((await stateOf(id)).level).length;
  while ((await levels(mine)) < 2) await settled(page);
  expect([await levels(other), await levels(mine)]).toEqual([1, 2]);
  await context.close();
});

test('after a hundred changes of scene the GPU keeps no more than before', async () => {
  const { page, context } = await stage.person();
  await open(page);
  const held = () => page.evaluate(() => window.zirconBoard!.held());
  const change = async () => {
    for (const name of ['Upper', 'Ground']) {
      await page.getByRole('button', { name: new RegExp(`^${name}, `) }).click();
    }
  };
  for (let i = 0; i < 4; i += 1) await change();
  await settled(page);
  const before = await held();
  for (let i = 0; i < 50; i += 1) await change();
  await settled(page);
  const after = await held();
  expect(after.targets).toBeLessThanOrEqual(before.targets + 1);
  expect(after.buffers).toBeLessThanOrEqual(before.buffers + 1);
  await context.close();
});

test('the list of projects shows the building, and nothing went wrong unasked', async () => {
  const { page, context } = await stage.person();
  await page.goto(stage.address);
  const card = page.getByRole('listitem').filter({ hasText: finishedName });
  expect((await card.locator('svg path').first().getAttribute('d'))!.length).toBeGreaterThan(500);
  expect(problems).toEqual([]);
  await context.close();
});
