import type { Page } from 'playwright-core';
import { tiled } from '../bench/tiledPlan';
import { groundFloor } from '../demo/ground';
import { block, box, dxf, groups, insert, line } from '@/core/drawing/testing/dxf';
import {
  bringIn,
  choose,
  clickOn,
  confirmMillimetres,
  fileNamed,
  kindTab,
  newProject,
  openStage,
  part,
  problems,
  stateOf,
  station,
  type Stage,
} from './harness';

let stage: Stage;
let page: Page;
let project: string;
beforeAll(async () => {
  stage = await openStage();
  ({ page } = await stage.person());
}, 60_000);
afterAll(async () => stage.close());

const state = () => stateOf(stage, page, project);
const columnsRead = (n: number) =>
  kindTab(page, 'Columns')
    .filter({ hasText: String(n) })
    .waitFor();

/**
 * Millimetres: a frame of 12 by 9 m, four posts as blocks, and two loose squares by hand at (2, 2) and (9, 2) metres,
 * all on layers that say nothing.
 */
const square = (x: number, y: number, side: number) =>
  line(x, y, x + side, y, 'L1') +
  line(x + side, y, x + side, y + side, 'L1') +
  line(x + side, y + side, x, y + side, 'L1') +
  line(x, y + side, x, y, 'L1');
const plan = dxf({
  header: groups([9, '$INSUNITS'], [70, 4]),
  blocks:
    block(
      'POST',
      groups(
        [0, 'LWPOLYLINE'],
        [8, '0'],
        [90, 4],
        [70, 1],
        [10, -200],
        [20, -200],
        [10, 200],
        [20, -200],
        [10, 200],
        [20, 200],
        [10, -200],
        [20, 200],
      ),
    ) + block('LAMP', groups([0, 'CIRCLE'], [8, '0'], [10, 0], [20, 0], [40, 80])),
  entities:
    line(0, 0, 12_000, 0, 'L2') +
    line(12_000, 0, 12_000, 9000, 'L2') +
    line(12_000, 9000, 0, 9000, 'L2') +
    line(0, 9000, 0, 0, 'L2') +
    [
      [1000, 1000],
      [11_000, 1000],
      [11_000, 8000],
      [1000, 8000],
    ]
      .map(([x, y]) => insert('POST', x, y, [], 'L2'))
      .join('') +
    insert('LAMP', 6000, 5000, [], 'L2') +
    square(2000, 2000, 300) +
    square(9000, 2000, 300),
});

test('a block is given a role of its own, and everything that comes by it is read', async () => {
  project = await newProject(stage, page, 'Sorting');
  await bringIn(page, fileNamed('posts.dxf', plan));
  await confirmMillimetres(page);
  await station(page, 'Sorting');
  await part(page, 'Blocks');
  await page.getByText('at 4 places').waitFor();
  await choose(page, 'Role of block POST', 'Column');
  await page.getByText('1 of 2 blocks have a role of their own').waitFor();
  expect(Object.values((await state()).pick)).toMatchObject([{ kind: 'block', name: 'POST', role: 'column' }]);
  await station(page, 'Reading');
  await columnsRead(4);
});

test('lines are picked on the board, one by one and inside an outline, and kept with a role', async () => {
  await station(page, 'Sorting');
  await part(page, 'Picked lines');
  await page.getByRole('button', { name: 'Inside an outline' }).click();
  await clickOn(page, [1.7, 1.7], [2.6, 2.6]);
  await page.keyboard.press('Enter');
  await page.getByRole('heading', { name: '4 lines picked' }).waitFor();
  await page.getByRole('button', { name: 'One by one' }).click();
  await clickOn(page, [9.15, 2], [9.3, 2.15], [9.15, 2.3], [9, 2.15]);
  await page.getByRole('heading', { name: '8 lines picked' }).waitFor();
  // Clicked once more a line is let go.
  await clickOn(page, [9.15, 2]);
  await page.getByRole('heading', { name: '7 lines picked' }).waitFor();
  await clickOn(page, [9.15, 2]);
  await page.getByRole('textbox', { name: 'Name of the picked lines' }).fill('Two posts');
  await choose(page, 'Role of the picked lines', 'Column');
  await page.getByRole('list', { name: 'Picked lines' }).getByText('8 lines').waitFor();
  await station(page, 'Reading');
  await columnsRead(6);
  await page.getByRole('button', { name: /^Undo: Two posts: 8 lines as column/ }).click();
  await columnsRead(4);
  await page.getByRole('button', { name: /^Redo: Two posts/ }).click();
  await columnsRead(6);
});

test('a role map carries the roles of blocks to the next drawing', async () => {
  await station(page, 'Sorting');
  await part(page, 'Role maps');
  await page.getByRole('textbox', { name: 'Name of the role map' }).fill('Post office');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await page.getByText(/Role map Post office is kept/).waitFor();
  await station(page, 'Intake');
  await page.getByLabel('Files to bring in').setInputFiles(fileNamed('posts-2.dxf', plan));
  await page.getByRole('button', { name: /^posts-2/ }).click();
  await station(page, 'Sorting');
  await part(page, 'Blocks');
  await page.getByText('0 of 2 blocks have a role of their own').waitFor();
  await part(page, 'Role maps');
  await page.getByRole('button', { name: 'Apply role map Post office' }).click();
  await page.getByText(/and 1 block matched/).waitFor();
  await part(page, 'Blocks');
  await page.getByText('1 of 2 blocks have a role of their own').waitFor();
});

test('one thing put right has all that is like it read so, and a role map takes the lesson to the next drawing', async () => {
  // Posts of 350 mm as outlines and circles of the same size, on a layer that says nothing; the next one is in metres.
  const post = (x: number, y: number, unit: number) => box('L7', (x + 0.175) / unit, (y + 0.175) / unit, 0.35 / unit);
  const sheet = (unit: number, code: number, posts: number) =>
    dxf({
      header: groups([9, '$INSUNITS'], [70, code]),
      entities:
        line(0, 0, 12 / unit, 0, 'L2') +
        line(0, 9 / unit, 12 / unit, 9 / unit, 'L2') +
        Array.from({ length: posts }, (_, i) => post(1 + 2 * i, 2, unit)).join('') +
        groups([0, 'CIRCLE'], [8, 'L7'], [10, 6 / unit], [20, 6 / unit], [40, 0.2 / unit]),
    });
  project = await newProject(stage, page, 'Lessons');
  await bringIn(page, fileNamed('first.dxf', sheet(0.001, 4, 5)));
  await confirmMillimetres(page);
  await station(page, 'Sorting');
  await part(page, 'Layers');
  await choose(page, 'Role of L7', 'Ignore');
  await part(page, 'Picked lines');
  await page.getByRole('button', { name: 'Point at one' }).click();
  await clickOn(page, [1.175, 2]);
  await page.getByRole('status').filter({ hasText: 'An outline; alike on this drawing: 5' }).waitFor();
  await page.getByRole('checkbox', { name: /round/ }).waitFor();
  await choose(page, 'Role of all alike', 'Column');
  await page
    .getByRole('list', { name: 'Picked lines' })
    .getByText('outline of 4 corners, on L7, of one size')
    .waitFor();
  await station(page, 'Reading');
  await columnsRead(5);
  await station(page, 'Sorting');
  await part(page, 'Role maps');
  await page.getByRole('textbox', { name: 'Name of the role map' }).fill('Lesson office');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await page.getByText(/Role map Lesson office is kept/).waitFor();

  project = await newProject(stage, page, 'Lessons taken over');
  await bringIn(page, fileNamed('next.dxf', sheet(1, 6, 3)));
  await station(page, 'Sorting');
  await part(page, 'Role maps');
  await page.getByRole('button', { name: 'Apply role map Lesson office' }).click();
  await page.getByText(/1 lesson taken over/).waitFor();
  await station(page, 'Reading');
  await columnsRead(3);
  expect(Object.values((await state()).pick)).toMatchObject([{ kind: 'alike', role: 'column' }]);
});

test('what a layer means goes before what is drawn on it, and walls drawn otherwise are doubted', async () => {
  project = await newProject(stage, page, 'Meanings');
  await bringIn(page, fileNamed('marram-ground.dxf', groundFloor().dxf));
  await confirmMillimetres(page);
  await station(page, 'Reading');
  await part(page, 'Library');
  await page.getByRole('button', { name: 'Wall', exact: true }).click();
  await page.getByRole('textbox', { name: 'Name', exact: true }).fill('Masonry');
  await page.keyboard.press('Enter');
  await page.getByRole('list', { name: 'Wall constructions' }).getByText('Masonry').waitFor();
  await page.getByRole('textbox', { name: 'Thickness' }).fill('300 mm');
  await page.keyboard.press('Enter');
  await page.getByRole('list', { name: 'Wall constructions' }).getByText('0.300 m').waitFor();
  await station(page, 'Sorting');
  await part(page, 'Layers');
  await choose(page, 'What A-WALL means', 'Masonry');
  await station(page, 'Reading');
  await part(page, 'Review');
  await kindTab(page, 'Walls').filter({ hasText: '38' }).click();
  // 22 walls are drawn 300 thick; the others are doubted.
  await page.getByRole('combobox', { name: 'Show of these' }).click();
  await page
    .getByRole('option', { name: /^Doubtful/ })
    .filter({ hasText: '16' })
    .click();
  await page
    .getByRole('list', { name: /^Walls/ })
    .getByText(/drawn as 150 mm/)
    .first()
    .waitFor();
});

test('a long reading says where it is, is stopped with what it has, and goes on', async () => {
  const large = tiled(110_000);
  project = await newProject(stage, page, 'Long');
  await bringIn(page, fileNamed('large.dxf', large.dxf));
  await confirmMillimetres(page);
  await station(page, 'Reading');
  await page.getByRole('button', { name: 'Stop with what it has' }).click();
  await page.getByText(/^Reading was stopped: .*contours are not read\./).waitFor({ timeout: 60_000 });
  await page.getByRole('button', { name: 'Read all' }).click();
  await page.getByText(/^Reading was stopped/).waitFor({ state: 'detached' });
  await kindTab(page, 'Zones')
    .filter({ hasNotText: /Zones 0$/ })
    .waitFor({ timeout: 90_000 });
  expect(problems).toEqual([]);
});

test('a table of 500 layers is searched and sorted at once', async () => {
  const entities = Array.from({ length: 500 }, (_, i) =>
    line(0, i * 100, 5000, i * 100, `X-${String(i).padStart(3, '0')}`),
  ).join('');
  project = await newProject(stage, page, 'Layers');
  await bringIn(page, fileNamed('layers.dxf', dxf({ header: groups([9, '$INSUNITS'], [70, 4]), entities })));
  await station(page, 'Sorting');
  await page.getByRole('heading', { name: /of 50[01] layers have a role/ }).waitFor();
  await page.getByRole('textbox', { name: 'Find a layer' }).fill('X-49');
  await page.getByRole('heading', { name: '0 of 10 layers have a role' }).waitFor();
  await page.getByRole('checkbox', { name: 'Select all rows' }).check();
  await page.getByText('10 chosen:').waitFor();
  await choose(page, 'Role of the chosen layers', 'Wall');
  await page.getByRole('heading', { name: '10 of 10 layers have a role' }).waitFor();
  expect(Object.values((await state()).role).filter(({ role }) => role === 'wall')).toHaveLength(10);
});
