import type { Page } from 'playwright-core';
import { unitPlan } from '../bench/unitPlan';
import { inWing } from '../demo/building';
import { groundFloor } from '../demo/ground';
import { onUpperSheet, upperFloor } from '../demo/upper';
import { place } from '@/core/datum/placement';
import { block, dxf, groups, insert, line } from '@/core/drawing/testing/dxf';
import type { PlacementRow } from '@/core/model/state';
import {
  bringIn,
  clickOn,
  fileNamed,
  newProject,
  openStage,
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
/** Where a drawing lies, once what was done is stored. */
const placementOf = async (name: string): Promise<PlacementRow> => {
  const now = await state();
  return now.placement[Object.values(now.drawing).find((drawing) => drawing.name === name)!.id];
};
const tab = (name: string) => page.getByRole('tab', { name, exact: true }).click();
/** Where a point of a drawing in millimetres stands, once what was done is stored. */
const standsAt = async (name: string, p: [number, number]) => {
  return place(await placementOf(name), [p[0] * 1000, p[1] * 1000]).map((value) => Number(value.toFixed(3)) + 0);
};
const showAll = () => page.getByRole('button', { name: 'Show all (Home)' }).click();

test('a known length between two picked points overrides the evidence and is held against it; nonsense is explained', async () => {
  project = await newProject(stage, page, 'Placing');
  await bringIn(page, fileNamed('marram-ground.dxf', groundFloor().dxf));
  await station(page, 'Datum');
  await page.getByText('The header says metres.').waitFor();
  const pick = async () => {
    await page.getByRole('button', { name: 'Pick its two ends' }).click();
    await showAll();
    await clickOn(page, [0, -2.4], [32.55, -2.4]);
  };
  await pick();
  await page.getByText(/32.550\.00 drawing units/).waitFor();
  await type(page, 'True length', 'a few');
  await page.getByText(/"a few" is not a length/).waitFor();
  await type(page, 'True length', '0');
  await page.getByText(/Type the true distance between the two points, more than zero/).waitFor();
  await type(page, 'True length', '3.255 m');
  const says = page.getByRole('group', { name: 'What the known length says' });
  await says.getByText(/But then this is true:.*columns 0\.04 \u00d7 0\.04 m/).waitFor();
  await type(page, 'True length', '106\' 9 1/2"');
  await says.getByText('The drawing is in millimetres.').waitFor();
  await says.getByRole('button', { name: 'Apply' }).click();
  await page.getByText('millimetres confirmed').waitFor();
  expect(await placementOf('marram-ground')).toMatchObject({ unit: 'mm', scale: 1, confirmed: true });
});

test('two ends on one point are refused before a length is asked for', async () => {
  await page.getByRole('button', { name: 'Pick its two ends' }).click();
  await clickOn(page, [0, -2.4], [0, -2.4]);
  await page.getByText(/The two points lie on one another/).waitFor();
});

test('a unit is taken only once what was measured stands beside it, so that nothing moves under the pointer', async () => {
  const { page: other } = await stage.person();
  await newProject(stage, other, 'Measured');
  await bringIn(other, fileNamed('marram-ground.dxf', groundFloor().dxf));
  let letThrough = () => {};
  const held = new Promise<void>((resolve) => (letThrough = resolve));
  await other.route('**/columns?*', async (route) => {
    await held;
    await route.continue();
  });
  await other.reload();
  await station(other, 'Datum');
  await other.getByRole('status').filter({ hasText: 'measuring the drawing' }).waitFor();
  const take = other.getByRole('button', { name: /^Take / });
  expect(await take.isDisabled()).toBe(true);
  // The list of its crossings waits for the drawing too, and is there when that is.
  await other.getByRole('tab', { name: 'Place', exact: true }).click();
  await other.getByRole('combobox', { name: 'Grid crossing of the drawing' }).click();
  await other.getByRole('option', { name: /reading its grid/ }).waitFor();
  letThrough();
  await other.getByRole('option', { name: '3/B', exact: true }).waitFor();
  await other.keyboard.press('Escape');
  await other.getByRole('tab', { name: 'Unit', exact: true }).click();
  await other.getByText('The header says metres.').waitFor();
  expect(await take.isEnabled()).toBe(true);
  expect(await other.getByText('measuring the drawing').count()).toBe(0);
  await other.context().close();
});

test('an observation is looked at one by one, in words', async () => {
  const observations = page.getByRole('list', { name: 'Observations about the unit' });
  await observations.getByRole('button').filter({ hasText: 'door leaves' }).click();
  await observations.getByText('this door leaf: 0.90 m if millimetres').waitFor();
  await observations.getByText('1/12').waitFor();
  await observations.getByRole('button', { name: 'The next one' }).click();
  await observations.getByText('2/12').waitFor();
});

test('a grid crossing goes to a typed point of the project, and the content\u2019s centre to its zero', async () => {
  await tab('Place');
  await page.getByRole('combobox', { name: 'Grid crossing of the drawing' }).click();
  await page.getByRole('option', { name: '3/B', exact: true }).click();
  await type(page, 'East', '100 m');
  await type(page, 'North', "20'");
  await page.getByRole('button', { name: 'Apply' }).click();
  await page.getByText(/The project.s zero is the drawing.s point/).waitFor();
  // 20 ft are 6.096 m.
  expect(await standsAt('marram-ground', [10.8, 6.9])).toEqual([100, 6.096]);
  await page.getByRole('button', { name: 'Centre of content' }).click();
  await settled(page);
  // The frame runs from (-14, -9.5) to (56, 25.5): its middle is (21, 8).
  expect(await standsAt('marram-ground', [21, 8])).toEqual([0, 0]);
  await page.getByRole('button', { name: /^Undo: Zero of marram-ground/ }).click();
  expect(await standsAt('marram-ground', [10.8, 6.9])).toEqual([100, 6.096]);
  await page.getByRole('button', { name: 'As drawn' }).click();
  await page.getByText('As drawn: the drawing').waitFor();
});

test('a drawing is turned by quarters, by an angle, by a picked line, and turned over', async () => {
  await page.getByRole('button', { name: 'Quarter left' }).click();
  await page.getByText('90.000\u00b0').waitFor();
  await page.getByRole('button', { name: /^Undo: marram-ground turned/ }).click();
  await page.getByRole('textbox', { name: 'Turn by' }).fill('north');
  await page.getByText(/"north" is not an angle/).waitFor();
  await page.getByRole('textbox', { name: 'Turn by' }).fill("12\u00b0 30'");
  await page.getByRole('button', { name: 'Turn', exact: true }).click();
  await page.getByText('12.500\u00b0').waitFor();
  await page.getByRole('button', { name: /^Undo: marram-ground turned/ }).click();
  await page.getByText('As drawn.', { exact: true }).waitFor();
  // The wing's grid line T runs at 17 degrees; along east with it.
  await showAll();
  await page.getByRole('button', { name: 'Pick a line for east' }).click();
  await clickOn(page, inWing([14.6, 0]));
  await page.getByText('343.000\u00b0').waitFor();
  const [a, b] = [await standsAt('marram-ground', inWing([0, 0])), await standsAt('marram-ground', inWing([10, 0]))];
  expect([b[0] - a[0], b[1] - a[1]].map((v) => Number(v.toFixed(2)) + 0)).toEqual([10, 0]);
  await page.getByRole('button', { name: /^Undo: line on A-GRID/ }).click();
  await page.getByText('As drawn.', { exact: true }).waitFor();
  await page.getByRole('button', { name: 'Turn over' }).click();
  await page.getByText('As drawn, turned over.').waitFor();
  expect(await placementOf('marram-ground')).toMatchObject({ mirrored: true });
  await page.getByRole('button', { name: /^Undo: marram-ground turned over/ }).click();
  await page.getByText('As drawn.', { exact: true }).waitFor();
});

test('the upper floor is fitted by the pattern of its spacings, with a residual for every crossing', async () => {
  await station(page, 'Intake');
  await page.getByLabel('Files to bring in').setInputFiles(fileNamed('marram-upper.dxf', upperFloor().dxf));
  await page.getByRole('button', { name: /^marram-upper/ }).click();
  await station(page, 'Datum');
  await tab('Fit');
  await page.getByRole('button', { name: 'By spacings' }).click();
  const fit = page.getByRole('group', { name: 'The fit' });
  await fit.getByText(/30 points fit onto marram-ground/).waitFor();
  expect(await fit.getByRole('row').count()).toBe(31);
  await fit.getByRole('button', { name: 'Apply' }).click();
  await fit.waitFor({ state: 'detached' });
  expect(await standsAt('marram-upper', onUpperSheet([10.8, 6.9]))).toEqual([10.8, 6.9]);
});

test('three picked pairs give a fit with the misses by hand', async () => {
  project = await newProject(stage, page, 'Pairs');
  const cross = (x: number, y: number) => line(x - 300, y, x + 300, y) + line(x, y - 300, x, y + 300);
  await bringIn(
    page,
    fileNamed(
      'one.dxf',
      dxf({ header: groups([9, '$INSUNITS'], [70, 4]), entities: cross(0, 0) + cross(10000, 0) + cross(20000, 0) }),
    ),
  );
  await page.getByLabel('Files to bring in').setInputFiles(
    fileNamed(
      'two.dxf',
      dxf({
        header: groups([9, '$INSUNITS'], [70, 4]),
        entities: cross(0, 9000) + cross(10000, 9300) + cross(20000, 9000),
      }),
    ),
  );
  await page.getByRole('button', { name: /^two/ }).click();
  await station(page, 'Datum');
  await tab('Fit');
  const pair = async (x: number, from: number) => {
    await page.getByRole('button', { name: /By picked points|Pick another pair/ }).click();
    await clickOn(page, [x, from]);
    await clickOn(page, [x, 0]);
  };
  await pair(0, 9);
  await page.getByText('One pair more fixes the place').waitFor();
  await pair(0, 9);
  await page.getByText(/The points lie on one another/).waitFor();
  await page.getByRole('button', { name: 'Drop pair 2' }).click();
  await pair(10, 9.3);
  const fit = page.getByRole('group', { name: 'The fit' });
  await fit.waitFor();
  await pair(20, 9);
  // The middle cross stands 300 mm off the line of the others: the best line takes a third of it, so 200 and 100 are
  // left.
  await fit.getByText(/3 points fit onto one within\s+200 mm/).waitFor();
  expect(
    (await fit.getByRole('row').allInnerTexts()).slice(1).map((row) =>
      row
        .replace(/\u2212/g, '-')
        .split('\t')
        .slice(2)
        .join(' '),
    ),
  ).toEqual(['-200.00 200 mm', '+100.00 100 mm', '+100.00 100 mm']);
  await fit.getByText('true to size').waitFor();
  await fit.getByRole('button', { name: 'Apply' }).click();
  await fit.waitFor({ state: 'detached' });
  expect(await standsAt('two', [0, 9])).toEqual([0, -0.1]);
});

test('a drawing at a paper scale, one that is mirrored, and a door block in inches are recognised', async () => {
  project = await newProject(stage, page, 'Odd ones');
  await bringIn(page, fileNamed('paper.dxf', unitPlan('mm', 'mm', 4, 100)));
  await station(page, 'Datum');
  await page.getByText(/drawn as it is plotted, at 1:100/).waitFor();
  expect(await placementOf('paper')).toMatchObject({ unit: 'mm', scale: 100 });
  await page.getByRole('button', { name: 'It is at true size' }).click();
  await page.getByText(/The drawing looks as it is plotted, at 1:100/).waitFor();
  await page.getByRole('button', { name: 'Take 1:100' }).click();
  await page.getByText(/drawn as it is plotted/).waitFor();

  const word = (x: number) => groups([0, 'TEXT'], [8, 'T'], [10, x], [20, 500], [40, 300], [1, 'Store'], [71, 2]);
  const door = block(
    'DOOR-36',
    groups([0, 'ARC'], [8, '0'], [10, 0], [20, 0], [40, 36], [50, 0], [51, 90]) + line(0, 0, 0, 36),
  );
  await station(page, 'Intake');
  await page.getByLabel('Files to bring in').setInputFiles(
    fileNamed(
      'odd.dxf',
      dxf({
        header: groups([9, '$INSUNITS'], [70, 4]),
        blocks: door,
        entities:
          line(0, 0, 20000, 0) +
          line(0, 0, 0, 9000) +
          word(2000) +
          word(6000) +
          word(12000) +
          insert('DOOR-36', 4000, 0) +
          insert('DOOR-36', 9000, 0),
      }),
    ),
  );
  await page.getByRole('button', { name: /^odd/ }).click();
  await station(page, 'Datum');
  await page.getByText('Block DOOR-36 looks as if it were in inches.').waitFor();
  await page.getByText(/in inches they would be 0\.91 m\. It is there 2 times/).waitFor();
  await page.getByRole('button', { name: 'Show one' }).click();
  await tab('Place');
  await page.getByText('The drawing shows its plan mirror-wise:').waitFor();
  await page.getByRole('button', { name: 'Turn it over' }).click();
  await page.getByText('As drawn, turned over.').waitFor();
  await page.getByText('The drawing shows its plan mirror-wise:').waitFor({ state: 'detached' });
});

test('a held drawing is not moved, and says so', async () => {
  const now = await state();
  const odd = Object.values(now.drawing).find(({ name }) => name === 'odd')!;
  await page.keyboard.press('Control+;');
  await page.keyboard.type('Hold odd');
  await page.keyboard.press('Enter');
  await settled(page);
  await page.getByRole('button', { name: 'Quarter left' }).click();
  await page.getByText(/odd is held and was not moved/).waitFor();
  expect((await state()).placement[odd.id].turning).toBe(0);
  expect(problems).toEqual([]);
});
