import type { Page } from 'playwright-core';
import { groundFloor } from '../demo/ground';
import { onUpperSheet, upperFloor } from '../demo/upper';
import { place, type Placement } from '@/core/datum/placement';
import {
  bringIn,
  fileNamed,
  newProject,
  openStage,
  picture,
  problems,
  station,
  type Stage,
  settled,
  otherThan,
  stateOf,
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

test('the ground floor that says metres is caught, each observation with its weight, and where it was made', async () => {
  project = await newProject(stage, page, 'Datum');
  await bringIn(page, fileNamed('marram-ground.dxf', groundFloor().dxf));
  await station(page, 'Datum');
  await page.getByText('The header says metres.').waitFor();
  await page.getByText(/\d+ of \d+ observations say millimetres\./).waitFor();
  const observations = page.getByRole('list', { name: 'Observations about the unit' });
  await observations.getByText('door leaves').waitFor();
  expect(await observations.getByRole('button').filter({ hasText: 'door leaves' }).innerText()).toMatch(/12\s+0\.90 m/);
  await page.getByText('columns 0.40 \u00d7 0.40 m').waitFor();
  await page.getByRole('radio', { name: 'metres', exact: true }).check();
  await page.getByText('columns 400.0 \u00d7 400.0 m').waitFor();
  await page.getByRole('radio', { name: 'millimetres' }).check();
  const before = await picture(page);
  await observations.getByRole('button').filter({ hasText: 'door leaves' }).click();
  await otherThan(page, before);
  await page.getByRole('button', { name: 'Take millimetres' }).click();
  await page.getByText('millimetres confirmed').waitFor();
});

test('the upper floor, drawn far off and turned, is fitted onto the ground floor within a millimetre, and undo takes it back', async () => {
  await station(page, 'Intake');
  await page.getByLabel('Files to bring in').setInputFiles(fileNamed('marram-upper.dxf', upperFloor().dxf));
  await page.getByRole('button', { name: /^marram-upper/ }).click();
  await station(page, 'Datum');
  await page.getByRole('button', { name: 'Take millimetres' }).click();
  await page.getByText('millimetres confirmed').waitFor();
  await page.getByRole('tab', { name: 'Fit' }).click();
  await page.getByRole('button', { name: 'By grid labels' }).click();
  const fit = page.getByRole('group', { name: 'The fit' });
  await fit.getByText(/\d+ points/).waitFor();
  expect(await fit.innerText()).toContain(
    '\u221290.000\u00b0'.replace('\u2212', (await fit.innerText()).includes('\u2212') ? '\u2212' : '-'),
  );
  await fit.getByRole('button', { name: 'Apply' }).click();
  await fit.waitFor({ state: 'detached' });
  await settled(page);
  const now = await state();
  const upper = Object.values(now.drawing).find(({ name }) => name === 'marram-upper')!;
  // The crossing of 3 and B stands at (10.8, 6.9) in the building; the drawing has it elsewhere, in millimetres.
  const [x, y] = onUpperSheet([10.8, 6.9]);
  const [px, py] = place(now.placement[upper.id] as Placement, [x * 1000, y * 1000]);
  expect(Math.hypot(px - 10.8, py - 6.9)).toBeLessThan(0.001);
  await page.getByRole('button', { name: /Undo/ }).click();
  await settled(page);
  expect((await state()).placement[upper.id].turning).toBe(0);
});

test('grids without common labels are refused with a sentence that says what to do', async () => {
  await station(page, 'Sorting');
  await page.getByRole('combobox', { name: 'Role of A-GRID' }).click();
  await page.getByRole('option', { name: 'Ignore' }).click();
  await station(page, 'Datum');
  await page.getByRole('button', { name: 'By grid labels' }).click();
  await page
    .getByText(/0 grid lines have the same label in both drawings.*Check the role of the grid layers/)
    .waitFor();
  expect(problems).toEqual([]);
});

test('the search box holds a drawing, opens its recipe, and shows the levels in space, all by keyboard', async () => {
  const act = async (words: string) => {
    await page.keyboard.press('Control+;');
    await page.keyboard.type(words);
    await page.keyboard.press('Enter');
    await settled(page);
  };
  await act('Hold marram-upper');
  const upper = Object.values((await state()).drawing).find(({ name }) => name === 'marram-upper')!;
  expect((await state()).display[upper.id].held).toBe(true);
  await act('Release marram-upper');
  expect((await state()).display[upper.id].held).toBe(false);
  await act('Open recipe');
  await page.getByRole('tab', { name: 'Recipe', selected: true }).waitFor();
  await act('Set aside marram-upper');
  expect((await state()).drawing[upper.id].setAside).toBe(true);
  await act('Bring back marram-upper');
  await act('Show the model in space');
  await page.getByRole('application', { name: /^The model in space/ }).waitFor();
  await act('Show the plan');
  await page.getByRole('application', { name: /^The model in space/ }).waitFor({ state: 'detached' });
  expect((await state()).drawing[upper.id].setAside).toBe(false);
  expect(problems).toEqual([]);
});
