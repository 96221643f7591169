import type { Page } from 'playwright-core';
import { groundFloor } from '../demo/ground';
import { acts, shownKey } from '@/project/keys';
import type { ProjectState } from '@/core/model/state';
import {
  bringIn,
  clickOn,
  fileNamed,
  newProject,
  ofKind,
  openFinished,
  part,
  problems,
  selection,
  station,
  stateOf as stateIn,
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

/** What the search box calls some acts that the page of keys has other words for. */
const stationKeys: Record<string, string> = {
  v: 'Show the model in space',
  p: 'Open a second view',
  m: 'Measure a distance',
  'ctrl .': 'Fold the bench',
};

const stateOf = (page: Page, id = project): Promise<ProjectState> => stateIn(stage, page, id);

async function open(page: Page): Promise<void> {
  await openProject(stage, page, project);
  // All drawings are open once nothing is being opened any more.
  await page.getByText('opening drawings').waitFor({ state: 'detached' });
}

/** Types into the search box and waits for what it offers. */
async function offered(page: Page, words: string) {
  await page.keyboard.press('Control+;');
  await page.keyboard.press('Control+a');
  await page.keyboard.type(words);
  await settled(page);
  return page.getByRole('option');
}

test('elements are found by mark, room, size and handle; texts in every drawing; and gone to', async () => {
  const { page, context } = await stage.person();
  await open(page);
  await (await offered(page, 'wet lab')).filter({ hasText: 'zone 0.10 Wet Lab' }).click();
  await selection(page)
    .getByText(/Wet Lab/)
    .waitFor();
  const centre = await page.evaluate(() => window.zirconBoard!.camera);
  // The wing stands to the east of the main block.
  expect(centre.x).toBeGreaterThan(34);
  await (await offered(page, 'T2 beam')).filter({ hasText: /^Select all/ }).click();
  const marked = ofKind(await stateOf(page), 'beam').filter(({ shape }) => shape.mark === 'T2');
  await selection(page)
    .getByRole('button', { name: `${marked.length} beams` })
    .waitFor();
  // What is written in the basement's drawing is gone to there, on its level.
  await (await offered(page, 'pump hall')).filter({ hasText: 'in marram-basement' }).click();
  await page
    .getByRole('button', { name: /^Basement, .*/, pressed: true })
    .or(page.getByText('Basement', { exact: true }))
    .first()
    .waitFor();
  const [column] = ofKind(await stateOf(page), 'column');
  await (
    await offered(page, column.source!.handles[0])
  )
    .filter({ hasText: /^column/ })
    .first()
    .click();
  await selection(page)
    .getByText(/^column/)
    .waitFor();
  await (await offered(page, 'elements of layer A-DOOR marram-ground')).first().click();
  await selection(page).waitFor();
  await context.close();
});

test('a length that is typed is measured off, coordinates are gone to, and every command says its key', async () => {
  const { page, context } = await stage.person();
  await open(page);
  const length = (await offered(page, '3.75 m')).first();
  expect(await length.innerText()).toMatch(/Measure off 3\.750 m[\s\S]*3750 mm[\s\S]*12' 3 5\/8"/);
  await length.click();
  await clickOn(page, [0, 0], [4, 0.02]);
  await station(page, 'Datum');
  await part(page, 'Measure');
  await page.getByText('3.750 m').first().waitFor();
  await (await offered(page, '16.95, 6.9')).filter({ hasText: 'Go to 16.950 m, 6.900 m' }).click();
  await page.waitForFunction(() => Math.abs(window.zirconBoard!.camera.x - 16.95) < 0.01);
  expect(await page.evaluate(() => window.zirconBoard!.camera.y)).toBeCloseTo(6.9, 2);
  expect(await (await offered(page, 'model in space')).first().innerText()).toMatch(/cut, seen through[\s\S]*V$/);
  expect(await (await offered(page, 'the keys')).first().innerText()).toMatch(/Ctrl \/$/);
  await page.keyboard.press('Escape');
  // Keys do it too.
  await page.getByRole('application').first().focus();
  await page.keyboard.press('v');
  await page.getByRole('application', { name: /^The model in space/ }).waitFor();
  await page.keyboard.press('v');
  await page.keyboard.press('Alt+Shift+Digit5');
  await page.getByRole('heading', { name: 'Tracing', level: 1 }).waitFor();
  await page.keyboard.press('F1');
  await page.getByRole('article', { name: 'Guide: Tracing' }).waitFor();
  const picture = page.getByRole('img', { name: 'Tracing in the demo' });
  await page.waitForFunction((img) => (img as HTMLImageElement).naturalWidth > 600, await picture.elementHandle());
  await page.keyboard.press('Escape');
  await context.close();
});

test('every command says what it does, and every key that can be changed is found with its key', async () => {
  const { page, context } = await stage.person();
  await open(page);
  const groups = [
    'Station',
    'Board',
    'Space',
    'Program',
    'Project unit',
    'Level',
    'Datum',
    'Sorting',
    'Tracing',
    'Make',
  ];
  for (const group of [...groups, 'Axes', 'Help', 'Drawing', 'Layer', 'Crossing', 'Key']) {
    const words = await (await offered(page, group)).allInnerTexts();
    expect(words.length).toBeGreaterThan(0);
    for (const option of words.filter((text) => !/^(Select all|zone|wall|column|beam|grid)/.test(text)))
      expect(option.split('\n').filter((line) => line.trim() !== '').length).toBeGreaterThan(1);
  }
  for (const { words, key } of Object.values(acts)) {
    if (key === 'ctrl z' || key === 'ctrl y') continue;
    const shown = shownKey(key);
    const name = Object.keys(stationKeys).includes(key) ? stationKeys[key] : words;
    const texts = await (await offered(page, name)).allInnerTexts();
    expect([name, texts.some((text) => text.trim().endsWith(shown))]).toEqual([name, true]);
  }
  await context.close();
});

test('a mark is followed through its schedule and its type in the second view, which is searched and measured', async () => {
  const { page, context } = await stage.person();
  await open(page);
  await (await offered(page, 'beam T1')).first().click();
  await selection(page)
    .getByText(/^beam T1/)
    .waitFor();
  await page.keyboard.press('p');
  const pane = page.getByRole('region', { name: 'Second view' });
  await pane.waitFor();
  const places = page.getByRole('region', { name: 'Places of T1' });
  // Its row names a type; the type's size stands on the section's sheet.
  await places
    .getByRole('button', { name: /^T1\s+Type R.*schedule/ })
    .first()
    .waitFor();
  await places.getByRole('button', { name: /^R\s+250x500.*marram-section/ }).click();
  await pane.getByRole('combobox', { name: 'Drawing in the second view' }).getByText('marram-section').waitFor();
  await pane.getByRole('textbox', { name: 'Find a text in this drawing' }).fill('floor');
  await page.keyboard.press('Enter');
  await pane.getByText('1 of 2').waitFor();
  await page.keyboard.press('Enter');
  await pane.getByText('2 of 2').waitFor();
  await pane.getByRole('button', { name: 'Measure in the second view' }).click();
  await page.reload();
  await page.getByRole('region', { name: 'Second view' }).getByText('marram-section').waitFor();
  await page.getByRole('button', { name: 'Close the second view' }).click();
  await page.getByRole('region', { name: 'Second view' }).waitFor({ state: 'detached' });
  await context.close();
});

test('a view is kept for everybody with its level, place, cut and second drawing, and recalled by its key', async () => {
  const { page, context } = await stage.person();
  await open(page);
  await page.getByRole('button', { name: /^Upper, / }).click();
  await page.evaluate(() => window.zirconBoard!.look([0, 0, 8, 6]));
  await settled(page);
  const camera = await page.evaluate(() => window.zirconBoard!.camera);
  await page.getByRole('button', { name: 'Views', exact: true }).click();
  await page.getByRole('textbox', { name: 'Name of this view' }).fill('Bunk room');
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  const key = page.getByRole('textbox', { name: 'Key of view Bunk room' });
  await key.press('v');
  await page.getByText(/V is the key of .The model in space/).waitFor();
  await key.press('q');
  await page.waitForFunction(() => (document.activeElement as HTMLInputElement).value === 'Q');
  await page.keyboard.press('Escape');
  // Somebody else is somewhere else, and presses the key.
  const other = await stage.person();
  await open(other.page);
  await other.page.getByRole('button', { name: /^Basement, / }).click();
  await other.page.getByRole('application').first().focus();
  await other.page.keyboard.press('q');
  await other.page.waitForFunction(
    ([x, y]) => Math.abs(window.zirconBoard!.camera.x - x) < 1e-6 && Math.abs(window.zirconBoard!.camera.y - y) < 1e-6,
    [camera.x, camera.y],
  );
  await (await offered(other.page, 'look at bunk')).filter({ hasText: 'Look at Bunk room' }).waitFor();
  await other.page.keyboard.press('Escape');
  expect(Object.values((await stateOf(page)).view).map(({ name, key: letter }) => [name, letter])).toEqual([
    ['Bunk room', 'q'],
  ]);
  await other.context.close();
  await context.close();
});

test('a wrong unit is put right with everything on it, shown before, and undone', async () => {
  const { page, context } = await stage.person();
  const id = await newProject(stage, page, 'Late');
  await bringIn(page, fileNamed('ground.dxf', groundFloor().dxf));
  await station(page, 'Datum');
  await page.getByRole('radio', { name: 'centimetres' }).check();
  await page.getByRole('button', { name: 'Take centimetres' }).click();
  await page.getByText('centimetres confirmed').waitFor();
  await station(page, 'Reading');
  const tab = page.getByRole('tablist', { name: 'Kinds' }).getByRole('tab', { name: /^Grid/ });
  await tab.waitFor({ timeout: 60_000 });
  await page
    .getByRole('button', { name: /^Accept \d+ of all kinds|^Accept all/ })
    .first()
    .click();
  await page.getByRole('status').filter({ hasText: 'Saved' }).waitFor();
  // A support by hand at the crossing of grid lines 2 and A, ten times too far away.
  await station(page, 'Tracing');
  await page.getByRole('radio', { name: 'Support' }).click();
  await page.getByRole('button', { name: 'One by one' }).click();
  await page.evaluate(() => window.zirconBoard!.look([40, -10, 70, 10]));
  await clickOn(page, [54, 0]);
  await page.getByRole('button', { name: /^Undo: Draw 1 support/ }).waitFor();
  await page.keyboard.press('Escape');
  await station(page, 'Datum');
  await part(page, 'Unit');
  await page.getByRole('radio', { name: 'millimetres' }).check();
  await page.getByRole('button', { name: 'Take millimetres' }).click();
  const panel = page.getByRole('dialog', { name: /elements hang on this drawing/ });
  await panel.getByText('1 element drawn by hand where it lies; typed sizes stay').waitFor();
  await panel.getByText('1 support').waitFor();
  await panel.getByRole('button', { name: 'Look at them' }).click();
  await panel.getByRole('button', { name: 'Elements go along' }).click();
  await page.getByText('millimetres confirmed').waitFor();
  const right = await stateOf(page, id);
  const [support] = ofKind(right, 'support');
  expect(support.shape.position).toEqual([expect.closeTo(5.4, 6), expect.closeTo(0, 6)]);
  const upright = ofKind(right, 'grid').flatMap(({ shape }) => (shape.kind === 'line' ? [shape.start[0]] : []));
  expect(Math.min(...upright.map((x) => Math.abs(x - 5.4)))).toBeLessThan(1e-6);
  await page.keyboard.press('Control+z');
  await page.getByText('centimetres confirmed').waitFor();
  const [back] = ofKind(await stateOf(page, id), 'support');
  expect(back.shape.position[0]).toBeCloseTo(54, 6);
  await context.close();
});

test('the pages had nothing to complain about', () => {
  expect(problems).toEqual([]);
});
