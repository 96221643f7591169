import { readFileSync } from 'node:fs';
import type { Page } from 'playwright-core';
import { gridArcs, gridLines } from '../demo/building';
import { groundFloor } from '../demo/ground';
import { readDxf } from '@/core/drawing/reader';
import type { ModelFile } from '@/core/handover/model/schema';
import { flatten } from '@/core/underlay/flatten';
import {
  boardMap,
  bringIn,
  fileNamed,
  newProject,
  openStage,
  picture,
  part,
  problems,
  station,
  type Stage,
  settled,
  otherThan,
} from './harness';

let stage: Stage;
let page: Page;
let project: string;
const plan = groundFloor();
const file = fileNamed('marram-ground.dxf', plan.dxf);

beforeAll(async () => {
  stage = await openStage();
  ({ page } = await stage.person());
}, 60_000);
afterAll(async () => stage.close());

const railText = (word: string) =>
  page.getByRole('navigation', { name: 'Course' }).getByRole('button').filter({ hasText: word }).innerText();

test('a drawing is brought in, and every entity of it is accounted for', async () => {
  project = await newProject(stage, page, 'Marram Point');
  await page.getByText('No drawing yet. Bring a DXF plan in at Intake, or draw at Tracing.').waitFor();
  await bringIn(page, file);
  const rows = await page.getByRole('table', { name: 'Read by kind' }).getByRole('row').allInnerTexts();
  const read = Object.fromEntries(
    rows
      .slice(1)
      .map((row) => row.split('\t'))
      .map(([kind, count]) => [kind.trim(), Number(count)]),
  );
  expect(read).toEqual(plan.counts);
  await page.getByRole('heading', { name: 'Nothing was left out' }).waitFor();
  const [stored] = await stage.sql<{ sha256: string; sum: string }>(
    "select sha256, encode(sha256(string_agg(bytes, ''::bytea order by seq)), 'hex') as sum " +
      'from files join file_chunks on file_id = id group by id',
  );
  expect(stored.sha256).toBe(stored.sum);
});

test('the unit is put right, and a known size measured between two snapped points shows it', async () => {
  await station(page, 'Datum');
  await page.getByText('The header says metres.').waitFor();
  await page.getByRole('radio', { name: 'millimetres' }).check();
  await page.getByRole('button', { name: 'Take millimetres' }).click();
  await page.getByText('millimetres confirmed').waitFor();
  await page.getByRole('tab', { name: 'Measure' }).click();
  await page.getByRole('button', { name: 'Distance' }).click();
  await page.getByRole('button', { name: 'Show all (Home)' }).click();
  await settled(page);
  const at = await boardMap(page);
  // Grid line 1 begins at (0, -2.4), line 7 at (32.55, -2.4).
  for (const [e, n] of [
    [0, -2.4],
    [32.55, -2.4],
  ]) {
    await page.mouse.move(...at(e, n));
    await settled(page);
    expect(await page.locator('[data-part=holding]').textContent()).toMatch(/A-GRID/);
    await page.mouse.click(...at(e, n));
  }
  const measured = page.getByRole('status', { name: 'Measured' });
  await measured.waitFor();
  expect(await measured.innerText()).toContain('32.550 m');
  expect((await measured.innerText()).replace(/\u202f/g, '')).toContain('32550.00 drawing units');
  await page.getByRole('button', { name: 'Distance', pressed: true }).click();
  await page.getByRole('button', { name: 'Clear' }).click();
  await measured.waitFor({ state: 'detached' });
});

test('a point of the drawing is picked to be the zero; undo and redo take it back and forth', async () => {
  await page.getByRole('tab', { name: 'Place' }).click();
  await page.getByRole('button', { name: 'Pick the zero' }).click();
  const at = await boardMap(page);
  // The far end of grid line D.
  await page.mouse.click(...at(34.95, 17.1));
  await page.getByText(/drawing.s point/).waitFor();
  expect((await page.getByText(/drawing.s point/).innerText()).replace(/\u202f/g, '')).toContain('34950.00, 17100.00');
  await page.getByRole('button', { name: /^Undo: .* of marram-ground on the zero/ }).click();
  await page.getByText('As drawn: the drawing').waitFor();
  await page.getByRole('button', { name: /^Redo: .* of marram-ground on the zero/ }).click();
  await page.getByText(/drawing.s point/).waitFor();
  await page.getByRole('button', { name: 'As drawn' }).click();
  await page.getByText('As drawn: the drawing').waitFor();
});

test('layers are sorted: a role taken away and given, layers hidden and found', async () => {
  await station(page, 'Sorting');
  await page.getByRole('combobox', { name: 'Role of A-COLS' }).click();
  await page.getByRole('option', { name: 'No role' }).click();
  await page.getByRole('heading', { name: '9 of 12 layers have a role' }).waitFor();
  await page.getByRole('combobox', { name: 'Role of A-COLS' }).click();
  await page.getByRole('option', { name: 'Column' }).click();
  await page.getByRole('heading', { name: '10 of 12 layers have a role' }).waitFor();
  await page.getByLabel('Find a layer').fill('glaz');
  await page.getByRole('heading', { name: '1 of 1 layers have a role' }).waitFor();
  await page.getByLabel('Find a layer').fill('');
  await settled(page);
  const before = await picture(page);
  await page.getByRole('button', { name: 'Hide A-WALL' }).click();
  await page.getByRole('button', { name: 'Show A-WALL' }).waitFor();
  await otherThan(page, before);
  await page.getByRole('button', { name: 'Show A-WALL' }).click();
  await page.getByRole('button', { name: 'Hide A-WALL' }).waitFor();
});

test('candidates are judged with their evidence: one rejected and judged again, the rest accepted at once', async () => {
  await station(page, 'Reading');
  await page.getByRole('tab', { name: /Grid lines 20/ }).waitFor();
  await page.getByRole('button', { name: 'Accept 20' }).click();
  await page.getByRole('tab', { name: /accepted\s*20/ }).waitFor();
  await page.getByRole('tab', { name: /Columns 45/ }).click();
  await page.getByRole('button', { name: 'Next doubtful' }).click();
  await page.getByText('5.0 mm from the crossing 2/A').waitFor();
  await page.getByRole('button', { name: 'Reject this one' }).click();
  await page.getByRole('tab', { name: /rejected\s*1/ }).click();
  await page.getByRole('button', { name: 'Judge 1 again' }).click();
  await page.getByRole('tab', { name: /to judge\s*45/ }).click();
  await page.getByRole('button', { name: 'Accept 45' }).click();
  await page.getByRole('tab', { name: /accepted\s*45/ }).waitFor();
  expect(await railText('Handover')).toContain('65 elements');
});

test('undo, redo and a reload keep what was decided', async () => {
  await page.getByRole('button', { name: 'Undo: Accept 45 columns' }).click();
  await page.getByRole('tab', { name: /to judge\s*45/ }).waitFor();
  await page.reload();
  await page.getByRole('heading', { name: 'Reading', level: 1 }).waitFor();
  expect(await railText('Handover')).toContain('20 elements');
  await page.getByRole('button', { name: 'Redo: Accept 45 columns' }).click();
  await expect65();
  await stage.kill();
  await stage.restart();
  await page.reload();
  await expect65();
});

async function expect65() {
  await page.getByRole('navigation', { name: 'Course' }).getByText('65 elements').waitFor();
}

test('a second window sees the change without reloading', async () => {
  const other = (await stage.person()).page;
  await other.goto(page.url());
  await other.getByRole('navigation', { name: 'Course' }).getByText('65 elements').waitFor();
  await page.getByRole('button', { name: 'Undo: Accept 45 columns' }).click();
  await other.getByRole('navigation', { name: 'Course' }).getByText('20 elements').waitFor();
  await other.getByRole('button', { name: 'Redo: Accept 45 columns' }).click();
  await expect65();
  await other.close();
});

test('the downloaded model is the building, in numbers', async () => {
  await station(page, 'Handover');
  await part(page, 'Single files');
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Save model.json' }).click(),
  ]);
  expect(download.suggestedFilename()).toBe('Marram Point model.json');
  const model = JSON.parse(readFileSync(await download.path(), 'utf8')) as ModelFile;
  expect(model.grids.map((line) => line.label).sort()).toEqual(
    [...gridLines(), ...gridArcs()].map((line) => line.label).sort(),
  );
  for (const truth of gridArcs()) {
    const arc = model.grids.find((line) => line.label === truth.label)!;
    if (arc.kind !== 'arc') throw new Error('not an arc');
    expect(Math.hypot(arc.centre[0] - truth.centre[0], arc.centre[1] - truth.centre[1])).toBeLessThan(0.001);
    expect([arc.radius, arc.startAngle, arc.endAngle].map((v) => Number(v.toFixed(5)))).toEqual([
      truth.radius,
      truth.startAngle,
      truth.endAngle,
    ]);
  }
  expect(model.columns).toHaveLength(plan.columnsAsDrawn.length);
  for (const truth of plan.columnsAsDrawn) {
    const column = model.columns.find(
      ({ position }) => Math.hypot(position[0] - truth.position[0], position[1] - truth.position[1]) < 0.001,
    );
    expect(column?.section).toEqual(truth.section);
    expect(column?.rotation).toBeCloseTo(truth.rotation, 5);
    expect(column?.level).toBe(model.levels[0].id);
  }
});

test('the downloaded DXF overlays the original: same unit, same origin, each column on its outline', async () => {
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Save DXF' }).click(),
  ]);
  const back = readDxf(readFileSync(await download.path()));
  if (!back.ok) throw new Error(back.message);
  expect(back.value.drawing.header.insUnits).toBe(4);
  const p = flatten(back.value.drawing);
  const layerOf = (name: string) => back.value.drawing.layers.findIndex((layer) => layer.name === name);
  const corners = [...p.layer.keys()]
    .filter((i) => p.layer[i] === layerOf('ZF-COLUMN') && p.start[i + 1] - p.start[i] === 4)
    .map((i) => [p.xy[2 * p.start[i]] + p.origin[0], p.xy[2 * p.start[i] + 1] + p.origin[1]]);
  const drawn = readDxf(new TextEncoder().encode(plan.dxf));
  if (!drawn.ok) throw new Error(drawn.message);
  const original = flatten(drawn.value.drawing);
  const near = (x: number, y: number) => {
    for (let v = 0; v < original.xy.length; v += 2)
      if (Math.hypot(original.xy[v] + original.origin[0] - x, original.xy[v + 1] + original.origin[1] - y) < 1.01)
        return true;
    return false;
  };
  expect(corners).toHaveLength(36);
  // Rounding of a size moves a corner by under a millimetre; everything else is exact.
  for (const [x, y] of corners) expect(near(x, y)).toBe(true);
  expect(project).toHaveLength(36);
});

test('the pages had nothing to complain about', () => {
  expect(problems).toEqual([]);
});
