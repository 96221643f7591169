import type { Page } from 'playwright-core';
import {
  ask,
  boardMap,
  clickOn,
  ofKind,
  openFinished,
  problems,
  selection,
  settled,
  stateOf,
  station,
} from './harness';
import type { Stage } from './harness';

let stage: Stage;
let project: string;

beforeAll(async () => {
  ({ stage, project } = await openFinished());
}, 90_000);
afterAll(async () => stage.close());

async function opened() {
  const { page, context } = await stage.person();
  await page.goto(`${stage.address}/projects/${project}`);
  await station(page, 'Tracing');
  await page.getByRole('button', { name: /^Ground, / }).click();
  await page.evaluate(() => window.zirconBoard!.look([-4, -10, 14, 8]));
  await settled(page);
  return { page, context };
}

/** What of others a window shows on its board. */
const hands = (page: Page) => page.evaluate(() => window.zirconBoard!.scene.others);

test('two windows see one another: what is selected, what is dragged, where one is, and that one has gone', async () => {
  const [one, two] = await Promise.all([opened(), opened()]);
  await two.page.getByRole('button', { name: '1 other here' }).waitFor();
  // The column at (5.4, 0) is selected by one, and outlined for two.
  await clickOn(one.page, [5.4, 0]);
  await selection(one.page).waitFor();
  await two.page.waitForFunction(() => (window.zirconBoard!.scene.others[0]?.selected.length ?? 0) === 1);
  const [id] = (await hands(two.page))[0].selected;
  const columns = ofKind((await ask<{ state: never }>(stage, `/api/projects/${project}/state`)).body.state, 'column');
  const { shape } = columns.find((column) => column.id === id)!;
  expect(Math.hypot(shape.position[0] - 5.4, shape.position[1])).toBeLessThan(0.3);
  // In the middle of a drag two sees where it would come to lie; the model has it as before.
  const at = await boardMap(one.page);
  await one.page.mouse.move(...at(5.4, 0));
  await one.page.mouse.down();
  await one.page.mouse.move(...at(5.4, -3));
  await one.page.mouse.move(...at(5.4, -6));
  await two.page.waitForFunction(() =>
    window.zirconBoard!.scene.others[0].draft.some((line) => line.every(([, y]) => y < -5)),
  );
  expect(ofKind(await stateOf(stage, two.page, project), 'column').find((column) => column.id === id)!.shape).toEqual(
    shape,
  );
  await one.page.keyboard.press('Escape');
  await one.page.mouse.up();
  await two.page.waitForFunction(() => window.zirconBoard!.scene.others[0].draft.length === 0);
  // On another level it is told where one is, and nothing is outlined; "Look there" goes there.
  await one.page.getByRole('button', { name: /^Upper, / }).click();
  await two.page.waitForFunction(() => window.zirconBoard!.scene.others.length === 0);
  await two.page.getByRole('button', { name: '1 other here' }).click();
  const dialog = two.page.getByRole('dialog', { name: 'Others here' });
  await dialog.getByText(/^Tracing, Upper/).waitFor();
  await dialog.getByRole('button', { name: 'Look there' }).click();
  await two.page.waitForFunction(() => window.zirconBoard!.scene.others.length === 1);
  await two.page.getByRole('button', { name: /^Upper, /, pressed: true }).waitFor();
  // A window that is closed is gone for the others at once.
  await one.context.close();
  await two.page.getByRole('button', { name: '1 other here' }).waitFor({ state: 'detached', timeout: 10_000 });
  await two.context.close();
});

test('what is told wrongly is refused, and nobody hears of it', async () => {
  const { page, context } = await opened();
  const right = {
    window: crypto.randomUUID(),
    station: 'tracing',
    levelId: null,
    faceOn: null,
    selected: [],
    count: 0,
    draft: [],
  };
  const status = async (json: object) => (await ask(stage, `/api/projects/${project}/here`, json)).status;
  expect(await status({ ...right, selected: Array(61).fill('x') })).toBe(400);
  expect(await status({ ...right, draft: [Array(151).fill([0, 0])] })).toBe(400);
  expect(await status({ ...right, name: 'Somebody else' })).toBe(400);
  expect(await page.getByRole('button', { name: /here$/ }).count()).toBe(0);
  // The largest that may be told is told, without what is too much for a notice of the database.
  const long = { ...right, selected: Array(60).fill('x'.repeat(400)), count: 60 };
  expect(await status(long)).toBe(200);
  await page.getByRole('button', { name: '1 other here' }).click();
  await page.getByText('Tracing, 60 selected').waitFor();
  await context.close();
});

test('the pages had nothing to complain about', () => {
  expect(problems).toEqual([]);
});
