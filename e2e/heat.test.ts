import type { ModelFile } from '@/core/handover/model/schema';
import { dxf, groups } from '@/core/drawing/testing/dxf';
import {
  ask,
  bringIn,
  choose,
  clickOn,
  fileNamed,
  kindTab,
  newProject,
  ofKind,
  openFinished,
  part,
  problems,
  selection,
  station,
  stateOf,
  type Stage,
  type as typeInto,
  openProject,
} from './harness';

let stage: Stage;
let project: string;

beforeAll(async () => {
  ({ stage, project } = await openFinished());
}, 90_000);
afterAll(async () => stage.close());

const figure = (text: string): number => Number.parseFloat(text.replace('\u2212', '-'));

test('from constructions to a heat load room by room, one term worked out by hand, and the months', async () => {
  const { page, context } = await stage.person();
  await openProject(stage, page, project);
  await station(page, 'Proof');
  await part(page, 'Heat');
  const rooms = page.getByRole('table', { name: 'Design heat load' });
  await rooms
    .getByRole('row', { name: /^Bunk Room/ })
    .first()
    .waitFor();
  await rooms.getByRole('button', { name: 'Library' }).click();
  await selection(page)
    .getByText(/Library/)
    .waitFor();
  // Its surfaces: the outer wall's net area times U; 24 cm bricks, 16 cm of wool, render and plaster.
  const surfaces = page.getByRole('table', { name: 'Surfaces of Library' });
  const cells = await surfaces
    .getByRole('row', { name: /^wall S outside/ })
    .first()
    .getByRole('cell')
    .allInnerTexts();
  const [net, u, lost] = cells.slice(2).map(figure);
  const byHand = 1 / (0.04 + 0.015 / 1 + 0.16 / 0.035 + 0.24 / 0.81 + 0.015 / 0.57 + 0.13);
  expect(u).toBeCloseTo(byHand, 3);
  // The demo adds 0.05 W/(m2 K) for thermal bridges.
  expect(lost).toBeCloseTo(net * (byHand + 0.05), 1);
  const load = async (): Promise<number> => {
    const row = await rooms
      .getByRole('row', { name: /^Library/ })
      .getByRole('cell')
      .allInnerTexts();
    return figure(row[5]);
  };
  const row = await rooms
    .getByRole('row', { name: /^Library/ })
    .getByRole('cell')
    .allInnerTexts();
  // Through and by air, over 20 and 12 degrees below zero.
  expect(await load()).toBeCloseTo((figure(row[3]) + figure(row[4])) * 32, -1);
  const before = await load();
  await part(page, 'Place and constructions');
  await page.getByRole('table', { name: 'Steps of Bricks with 160 mm of wool outside' }).getByText('4.571').waitFor();
  await choose(page, 'Outer walls', 'Solid bricks, 365 mm (usual)');
  await page.getByRole('button', { name: 'Undo: Construction of outer walls' }).waitFor();
  await typeInto(page, 'Winter outside, \u00b0C', '-20');
  await page.getByRole('button', { name: /^Undo: Winter outside/ }).waitFor();
  await part(page, 'Results');
  await page.waitForFunction((least) => {
    const found = [...document.querySelectorAll('table[aria-label="Design heat load"] tr')].find((tr) =>
      tr.textContent?.startsWith('Library'),
    );
    return Number(found?.lastElementChild?.textContent) > least;
  }, before * 1.5);
  // The months, by their table: heating and gains of use make up for the losses.
  const months = page.getByRole('table', { name: 'Months, kWh' });
  const january = (await months.getByRole('row', { name: /^Jan/ }).getByRole('cell').allInnerTexts())
    .slice(1)
    .map(figure);
  expect(Math.abs(january[0] - january[2] - january[3])).toBeLessThanOrEqual(2);
  expect(january[3]).toBeGreaterThan(1000);
  const { body } = await ask<ModelFile>(stage, `/api/projects/${project}/handover/model.json`);
  expect(body.site).toMatchObject({ winterTemperature: -20, thermalBridge: 0.05 });
  const solid = body.constructions!.find(({ name }) => name === 'Solid bricks, 365 mm')!;
  expect(body.walls.filter(({ outer }) => outer === true).every(({ construction }) => construction === solid.id)).toBe(
    true,
  );
  await context.close();
});

test('a room is made unheated at Tracing, and takes its own temperature', async () => {
  const { page, context } = await stage.person();
  await openProject(stage, page, project);
  await station(page, 'Proof');
  await part(page, 'Heat');
  await page.getByRole('table', { name: 'Design heat load' }).getByRole('button', { name: 'Drying' }).click();
  await selection(page)
    .getByText(/Drying/)
    .waitFor();
  await station(page, 'Tracing');
  await part(page, 'Change');
  await choose(page, 'Heated', 'unheated');
  await page.getByRole('button', { name: /^Undo: / }).waitFor();
  await station(page, 'Proof');
  const drying = page.getByRole('table', { name: 'Design heat load' }).getByRole('row', { name: /^Drying/ });
  await drying.getByText('unheated').waitFor();
  // Between the rooms about it and the winter outside.
  const shown = (await drying.getByRole('cell').nth(1).innerText()).replace(/[()]/g, '');
  expect(figure(shown)).toBeGreaterThan(0);
  expect(figure(shown)).toBeLessThan(20);
  await context.close();
});

test('rooms get their use by name, thermal bridges count by length, and systems are summed up', async () => {
  const { page, context } = await stage.person();
  await openProject(stage, page, project);
  await station(page, 'Proof');
  await part(page, 'Heat');
  const rooms = page.getByRole('table', { name: 'Design heat load' });
  const washRoom = rooms.getByRole('row', { name: /^Wash Room/ });
  await washRoom.waitFor();
  await part(page, 'Place and constructions');
  await page.getByRole('button', { name: /^Apply to \d+ rooms/ }).click();
  await page.getByRole('button', { name: /^Undo: Use of \d+ rooms by name/ }).waitFor();
  const wash = ofKind(await stateOf(stage, page, project), 'zone').find(({ shape }) => shape.name === 'Wash Room')!;
  expect(wash.shape).toMatchObject({ temperature: 24, airChange: 1.5, gains: 2 });
  await choose(page, 'Thermal bridges', 'by their length');
  await typeInto(page, 'Roof edge, W/(m K)', '0.5');
  await page.getByRole('button', { name: /^Undo: Roof edge/ }).waitFor();
  await part(page, 'Results');
  await washRoom.getByText('24', { exact: true }).waitFor();
  await washRoom.getByRole('button').click();
  const bridge = page.getByRole('table', { name: 'Surfaces of Wash Room' }).getByRole('row', { name: /^bridge, roof/ });
  await bridge.getByText('\u03c8 0.50').waitFor();
  const [, length, , , lost] = await bridge.getByRole('cell').allInnerTexts();
  expect(figure(lost)).toBeCloseTo(figure(length) * 0.5, 1);
  // On the board its load stands in it, and its outer wall's loss at the wall.
  const watts = figure((await washRoom.getByRole('cell').allInnerTexts())[5]);
  await page.waitForFunction((load) => {
    const texts = window.zirconBoard!.scene.picture?.labels.map(({ text }) => text) ?? [];
    return texts.includes(load) && texts.some((text) => /W\/K, U \d\.\d\d$/.test(text));
  }, `${watts} W`);
  // A system that it belongs to has its load.
  await station(page, 'Tracing');
  await part(page, 'Change');
  await typeInto(page, 'System', 'Boiler');
  await page.getByRole('button', { name: /^Undo: / }).waitFor();
  await station(page, 'Proof');
  const boiler = page.getByRole('table', { name: 'Systems' }).getByRole('row', { name: /^Boiler/ });
  await boiler.waitFor();
  expect(figure((await boiler.getByRole('cell').allInnerTexts())[3])).toBeCloseTo(watts / 1000, 1);
  await context.close();
});

test('the ground is read from a site drawing, and a spot height is added by hand', async () => {
  const { page, context } = await stage.person();
  const own = await newProject(stage, page, 'Slope');
  const line = (y: number, z: number): string =>
    groups([0, 'LWPOLYLINE'], [8, 'C-TOPO'], [90, 2], [70, 0], [38, z], [10, -20], [20, y], [10, 40], [20, y]);
  const written = groups([0, 'TEXT'], [8, 'C-TOPO'], [10, 9], [20, 5.2], [40, 0.5], [1, '1.500']);
  const entities = line(-10, 0) + line(0, 1) + line(20, 3) + written;
  await bringIn(page, fileNamed('site.dxf', dxf({ header: groups([9, '$INSUNITS'], [70, 6]), entities })));
  await station(page, 'Datum');
  await page.getByRole('button', { name: 'Take metres', exact: true }).click();
  await page.getByText(/(^|\s)metres confirmed/).waitFor();
  await station(page, 'Reading');
  await kindTab(page, 'Contours').filter({ hasText: '3' }).click();
  await page.getByRole('button', { name: 'Accept 3', exact: true }).click();
  await page.getByRole('tab', { name: 'accepted 3' }).waitFor();
  // Drawn at zero is not drawn at a height; the text by itself is a spot.
  const read = ofKind(await stateOf(stage, page, own), 'contour').map(({ shape }) => [
    shape.points.length,
    shape.elevation,
  ]);
  expect(read.sort((a, b) => a[1] - b[1])).toEqual([
    [2, 1],
    [1, 1.5],
    [2, 3],
  ]);
  await station(page, 'Tracing');
  await page.getByRole('radio', { name: 'Contour', exact: true }).click();
  await page.getByRole('button', { name: 'Spot height' }).click();
  await typeInto(page, 'Elevation', '2');
  await page.evaluate(() => window.zirconBoard!.look([-20, -12, 40, 22]));
  await clickOn(page, [10, 10]);
  await page.getByRole('button', { name: /^Undo: (?!Accept)/ }).waitFor();
  await stateOf(stage, page, own);
  const { body } = await ask<ModelFile>(stage, `/api/projects/${own}/handover/model.json`);
  const spots = body.terrain!.filter(({ points }) => points.length === 1);
  expect(spots.map(({ elevation }) => elevation).sort()).toEqual([1.5, 2]);
  await context.close();
});

test('the pages had nothing to complain about', () => {
  expect(problems).toEqual([]);
});
