import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import type { CDPSession, Page } from 'playwright-core';
import type { Box } from '@/core/geometry/boxIndex';
import { put, type Change } from '@/core/model/edits';
import { levelIds, makeModel } from './makeModel';
import { edit, newProject, settled, wait, withPage, type Bench } from './pages';
import { tiled } from './tiledPlan';

/** Moves of the pointer in each tool, and pans at each zoom. */
const moves = 60;
const goal = 8;

/** How wide the board looks, metres: a room, a wing, all. */
const zooms: [name: string, box: Box][] = [
  ['a room', [20, 20, 32, 28]],
  ['a wing', [0, 0, 70, 45]],
  ['all', [0, 0, 260, 260]],
];

const quantile = (values: readonly number[], share: number): number =>
  [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(values.length * share))];

interface Measured {
  what: string;
  median: number;
  p95: number;
  /** All script of the page for a move of the pointer, on average. */
  script: number;
}

/** Does something with the pointer and says what its frames took. */
async function measured(page: Page, cdp: CDPSession, what: string, work: () => Promise<void>): Promise<Measured> {
  const scriptNow = async () => {
    const { metrics } = await cdp.send('Performance.getMetrics');
    return metrics.find(({ name }) => name === 'ScriptDuration')!.value * 1000;
  };
  await page.evaluate(() => void (window.told.frames = []));
  const before = await scriptNow();
  await work();
  const script = ((await scriptNow()) - before) / moves;
  const frames = await page.evaluate(() => window.told.frames);
  return { what, median: quantile(frames, 0.5) ?? 0, p95: quantile(frames, 0.95) ?? 0, script };
}

/** Waits until a frame was drawn after what was just sent. */
const drawn = (page: Page) => page.evaluate(() => new Promise((done) => requestAnimationFrame(done)));

/** Moves the pointer over the board on a winding way, frame by frame. */
async function wander(page: Page): Promise<void> {
  const { x, y, width, height } = (await page.getByRole('application').boundingBox())!;
  for (let i = 0; i < moves; i += 1) {
    const [along, across] = [i / moves, 0.5 + 0.3 * Math.sin(i / 7)];
    await page.mouse.move(x + width * (0.15 + 0.7 * along), y + height * across);
    await drawn(page);
  }
}

const tell = ({ what, median, p95, script }: Measured): void =>
  console.log(
    [
      what.padEnd(52),
      `${median.toFixed(1).padStart(6)} ms (median)`,
      `${p95.toFixed(1).padStart(6)} ms (p95)`,
      `${script.toFixed(1).padStart(6)} ms of script a move${p95 > goal ? '   OVER' : ''}`,
    ].join(''),
  );

/** The ways that the bench offers now, in its groups. */
const offered = (page: Page, group: string): Promise<string[]> =>
  page.getByRole('group', { name: group, exact: true }).getByRole('button').allTextContents();

/** Measures every way of a group: turned to, begun by a click, followed over the board, and left again. */
async function measureWays(
  page: Page,
  cdp: CDPSession,
  group: string,
  of: string,
  before: () => Promise<void> = async () => {},
): Promise<void> {
  const { x, y, width, height } = (await page.getByRole('application').boundingBox())!;
  for (const way of await offered(page, group)) {
    await before();
    await page.getByRole('group', { name: group, exact: true }).getByRole('button', { name: way, exact: true }).click();
    await page.mouse.click(x + width * 0.12, y + height * 0.5);
    tell(await measured(page, cdp, `${of}: ${way}`, () => wander(page)));
    await page.keyboard.press('Escape');
    await page.keyboard.press('Escape');
  }
}

/** Measures taking from the drawing, where a kind can be taken. */
async function measureTake(page: Page, cdp: CDPSession, kind: string): Promise<void> {
  const take = page.getByRole('button', { name: /^Take .* by a click$/ });
  if ((await take.count()) === 0) return;
  await take.click();
  tell(await measured(page, cdp, `${kind}: taken from the drawing`, () => wander(page)));
  await take.click();
}

/** Selects all that lies in the middle of the board. */
async function selectMany(page: Page): Promise<void> {
  const { x, y, width, height } = (await page.getByRole('application').boundingBox())!;
  await page.keyboard.down('Shift');
  await page.mouse.move(x + width * 0.1, y + height * 0.1);
  await drawn(page);
  await page.mouse.down();
  for (const share of [0.4, 0.6, 0.8]) {
    await page.mouse.move(x + width * share, y + height * share);
    await drawn(page);
  }
  await page.mouse.up();
  await page.keyboard.up('Shift');
  await page.getByRole('heading', { name: /^\d+ selected$/ }).waitFor();
}

/** Pans with the wheel pressed or a drag on the empty board, to and fro. */
async function pan(page: Page): Promise<void> {
  const { x, y, width, height } = (await page.getByRole('application').boundingBox())!;
  const [fromX, fromY] = [x + width * 0.5, y + height * 0.5];
  await page.mouse.move(fromX, fromY);
  await page.mouse.down({ button: 'middle' });
  for (let i = 0; i < moves; i += 1) {
    await page.mouse.move(fromX + width * 0.3 * Math.sin(i / 8), fromY + height * 0.3 * Math.sin(i / 5));
    await drawn(page);
  }
  await page.mouse.up({ button: 'middle' });
}

/** A project of a large model on a large plan. */
export async function largeProject(bench: Bench, elements: number, entities: number): Promise<void> {
  const { page, address, folder } = bench;
  const id = await newProject(bench, 'Frames');
  const { model } = makeModel(elements);
  await edit(bench, id, 'Model', ({ level }) => [
    ...levelIds.map((name) => put('level', model.level[name])),
    ...Object.keys(level).map((name): Change => ({ table: 'level', id: name, row: null })),
    ...Object.values(model.element).map((row) => put('element', { ...row, source: null })),
  ]);
  await page.goto(`${address}/projects/${id}`);
  const path = join(folder, 'plan.dxf');
  writeFileSync(path, tiled(entities).dxf);
  await page.getByLabel('Files to bring in').setInputFiles(path);
  await page.getByRole('heading', { name: 'Intake report' }).waitFor(wait);
  await page.waitForFunction(() => (window.zirconBoard?.scene.drawings.length ?? 0) > 0, null, wait);
}

/** `./run bench frames [elements] [entities]`: what a frame takes in every tool and at every zoom. */
export const benchFrames = (elements: number, entities: number): Promise<number> =>
  withPage(async (bench) => {
    const { page } = bench;
    const cdp = await page.context().newCDPSession(page);
    await cdp.send('Performance.enable');
    await largeProject(bench, elements, entities);
    const look = (box: Box) => page.evaluate((at) => window.zirconBoard?.look(at), box);
    for (const [name, box] of zooms) {
      await look(box);
      await settled(page);
      tell(await measured(page, cdp, `panning, ${name} in view`, () => pan(page)));
    }
    await page.getByRole('navigation', { name: 'Course' }).getByText('Tracing', { exact: true }).click();
    await look(zooms[0][1]);
    await settled(page);
    for (const kind of await page.getByRole('radiogroup', { name: 'Kind' }).getByRole('radio').allTextContents()) {
      await page.getByRole('radio', { name: kind, exact: true }).click();
      await measureTake(page, cdp, kind);
      await measureWays(page, cdp, 'How', kind);
    }
    await page.getByRole('tab', { name: 'Change', exact: true }).click();
    await measureWays(page, cdp, 'On the board', 'On the board');
    await look(zooms[1][1]);
    await settled(page);
    await selectMany(page);
    const many = await page.getByRole('heading', { name: /^\d+ selected$/ }).textContent();
    await measureWays(page, cdp, 'With what is selected', many ?? '', () => selectMany(page));
  });
