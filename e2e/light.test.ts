import { yard } from '../demo/yard';
import {
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
  openProject,
} from './harness';

let stage: Stage;
let project: string;

beforeAll(async () => {
  ({ stage, project } = await openFinished());
}, 90_000);
afterAll(async () => stage.close());

test('a room is lit by a field of luminaires: its mean by the lumens, its values on the board, stale after an edit', async () => {
  const { page, context } = await stage.person();
  await openProject(stage, page, project);
  await station(page, 'Proof');
  await part(page, 'Light');
  await page.getByText('No luminaire has been placed yet.').waitFor();
  const before = await stateOf(stage, page, project);
  const upper = Object.values(before.level).find(({ name }) => name === 'Upper')!;
  const library = ofKind(before, 'zone').find(
    ({ shape, levelId }) => /library/i.test(shape.name) && levelId === upper.id,
  )!;
  const xs = library.shape.outline.map(([x]) => x);
  const ys = library.shape.outline.map(([, y]) => y);
  const [x1, y1, x2, y2] = [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)];
  await page.getByRole('button', { name: /^Upper, / }).click();
  await station(page, 'Tracing');
  await page.getByRole('radio', { name: 'Luminaire', exact: true }).click();
  await page.getByRole('button', { name: 'In a field', exact: true }).click();
  await page.evaluate((box) => window.zirconBoard!.look(box), [x1 - 2, y1 - 2, x2 + 2, y2 + 2] as const);
  await clickOn(page, [x1 + 0.2, y1 + 0.2], [x2 - 0.2, y2 - 0.2]);
  await page.getByRole('button', { name: /^Undo: Draw \d+ luminaires/ }).waitFor();
  await page.keyboard.press('Escape');
  const lamps = ofKind(await stateOf(stage, page, project), 'luminaire');
  await station(page, 'Proof');
  await part(page, 'Light');
  await page.getByRole('button', { name: 'Calculate', exact: true }).click();
  const table = page.getByRole('table', { name: 'Illuminance' });
  const row = table.getByRole('row', { name: /^Library/ });
  await row.waitFor({ timeout: 90_000 });
  const cells = await row.getByRole('cell').allInnerTexts();
  const area = (x2 - x1) * (y2 - y1);
  const flux = lamps.length * 3600 * 0.8;
  // All of the light on the floor would be this; walls and ceiling keep a good part of it.
  const [mean, watts] = [Number(cells[1]), Number(cells[4])];
  expect(mean).toBeGreaterThan((0.4 * flux) / area);
  expect(mean).toBeLessThan(flux / area);
  expect(watts).toBeCloseTo((30 * lamps.length) / area, 0);
  // Asked of a library, of use C1.
  expect(cells[2]).toBe('200');
  await row.getByRole('button', { name: 'Library' }).click();
  await selection(page)
    .getByText(/Library/)
    .waitFor();
  const labels = await page.evaluate(
    () => window.zirconBoard!.scene.picture?.labels.map(({ text }) => Number(text)) ?? [],
  );
  const lit = labels.filter((value) => value > 0);
  expect(lit.length).toBeGreaterThan(20);
  expect(lit.reduce((sum, value) => sum + value, 0) / lit.length / mean).toBeCloseTo(1, 1);
  await page.getByRole('button', { name: /^Undo: Draw \d+ luminaires/ }).click();
  await page.getByText('The model has changed since').waitFor();
  await context.close();
});

test('another file comes in, a room is asked what if, and the best field is hung by a click and undone', async () => {
  const { page, context } = await stage.person();
  await openProject(stage, page, project);
  await station(page, 'Proof');
  await part(page, 'Light');
  await page.getByRole('tab', { name: 'Luminaires and surfaces' }).click();
  // A plate of 1000 cd by the cosine: pi times 1000 lm, half of it at 60 degrees to either side.
  const angles = Array.from({ length: 19 }, (_, i) => 5 * i);
  const values = angles.map((angle) => (1000 * Math.cos((angle * Math.PI) / 180)).toFixed(3));
  const head = 'IESNA:LM-63-2002\n[TEST] T1\n[MANUFAC] Marram\n[LUMINAIRE] Fulmar plate\nTILT=NONE\n';
  const plate = `${head}1 -1 1 19 1 1 2 0.3 0.6 0\n1 1 25\n${angles.join(' ')}\n0\n${values.join(' ')}\n`;
  const file = page.getByLabel('Photometric file');
  await file.setInputFiles(fileNamed('broken.ies', 'nothing of the kind'));
  await page.getByText(/broken\.ies: The file has no line that begins with TILT=/).waitFor();
  await file.setInputFiles(fileNamed('plate.ies', plate));
  const figures = page.getByLabel('Figures of Fulmar plate');
  await figures.waitFor();
  const told = await figures.innerText();
  expect(Math.abs(Number(/flux\s+([\d.]+) lm/.exec(told)![1]) / (1000 * Math.PI) - 1)).toBeLessThan(0.005);
  expect(told).toMatch(/beam, along\s+120\u00b0/);
  await page.getByRole('img', { name: 'Light of Fulmar plate: 1000 cd at most' }).waitFor();
  await page.getByRole('tab', { name: 'Results' }).click();
  await page.getByRole('button', { name: /^Upper, / }).click();
  const zones = ofKind(await stateOf(stage, page, project), 'zone');
  const bunk = zones.find(({ shape }) => shape.name === 'Bunk Room')!;
  const [x, y] = bunk.shape.outline.reduce(([a, b], [c, d]) => [a + c / 4, b + d / 4], [0, 0]);
  await page.evaluate((p) => window.zirconBoard!.look([p[0] - 4, p[1] - 4, p[0] + 4, p[1] + 4]), [x, y]);
  await clickOn(page, [x + 0.7, y - 1.3]);
  await page.getByText('What if: Bunk Room').waitFor();
  await choose(page, 'Luminaire', 'Fulmar plate');
  await page.getByRole('button', { name: 'Work out' }).click();
  const asked = page.getByRole('table', { name: 'Illuminance by number and height' });
  await asked.waitFor({ timeout: 60_000 });
  const hang = asked.getByRole('button', { name: /^Hang 2 by 2/ }).first();
  const lux = Number(await hang.innerText());
  await hang.click();
  await page.getByRole('button', { name: /^Undo: Light Bunk Room by 4 luminaires/ }).waitFor();
  await page.getByRole('button', { name: /^Calculate/ }).click();
  const row = page.getByRole('table', { name: 'Illuminance', exact: true }).getByRole('row', { name: /^Bunk Room/ });
  await row.waitFor({ timeout: 90_000 });
  expect(Number(await row.getByRole('cell').nth(1).innerText())).toBe(lux);
  // Lines of as much light, and a tint, lie over the board; they go by a click.
  const picture = () =>
    page.evaluate(() => {
      const { lines = [], tints = [] } = window.zirconBoard!.scene.picture ?? {};
      return [lines.length > 0, tints.length > 0];
    });
  expect(await picture()).toEqual([true, true]);
  await page.getByRole('button', { name: 'Iso lines' }).click();
  await page.getByRole('button', { name: 'Tint', exact: true }).click();
  expect(await picture()).toEqual([false, false]);
  await page.getByRole('button', { name: /^Undo: Light Bunk Room/ }).click();
  await page.getByText('The model has changed since').waitFor();
  await context.close();
});

test('the yard at night: posts are read from its drawing, the apron asks for its light', async () => {
  const { page, context } = await stage.person();
  const yards = await newProject(stage, page, 'Yard');
  await bringIn(page, fileNamed('marram-yard.dxf', yard().dxf));
  await station(page, 'Datum');
  await page.getByRole('button', { name: 'Take metres', exact: true }).click();
  await page.getByText(/(^|\s)metres confirmed/).waitFor();
  await station(page, 'Reading');
  await kindTab(page, 'Luminaires').filter({ hasText: '6' }).click();
  await page.getByRole('button', { name: /^Accept \d+ of all kinds$/ }).click();
  await page.getByRole('tab', { name: 'accepted 6' }).waitFor();
  const before = await stateOf(stage, page, yards);
  expect(ofKind(before, 'luminaire').map(({ shape: { photometry, rise } }) => [photometry, rise])).toEqual(
    Array(6).fill(['floodlight', 6]),
  );
  const apron = ofKind(before, 'outdoor').find(({ shape }) => shape.name === 'Boat Apron')!;
  const [xs, ys] = [apron.shape.outline.map(([x]) => x), apron.shape.outline.map(([, y]) => y)];
  const [x, y] = [xs, ys].map((all) => (Math.min(...all) + Math.max(...all)) / 2);
  await station(page, 'Tracing');
  await part(page, 'Change');
  await page.evaluate((p) => window.zirconBoard!.look([p[0] - 20, p[1] - 20, p[0] + 20, p[1] + 20]), [x, y]);
  await clickOn(page, [x + 1.5, y + 2.5]);
  await selection(page)
    .getByText(/Boat Apron/)
    .waitFor();
  await choose(page, 'What it is', 'apron, loading');
  await page.getByRole('button', { name: /^Undo: / }).waitFor();
  await station(page, 'Proof');
  await part(page, 'Light');
  await page.getByRole('button', { name: 'Calculate', exact: true }).click();
  const row = page.getByRole('table', { name: 'Illuminance', exact: true }).getByRole('row', { name: /^Boat Apron/ });
  await row.waitFor({ timeout: 90_000 });
  const [, mean, asked] = await row.getByRole('cell').allInnerTexts();
  // EN 12464-2 asks 50 lx of places of loading; six floodlights about 1 ha do not give them.
  expect(asked).toBe('50');
  expect(Number(mean)).toBeGreaterThan(0);
  expect(Number(mean)).toBeLessThan(50);
  await page.getByText(/1 area: 1 below what is asked/).waitFor();
  await context.close();
});

test('the pages had nothing to complain about', () => {
  expect(problems).toEqual([]);
});
