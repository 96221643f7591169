import { readFileSync } from 'node:fs';
import type { Page } from 'playwright-core';
import { groundFloor } from '../demo/ground';
import type { ModelFile } from '@/core/handover/model/schema';
import {
  bringIn,
  choose,
  confirmMillimetres,
  fileNamed,
  kindTab,
  newProject,
  openStage,
  part,
  problems,
  stateOf,
  station,
  type,
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
const labels = async () =>
  Object.values((await state()).element)
    .flatMap((element) =>
      element.kind === 'grid' &&
      element.shape.kind === 'line' &&
      Math.abs(element.shape.start[0] - element.shape.end[0]) < 0.1
        ? [[element.shape.start[0], element.shape.label] as const]
        : [],
    )
    .sort((a, b) => a[0] - b[0])
    .map(([, label]) => label);

test('what reading takes for granted is set, read with at once, and given back', async () => {
  project = await newProject(stage, page, 'Library');
  await bringIn(page, fileNamed('marram-ground.dxf', groundFloor().dxf));
  await confirmMillimetres(page);
  await station(page, 'Reading');
  await kindTab(page, 'Columns').filter({ hasText: '45' }).waitFor();
  await part(page, 'Taken for granted');
  // Columns of 250 by 600 are left out where the smallest side is 300 mm.
  await type(page, 'Smallest side', '300 mm');
  await part(page, 'Review');
  await kindTab(page, 'Columns').filter({ hasText: '31' }).click();
  await page
    .getByText(/too small for a column: 250 by 600 mm/)
    .first()
    .waitFor();
  await part(page, 'Taken for granted');
  await type(page, 'Window head', '0.5 m');
  await page.getByText('The head lies above the sill.').waitFor();
  await type(page, 'Window head', '2.25 m');
  await page.getByRole('button', { name: 'Undo: Reading: window head' }).waitFor();
  expect(Object.values((await state()).project)[0].reading!.window).toEqual({ sill: 0.9, height: 1.35 });
  await page.getByRole('button', { name: 'As the program does by itself' }).click();
  await part(page, 'Review');
  await kindTab(page, 'Columns').filter({ hasText: '45' }).waitFor();
});

test('several columns are put right at once, found by their size', async () => {
  await kindTab(page, 'Columns').click();
  await page.getByRole('combobox', { name: 'Show of these' }).click();
  await page.getByRole('option', { name: /^250/ }).click();
  const list = page.getByRole('list', { name: /^Columns/ });
  expect(await list.getByRole('listitem').count()).toBe(14);
  for (const i of [0, 1, 2]) await list.getByRole('checkbox').nth(i).check();
  await page.getByRole('heading', { name: 'Put 3 columns right' }).waitFor();
  await type(page, 'Depth', '650 mm');
  await page.getByRole('textbox', { name: 'Mark' }).fill('C7');
  await page.getByRole('button', { name: 'Accept 3 so' }).click();
  await page.getByRole('tab', { name: /accepted 3/ }).waitFor();
  const columns = Object.values((await state()).element).flatMap((element) =>
    element.kind === 'column' ? [element.shape] : [],
  );
  expect(columns.map(({ section, mark }) => ({ section, mark }))).toEqual(
    Array.from({ length: 3 }, () => ({ section: { shape: 'rectangle', width: 0.25, depth: 0.65 }, mark: 'C7' })),
  );
});

test('accepting fills the library; a section changed there changes its columns, and one undo brings both back', async () => {
  await page.getByRole('combobox', { name: 'Show of these' }).click();
  await page.getByRole('option', { name: /^All/ }).click();
  await page.getByRole('button', { name: /^Accept \d+ of all kinds$/ }).click();
  await page.getByRole('tab', { name: /to judge 0/ }).waitFor();
  await part(page, 'Library');
  const sections = page.getByRole('list', { name: 'Sections' });
  await sections.getByRole('button', { name: /400x400/ }).click();
  await type(page, 'Width', '450 mm');
  await sections.getByText('450 \u00d7 400').waitFor();
  const wide = async () =>
    Object.values((await state()).element).filter(
      (element) =>
        element.kind === 'column' &&
        element.shape.section.shape === 'rectangle' &&
        element.shape.section.width === 0.45,
    ).length;
  expect(await wide()).toBe(22);
  await page.getByRole('button', { name: 'Undo: Change 400x400' }).click();
  await sections.getByText('400 \u00d7 400').waitFor();
  expect(await wide()).toBe(0);
});

test('names follow the patterns, a construction gets its layers and its U-value, and the model says what is made of what', async () => {
  await type(page, 'Rectangular sections', 'RC {w}/{d}');
  await page.getByRole('button', { name: 'Name all anew' }).click();
  await page.getByRole('list', { name: 'Sections' }).getByText('RC 400/400').waitFor();
  const walls = page.getByRole('list', { name: 'Wall constructions' });
  await walls.getByRole('button', { name: /Wall 300/ }).click();
  await page.getByRole('button', { name: 'Add a layer' }).click();
  await type(page, 'W/(m K)', '0.5');
  // 0.13 + 0.3 / 0.5 + 0.04 = 0.77 m2 K/W.
  await page.getByText(/U 1\.299/).waitFor();
  await station(page, 'Handover');
  await part(page, 'Single files');
  const download = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Save model.json' }).click();
  const model = JSON.parse(readFileSync((await (await download).path())!, 'utf8')) as ModelFile;
  const [outer] = model.constructions!.filter(({ name }) => name === 'Wall 300');
  expect(outer).toMatchObject({
    thickness: 0.3,
    layers: [{ name: '', thickness: 0.3, conductivity: 0.5 }],
    uValue: Number((1 / 0.77).toFixed(9)),
  });
  expect(model.walls.filter(({ construction }) => construction === outer.id)).toHaveLength(22);
  expect(model.columns.every(({ sectionId }) => model.sections!.some(({ id }) => id === sectionId))).toBe(true);
});

test('a library goes out as a file and into another project, and a broken one is refused with a sentence', async () => {
  await station(page, 'Reading');
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save as a file' }).click();
  const saved = readFileSync((await (await download).path())!, 'utf8');
  const first = page.url();
  await newProject(stage, page, 'Next job');
  await bringIn(page, fileNamed('marram-ground.dxf', groundFloor().dxf));
  await station(page, 'Reading');
  await part(page, 'Library');
  await page.getByText(/^Empty\. Sections and constructions come here/).waitFor();
  await page.getByLabel('Library file').setInputFiles(fileNamed('library.json', saved));
  await page.getByText('9 entries came in.').waitFor();
  await page.getByRole('list', { name: 'Sections' }).getByText('RC 400/400').waitFor();
  await page
    .getByLabel('Library file')
    .setInputFiles(fileNamed('broken.json', '{"format":"zircon-frame-library","version":2}'));
  await page.getByText(/broken\.json: This is not a library/).waitFor();
  await page.getByRole('button', { name: 'Delete 9 unused' }).click();
  await page.getByText(/^Empty\. Sections and constructions come here/).waitFor();
  await page.goto(first);
});

test('grid lines are numbered by a rule from a side of choice, one by one too, and never two alike', async () => {
  await station(page, 'Reading');
  await part(page, 'Numbering');
  expect(await labels()).toEqual(['1', '2', '3', '4', '5', '6', '7']);
  await choose(page, 'From which side', 'From the right');
  await type(page, 'First', '11');
  await page.getByRole('button', { name: 'Number 7 lines' }).click();
  await page.getByRole('textbox', { name: 'Label of grid line 17' }).waitFor();
  expect(await labels()).toEqual(['17', '16', '15', '14', '13', '12', '11']);
  await choose(page, 'Numbers or letters', 'Letters');
  await page.getByRole('button', { name: 'Number 7 lines' }).click();
  await page.getByText('Two grid lines would be called A. Begin with another label, or give a prefix.').waitFor();
  await type(page, 'Label of grid line 17', '17a');
  await page.getByRole('textbox', { name: 'Label of grid line 17a' }).waitFor();
  await page.getByRole('button', { name: 'Undo: Grid line 17 is 17a' }).click();
  await page.getByRole('button', { name: 'Undo: Number 7 grid lines' }).click();
  await page.getByRole('textbox', { name: 'Label of grid line 7' }).waitFor();
  expect(await labels()).toEqual(['1', '2', '3', '4', '5', '6', '7']);
});

test('what the model has already is shown as a conflict and not accepted in passing', async () => {
  await station(page, 'Intake');
  await page
    .getByLabel('Files to bring in')
    .setInputFiles(fileNamed('one-layer.dxf', groundFloor({ oneLayer: true }).dxf));
  await page.getByRole('button', { name: /^one-layer/ }).click();
  await station(page, 'Reading');
  await part(page, 'Review');
  await kindTab(page, 'Columns').filter({ hasText: '45' }).click();
  await page.getByText(/^45 of these the model has already/).waitFor();
  expect(await page.getByRole('button', { name: 'Accept 0', exact: true }).isDisabled()).toBe(true);
  await page.getByRole('button', { name: 'Show them' }).first().click();
  await page
    .getByRole('list', { name: /^Columns/ })
    .getByText('the model has a column here already')
    .first()
    .waitFor();
  expect(problems).toEqual([]);
});
