import { clickOn, ofKind, openStage, part, problems, selection, station, stateOf, type Stage } from './harness';

let stage: Stage;
let project: string;

beforeAll(async () => {
  stage = await openStage();
  project = await stage.seed();
}, 90_000);
afterAll(async () => stage.close());

test('a room is lit by a field of luminaires: its mean by the lumens, its values on the board, stale after an edit', async () => {
  const { page, context } = await stage.person();
  await page.goto(`${stage.address}/projects/${project}`);
  await page.getByText(/[\d,]+ lines, \d+ elements/).waitFor();
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

test('the pages had nothing to complain about', () => {
  expect(problems).toEqual([]);
});
