import type { Page } from 'playwright-core';
import { groundFloor } from '../demo/ground';
import { bringIn, fileNamed, newProject, openStage, problems, station, stateOf, type Stage } from './harness';

let stage: Stage;
let page: Page;

beforeAll(async () => {
  stage = await openStage();
  ({ page } = await stage.person());
}, 60_000);
afterAll(async () => stage.close());

const names = () => page.getByRole('listitem').getByRole('link').locator('b').allInnerTexts();
const menu = async (project: string, item: string) => {
  await page.getByRole('button', { name: `What to do with ${project}`, exact: true }).click();
  await page.getByRole('menuitem', { name: item }).click();
};

test('an empty list says what to do, and a name is asked for', async () => {
  await page.goto(stage.address);
  await page.getByText('No project yet. Make one, then bring in a DXF plan.').waitFor();
  await page.getByRole('button', { name: 'New project' }).click();
  await page.getByRole('button', { name: 'Create' }).click();
  await page.getByText('A name needs at least one character.').waitFor();
  await page.keyboard.press('Escape');
});

test('a project is renamed and the new name is undone in its workspace', async () => {
  await newProject(stage, page, 'Harbour Office');
  await page.goto(stage.address);
  await menu('Harbour Office', 'Rename');
  await page.getByRole('textbox', { name: 'Name' }).fill('Harbour House');
  await page.getByRole('button', { name: 'Rename', exact: true }).click();
  await page.getByText('Harbour House', { exact: true }).first().click();
  await page.getByRole('button', { name: 'Undo: Rename to Harbour House' }).click();
  await page.getByRole('heading', { name: 'Harbour Office' }).waitFor();
});

test('a copy has everything of its own: what is done in it leaves the first as it was', async () => {
  await bringIn(page, fileNamed('ground.dxf', groundFloor().dxf));
  await station(page, 'Reading');
  await page.getByRole('button', { name: 'Accept 20' }).click();
  await page.getByRole('navigation', { name: 'Course' }).getByText('20 elements').waitFor();
  await page.goto(stage.address);
  await menu('Harbour Office', 'Duplicate');
  await page.getByText('Harbour Office (copy)', { exact: true }).first().click();
  await page.getByRole('navigation', { name: 'Course' }).getByText('20 elements').waitFor();
  await station(page, 'Reading');
  await page.getByRole('tab', { name: /accepted\s*20/ }).click();
  await page.getByRole('button', { name: 'Judge 20 again' }).click();
  await page.getByRole('tab', { name: /to judge\s*20/ }).waitFor();
  // The list tells what is stored.
  await stateOf(stage, page, page.url().split('/').pop()!);
  await page.goto(stage.address);
  await page.getByText('1 drawing, 20 elements, 1 level').waitFor();
  await page.getByText('1 drawing, 0 elements, 1 level').waitFor();
  expect(await stage.sql('select count(*)::int as n from files')).toEqual([{ n: 1 }]);
});

test('deleting is undone from the notice and from the list, and for good only after asking', async () => {
  await menu('Harbour Office (copy)', 'Delete');
  await page.getByRole('button', { name: 'Undo' }).click();
  await page.getByText('Harbour Office (copy)', { exact: true }).first().waitFor();
  await menu('Harbour Office (copy)', 'Delete');
  await page.getByText('Deleted: 1').click();
  await page.getByRole('button', { name: 'Restore' }).click();
  await page.getByText('Deleted: 1').waitFor({ state: 'detached' });
  expect((await names()).sort()).toEqual(['Harbour Office', 'Harbour Office (copy)']);
  await menu('Harbour Office (copy)', 'Delete');
  await page.getByText('Deleted: 1').click();
  await page.getByRole('button', { name: 'Delete for good' }).click();
  await page.getByRole('button', { name: 'Cancel' }).click();
  await page.getByRole('dialog').waitFor({ state: 'detached' });
  await page.getByRole('button', { name: 'Delete for good' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Delete for good' }).click();
  await page.getByText('Deleted: 1').waitFor({ state: 'detached' });
  expect(
    await stage.sql(
      'select (select count(*) from projects)::int as projects, (select count(*) from files)::int as files',
    ),
  ).toEqual([{ projects: 1, files: 1 }]);
});

test('levels are added, named, moved with lengths in any unit, and removed; wrong ones are explained', async () => {
  await page.getByText('Harbour Office', { exact: true }).first().click();
  await page.getByRole('button', { name: 'Add level' }).click();
  await page.getByRole('button', { name: /^Level 1/ }).click();
  await page.getByRole('button', { name: 'Edit level' }).click();
  await page.getByRole('textbox', { name: 'Name' }).fill('Upper');
  await page.getByLabel('Elevation').fill('0');
  await page.getByRole('button', { name: 'Apply' }).click();
  await page.getByText('Another level stands at this elevation.').waitFor();
  await page.getByLabel('Elevation').fill('12\' 9 9/16"');
  await page.getByLabel('Height to next').fill('nothing');
  await page.getByRole('button', { name: 'Apply' }).click();
  await page.getByText(/"nothing" is not a length/).waitFor();
  await page.getByLabel('Height to next').fill('360 cm');
  await page.getByRole('button', { name: 'Apply' }).click();
  // 12 ft 9 9/16 in = 153.5625 in = 3.9005 m.
  await page.getByRole('button', { name: 'Upper, +3.900 m' }).waitFor();
  await page.getByRole('button', { name: 'Edit level' }).click();
  await page.getByRole('button', { name: 'More' }).click();
  await page.getByRole('button', { name: 'Delete Upper' }).click();
  await page.getByRole('button', { name: /^Upper, / }).waitFor({ state: 'detached' });
  await page.getByRole('button', { name: 'Undo: Delete Upper' }).click();
  await page.getByRole('button', { name: 'Upper, +3.900 m' }).waitFor();
});

test('the search box finds crossings, changes units and turns the lights off', async () => {
  const find = async (text: string) => {
    await page.keyboard.press('Control+;');
    await page.keyboard.type(text);
    await page.keyboard.press('Enter');
  };
  await find('lengths in feet and inches');
  await page.getByRole('button', { name: /^Upper, \+12' 9/ }).waitFor();
  await find('go to 5/B');
  await find('dark colours');
  await page.getByRole('button', { name: 'Light colours' }).waitFor();
  expect(await page.locator('html').getAttribute('data-scheme')).toBe('dark');
  await page.reload();
  await page.getByRole('button', { name: 'Light colours' }).waitFor();
  // The search box is there with the project.
  await page.getByRole('button', { name: /^Upper, / }).waitFor();
  await find('nothing that exists');
  await page.getByText('Nothing of that name').waitFor();
});

test('a drawing is set aside and discarded, and both are undone', async () => {
  await station(page, 'Intake');
  await page.getByRole('button', { name: 'Set aside ground' }).click();
  await page.getByText('set aside').waitFor();
  await page.getByRole('button', { name: 'Bring back ground' }).click();
  await page.getByRole('button', { name: 'Discard ground', exact: true }).click();
  await page.getByText('No drawing yet', { exact: true }).waitFor();
  await page.getByRole('button', { name: 'Undo: Discard ground' }).click();
  await page.getByRole('button', { name: 'Discard ground', exact: true }).waitFor();
});

test('a unit changed under accepted elements asks what to do with them', async () => {
  await station(page, 'Datum');
  await page.getByRole('tab', { name: 'Unit' }).click();
  await page.getByLabel('centimetres').check();
  await page.getByRole('button', { name: 'Take centimetres' }).click();
  await page.getByText('20 elements hang on this drawing').waitFor();
  await page.getByRole('button', { name: 'Elements go along' }).click();
  await page.getByText('centimetres confirmed').waitFor();
  const [line] = await stage.sql<{ length: number }>(
    "select ((shape->'end'->>0)::float - (shape->'start'->>0)::float) as length from elements where shape->>'label' = 'A'",
  );
  expect(line.length).toBeCloseTo(373.5, 6);
  await page.getByRole('button', { name: 'Undo: ground is in centimetres' }).click();
  await page.getByRole('button', { name: 'Take millimetres' }).waitFor();
});

test('the pages had nothing to complain about', () => {
  expect(problems).toEqual([]);
});
