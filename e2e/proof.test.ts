import type { ElementOf } from '@/core/kinds/element';
import type { ProjectState } from '@/core/model/state';
import { ask, openStage, problems, station, type Stage } from './harness';

let stage: Stage;
let project: string;

beforeAll(async () => {
  stage = await openStage();
  project = await stage.seed();
}, 90_000);
afterAll(async () => stage.close());

test('a finding is found, gone to by key, put right and undone; the course counts it', async () => {
  const { page, context } = await stage.person();
  await page.goto(`${stage.address}/projects/${project}`);
  await page.getByText(/[\d,]+ lines, \d+ elements/).waitFor();
  await station(page, 'Proof');
  // The finished building has no errors; its columns beside the basement stand on the ground.
  await page.getByRole('tab', { name: 'Errors 0' }).waitFor();
  await page.getByText(/^33 columns stand on the ground at 0\.000 m/).waitFor();
  // Column 1/D of the ground floor goes: the one above it stands on nothing then.
  const { state } = (await ask<{ state: ProjectState }>(stage, `/api/projects/${project}/state`)).body;
  const level = (name: string) => Object.values(state.level).find((row) => row.name === name)!.id;
  const corner = (name: string) =>
    (Object.values(state.element).filter(({ kind }) => kind === 'column') as ElementOf<'column'>[]).find(
      ({ levelId, shape: { position } }) =>
        levelId === level(name) && Math.abs(position[0]) < 0.1 && Math.abs(position[1] - 17.1) < 0.1,
    )!;
  await page.keyboard.press('Control+;');
  await page.keyboard.type(corner('Ground').source!.handles[0]);
  await page
    .getByRole('option')
    .filter({ hasText: /^column.*Ground/ })
    .first()
    .click();
  const selection = page.getByRole('region', { name: 'Selection' });
  await selection.getByRole('button', { name: 'Delete' }).click();
  await page
    .getByRole('navigation', { name: 'Course' })
    .getByText(/^\d errors?$/)
    .waitFor();
  await page.getByRole('tab', { name: /^Errors [1-9]/ }).click();
  const finding = page.getByRole('button', { name: /^Nothing stands beneath this column at 3\.900 m/ });
  await finding.waitFor();
  await page.keyboard.press('j');
  await selection.getByText(/^column/).waitFor();
  await page.waitForFunction(
    ([x, y]) => Math.hypot(window.zirconBoard!.camera.x - x, window.zirconBoard!.camera.y - y) < 0.5,
    [0, 17.1],
  );
  expect(await page.evaluate(() => [...window.zirconBoard!.scene.selected])).toEqual([corner('Upper').id]);
  await page.getByRole('button', { name: /^Undo: / }).click();
  await finding.waitFor({ state: 'detached' });
  await page.getByRole('tab', { name: 'Errors 0' }).waitFor();
  await context.close();
});

test('the pages had nothing to complain about', () => {
  expect(problems).toEqual([]);
});
