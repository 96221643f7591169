import { readFileSync } from 'node:fs';
import type { Page, Route } from 'playwright-core';
import { basement } from '../demo/basement';
import { groundFloor } from '../demo/ground';
import { crossSection, heights, sectionPlace } from '../demo/section';
import { upperFloor } from '../demo/upper';
import { onSurvey, survey, yard } from '../demo/yard';
import { placeUpright } from '@/core/datum/placement';
import { readDxf } from '@/core/drawing/reader';
import { dxf, groups, line } from '@/core/drawing/testing/dxf';
import type { ModelFile } from '@/core/handover/model/schema';
import type { ProjectState } from '@/core/model/state';
import { flatten } from '@/core/underlay/flatten';
import {
  ask,
  bringIn,
  choose,
  clickOn,
  fileNamed,
  newProject,
  openStage,
  part,
  problems,
  station,
  type,
  type Stage,
  settled,
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
const tab = (name: string) => page.getByRole('tab', { name, exact: true }).click();
const levels = async () =>
  Object.values((await state()).level)
    .sort((a, b) => a.elevation - b.elevation)
    .map(({ name, elevation, height }) => [name, elevation, height]);
const ladder = (name: string) =>
  page.getByRole('list', { name: 'Levels, from the section' }).getByRole('button', { name: new RegExp(`^${name},`) });
const bring = async (name: string, content: string) => {
  await station(page, 'Intake');
  await page.getByLabel('Files to bring in').setInputFiles(fileNamed(`${name}.dxf`, content));
  await page.getByRole('button', { name: new RegExp(`^${name} `) }).click();
};
const confirmUnit = async (words: string) => {
  await station(page, 'Datum');
  await tab('Unit');
  await page.getByRole('button', { name: `Take ${words}` }).click();
  await page.getByText(`${words} confirmed`).waitFor();
};

test('a basement is added below ground, marked against the ground line, and its drawing hung on it', async () => {
  project = await newProject(stage, page, 'Levels');
  await bringIn(page, fileNamed('marram-ground.dxf', groundFloor().dxf));
  await confirmUnit('millimetres');
  await tab('Levels');
  // What is added is in hand at once: what is typed is its own before the server has heard of it.
  let answered = () => undefined as void;
  const held = new Promise<void>((resolve) => (answered = resolve));
  const late = async (route: Route) => {
    await held;
    await route.continue();
  };
  await page.route(/\/edits$/, late, { times: 1 });
  await page.getByRole('button', { name: 'Add below' }).click();
  await page.getByRole('heading', { name: 'Basement' }).waitFor();
  await type(page, 'Height to next', '315 cm');
  answered();
  // The ground stays at zero: below it a height moves the level down.
  await page.getByText('\u22123.150 m').first().waitFor();
  expect(await levels()).toEqual([
    ['Basement', -3.15, 3.15],
    ['Ground', 0, 3],
  ]);
  await choose(page, 'Kind of level', 'foundation');
  await page.getByText('below ground').first().waitFor();
  await page.getByRole('button', { name: 'Basement, \u22123.150 m, below ground' }).waitFor();
  await bring('marram-basement', basement().dxf);
  await confirmUnit('centimetres');
  await tab('Place');
  await choose(page, 'Level of the drawing', 'Basement');
  const now = await state();
  const drawing = Object.values(now.drawing).find(({ name }) => name === 'marram-basement')!;
  expect(now.level[drawing.levelId!]).toMatchObject({ name: 'Basement', kind: 'foundation' });
});

test('the section is stood up on a line of the plan and storey heights are read from it', async () => {
  await ladder('Ground').click();
  await bring('marram-section', crossSection().dxf);
  await confirmUnit('millimetres');
  await tab('Place');
  await choose(page, 'Plane of the drawing', 'a section or an elevation, upright on a line');
  await page.getByText('5 elevations are written in the section.').waitFor();
  // The line of the section: grid line 2, from A to D.
  await page.getByRole('button', { name: 'Pick its line' }).click();
  await page.getByRole('button', { name: 'Show all (Home)' }).click();
  await clickOn(page, [5.4, -2.4], [5.4, 19.5]);
  await page.getByText(/E 5\.400 m, N \u22122\.400 m\s+at\s+90\.00\u00b0/).waitFor();
  // What stands above the line's start: the foot of grid line A in the section, at its own height.
  await page.getByRole('button', { name: 'Pick what stands at its start' }).click();
  await settled(page);
  const foot = heights.foundation - 1.2;
  const main = (await state()).placement[
    Object.values((await state()).drawing).find(({ name }) => name === 'marram-section')!.id
  ];
  // Face on, x is told from the drawing's left end, which stood at the start so far.
  await clickOn(page, [sectionPlace[0] - main.origin[0] / 1000, foot]);
  const { placement, drawing } = await state();
  const section = Object.values(drawing).find(({ name }) => name === 'marram-section')!;
  const [x, y, z] = placeUpright(placement[section.id], [
    (sectionPlace[0] + 10.2) * 1000,
    (sectionPlace[1] + 3.9) * 1000,
  ]);
  expect([x, y, z].map((v) => Number(v.toFixed(3)))).toEqual([5.4, 7.8, 3.9]);
  const table = page.getByRole('table', { name: 'Storey heights' });
  expect(
    (await table.getByRole('row').allInnerTexts()).slice(1).map((row) =>
      row
        .split('\t')
        .slice(0, 2)
        .join(' ')
        .replace(/\u2212/g, '-'),
    ),
  ).toEqual([
    'Basement -3.150 m',
    'Ground floor \u00b10.000 m',
    'Upper floor +3.900 m',
    'Roof +7.500 m',
    'Parapet +8.600 m',
  ]);
  await choose(page, 'What Parapet becomes', 'nothing');
  await page.getByRole('button', { name: 'Take over 2 heights' }).click();
  await page.getByRole('button', { name: 'The levels are so' }).waitFor();
  expect(await levels()).toEqual([
    ['Basement', -3.15, 3.15],
    ['Ground', 0, 3.9],
    ['Upper floor', 3.9, 3.6],
    ['Roof', 7.5, 3],
  ]);
  await page.getByRole('button', { name: 'Back to the plan' }).click();
});

test('a typical level is repeated, follows its level, and becomes its own', async () => {
  await ladder('Ground').click();
  await station(page, 'Reading');
  await page.getByRole('tab', { name: /Columns/ }).click();
  await page.getByRole('button', { name: 'Accept 45' }).click();
  await station(page, 'Datum');
  await tab('Levels');
  await page.getByRole('textbox', { name: 'Storeys' }).fill('2');
  await page.getByRole('button', { name: 'Repeat Ground' }).click();
  await page.getByText('repeats Ground').first().waitFor();
  expect(await levels()).toEqual([
    ['Basement', -3.15, 3.15],
    ['Ground', 0, 3.9],
    ['Ground 2', 3.9, 3.9],
    ['Ground 3', 7.8, 3.9],
    ['Upper floor', 11.7, 3.6],
    ['Roof', 15.3, 3],
  ]);
  await page.getByRole('button', { name: /Ground 2, .*repeats Ground/ }).click();
  await page.getByText(/ 45 elements|, 45 elements/).waitFor();
  const download = page.waitForEvent('download');
  await station(page, 'Handover');
  await part(page, 'Single files');
  await page.getByRole('link', { name: 'Save model.json' }).click();
  const model = JSON.parse(readFileSync((await (await download).path())!, 'utf8')) as ModelFile;
  expect(model.columns).toHaveLength(3 * 45);
  expect(model.levels.map(({ name }) => name)).toEqual([
    'Basement',
    'Ground',
    'Ground 2',
    'Ground 3',
    'Upper floor',
    'Roof',
  ]);
  await station(page, 'Datum');
  await page.getByRole('button', { name: 'Make it its own' }).click();
  await page.getByRole('combobox', { name: 'Level that it repeats' }).waitFor();
  const now = await state();
  const own = Object.values(now.level).find(({ name }) => name === 'Ground 2')!;
  expect(Object.values(now.element).filter(({ levelId }) => levelId === own.id)).toHaveLength(45);
});

test('a title over several storeys proposes to repeat the level of its drawing, and undo takes it back', async () => {
  const { page: other } = await stage.person();
  const id = await newProject(stage, other, 'Titled');
  const title = groups([0, 'TEXT'], [8, 'T'], [10, 0], [20, -3000], [40, 500], [1, '1st to 3rd floor']);
  const walls = [0, 200].map((y) => line(0, y, 9000, y, 'A-WALL')).join('');
  await bringIn(other, fileNamed('typical.dxf', dxf({ entities: walls + title })));
  await station(other, 'Datum');
  await other.getByRole('tab', { name: 'Levels', exact: true }).click();
  await other.getByText('says \u201c1st to 3rd floor\u201d').waitFor();
  await other.getByRole('button', { name: /^Repeat Ground 2 times, each/ }).click();
  await other.getByText('repeats Ground').first().waitFor();
  expect(await other.getByText('says \u201c1st to 3rd floor\u201d').count()).toBe(0);
  await other.getByRole('status').filter({ hasText: 'Saved' }).waitFor();
  const repeated = async () => {
    const { body } = await ask<{ state: ProjectState }>(stage, `/api/projects/${id}/state`);
    return Object.values(body.state.level).filter(({ repeats }) => repeats !== null).length;
  };
  expect(await repeated()).toBe(2);
  await other.keyboard.press('Control+z');
  await other.getByText('says \u201c1st to 3rd floor\u201d').waitFor();
  await other.getByRole('status').filter({ hasText: 'Saved' }).waitFor();
  expect(await repeated()).toBe(0);
  await other.context().close();
});

test('two levels at one elevation are refused, a level that holds things asks what becomes of them, and undo brings all back', async () => {
  await page.getByRole('table', { name: 'Levels' }).getByRole('button', { name: 'Ground 2' }).click();
  await page.getByRole('switch', { name: 'Shift the levels above along' }).uncheck();
  await type(page, 'Elevation', '7.8 m');
  await page.getByText(/would both stand at 7\.800 m/).waitFor();
  await page.getByRole('switch', { name: 'Shift the levels above along' }).check();
  await page.getByRole('button', { name: 'Delete Ground 2' }).click();
  const fate = page.getByRole('group', { name: 'What becomes of what hangs on it' });
  await fate.getByText('On Ground 2 hang 45 elements.').waitFor();
  await fate.getByRole('button', { name: 'Cancel' }).click();
  await page.getByRole('button', { name: 'Delete Ground 2' }).click();
  await choose(page, 'Level to move them to', 'Roof');
  await fate.getByRole('button', { name: 'Move them to' }).click();
  await ladder('Ground 2').waitFor({ state: 'detached' });
  const now = await state();
  const roof = Object.values(now.level).find(({ name }) => name === 'Roof')!;
  expect(Object.values(now.element).filter(({ levelId }) => levelId === roof.id)).toHaveLength(45);
  await page.getByRole('button', { name: 'Undo: Delete Ground 2' }).click();
  await ladder('Ground 2').waitFor();
  const back = await state();
  expect(Object.values(back.element).filter(({ levelId }) => levelId === roof.id)).toHaveLength(0);
});

test('a drawing hangs on further levels, and structure and finish are told apart', async () => {
  await tab('Place');
  await choose(page, 'Drawing', 'marram-ground');
  await page.getByRole('combobox', { name: 'Further levels of the drawing' }).click();
  await page.getByRole('option', { name: 'Roof', exact: true }).click();
  await page.keyboard.press('Escape');
  await page.getByText('also on Roof').waitFor();
  await ladder('Roof').click();
  await page.getByText(/2,821 lines|\d,\d{3} lines/).waitFor();
  await tab('Levels');
  await type(page, 'Floor build-up', '12 cm');
  await type(page, 'Slab thickness', '280 mm');
  await page.getByText(/the structure.s top at/).waitFor();
  expect(await page.getByText(/the structure.s top at/).innerText()).toMatch(/15\.300 m.*15\.180 m.*14\.900 m/);
});

test('a run of spacings, an angle and an area are measured, and all dimensions compared at once', async () => {
  await ladder('Ground').click();
  await tab('Measure');
  await page.getByRole('button', { name: 'Show all (Home)' }).click();
  const measured = page.getByRole('status', { name: 'Measured' });
  await page.getByRole('button', { name: 'Run' }).click();
  await clickOn(page, [0, -2.4], [5.4, -2.4], [10.8, -2.4], [16.95, -2.4]);
  await page.keyboard.press('Enter');
  expect(await measured.innerText()).toMatch(/16\.950 m[\s\S]*5\.400 m \+ 5\.400 m \+ 6\.150 m/);
  await page.getByRole('button', { name: 'Angle' }).click();
  await clickOn(page, [5.4, -2.4], [0, -2.4], [0, 19.5]);
  expect(await measured.innerText()).toContain('90.000\u00b0');
  await page.getByRole('button', { name: 'Area' }).click();
  await clickOn(page, [0, -2.4], [32.55, -2.4], [32.55, 19.5]);
  await page.keyboard.press('Enter');
  // Half of 32.55 by 21.9.
  expect(await measured.innerText()).toContain('356.42 m\u00b2');
  await page.getByRole('button', { name: 'Clear' }).click();
  await page.getByRole('button', { name: 'Compare all' }).click();
  await page.getByText('9 agree within 1 mm or half their last digit, 0 differ').waitFor();
  await bring('marram-upper', upperFloor().dxf);
  await station(page, 'Datum');
  await page.getByRole('button', { name: 'Compare all' }).click();
  await page.getByText(/9 dimensions:/).waitFor();
  const differing = page.getByRole('table', { name: 'Dimensions that differ' });
  expect((await differing.getByRole('row').allInnerTexts()).slice(1).map((row) => row.split('\t').slice(0, 3))).toEqual(
    [['4950', '4.950 m', '4.800 m']],
  );
  await differing.getByRole('button', { name: 'Show 4950' }).click();
});

test('the project shows feet and inches, finer or coarser, and angles from north; lengths are typed in any unit', async () => {
  await tab('Project');
  await choose(page, 'Project unit', 'feet and inches');
  await page.getByText('For example 12\' 6 1/2"').waitFor();
  await choose(page, 'Precision', 'whole inches');
  await page.getByText('For example 12\' 7"').waitFor();
  await choose(page, 'Angles', 'clockwise from north');
  await page.getByText('73.00\u00b0').waitFor();
  await page.getByRole('button', { name: /^Roof, \+50' 2"/ }).waitFor();
  await page.reload();
  await page.getByText('For example 12\' 7"').waitFor();
  await choose(page, 'Project unit', 'metres');
  await choose(page, 'Angles', 'counter-clockwise from east');
});

test('working axes along the wing are named and switched, and positions are told along them', async () => {
  await choose(page, 'Drawing', 'marram-ground');
  await ladder('Ground').click();
  await page.getByRole('button', { name: 'or give an angle' }).click();
  await type(page, 'Zero, east', '37.2 m');
  await type(page, 'Zero, north', '2.4 m');
  await page.getByRole('textbox', { name: 'East runs at' }).fill('17');
  await page.getByRole('textbox', { name: 'Name' }).fill('Wing');
  await page.getByRole('button', { name: 'Create' }).click();
  await page.getByRole('list', { name: 'Working axes' }).getByText('Wing').waitFor();
  const box = (await page.getByRole('application').boundingBox())!;
  await page.mouse.move(box.x + 300, box.y + 300);
  await settled(page);
  expect(await page.locator('[data-part=position]').textContent()).toMatch(/^Wing: E /);
  await page.getByRole('list', { name: 'Working axes' }).getByRole('button', { name: /own/ }).click();
  await page.mouse.move(box.x + 310, box.y + 300);
  await settled(page);
  expect(await page.locator('[data-part=position]').textContent()).toMatch(/^E /);
});

test('the survey is taken from a drawing that lies in it, kept, and handed over', async () => {
  await bring('marram-yard', yard().dxf);
  await confirmUnit('metres');
  await tab('Place');
  // The building's zero is a corner of its outline, 0.15 m off both ways: given by its own point.
  const { drawing } = await state();
  const id = Object.values(drawing).find(({ name }) => name === 'marram-yard')!.id;
  const { state: now, history } = (
    await ask<{ state: ProjectState; history: { version: number } }>(stage, `/api/projects/${project}/state`)
  ).body;
  const placed = { ...now.placement[id], origin: survey.zero, target: [0, 0], turning: (-survey.turn * Math.PI) / 180 };
  expect(
    (
      await ask(stage, `/api/projects/${project}/edits`, {
        seen: history.version,
        clientId: crypto.randomUUID(),
        edit: { label: 'Place the yard', changes: [{ table: 'placement', id, row: placed }] },
      })
    ).status,
  ).toBe(200);
  await tab('Project');
  await page.getByRole('button', { name: 'As marram-yard has it' }).click();
  await settled(page);
  expect(await page.getByRole('textbox', { name: 'Easting' }).inputValue()).toBe('4\u202f501\u202f230.400 m');
  expect(await page.getByRole('textbox', { name: /^North,/ }).inputValue()).toBe('23.00000\u00b0');
  await type(page, 'Elevation', '4.2');
  expect((await state()).project[project].survey).toMatchObject({ elevation: 4.2 });
  await station(page, 'Handover');
  await part(page, 'Single files');
  const download = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Save Ground in the survey' }).click();
  const result = readDxf(readFileSync((await (await download).path())!));
  if (!result.ok) throw new Error(result.message);
  const p = flatten(result.value.drawing);
  // The column at 1/A stands on the building's zero: its middle is the survey's point of it.
  const [east, north] = onSurvey([0, 0]);
  const near = p.texts.some((text) => Math.hypot(text.x + p.origin[0] - east, text.y + p.origin[1] - north) < 0.2);
  expect(near).toBe(true);
  expect(problems).toEqual([]);
});
