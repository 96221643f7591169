import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium, type Page } from 'playwright-core';
import { truss } from '../../demo/section';
import { browserArguments, browserPath, ensureBrowser } from './browser';
import { buildApplication } from './build';
import { removeCluster, startCluster } from './postgres';
import { demoName } from './demoProject';
import { seedDemo } from './seed';
import { finishedName } from './seedFinished';
import { serve } from './serve';
import { anyPort, root, Stop } from './system';

const folder = join(root, 'docs/screenshots');

/** `./run screenshots`: walks the demo and keeps one picture of each main view in docs/screenshots. */
export async function screenshots(): Promise<number> {
  const temporary = mkdtempSync(join(tmpdir(), 'zircon-shots-'));
  const cluster = join(temporary, 'db');
  try {
    ensureBrowser();
    const { url } = await startCluster(cluster, { throwAway: true });
    process.env.DATABASE_URL = url;
    const { closeConnections, database } = await import('@/server/database/connection');
    const { migrate } = await import('@/server/database/migrate');
    await migrate(database());
    await seedDemo();
    await closeConnections();
    await buildApplication();
    const serving = await serve('start', await anyPort(), { DATABASE_URL: url });
    const browser = await chromium.launch({ executablePath: browserPath, args: browserArguments });
    try {
      const page = await (
        await browser.newContext({ viewport: { width: 1280, height: 800 }, colorScheme: 'light' })
      ).newPage();
      await walk(page, serving.address);
    } finally {
      await browser.close();
      await serving.stop();
    }
    return 0;
  } catch (error) {
    if (!(error instanceof Stop)) throw error;
    console.error(error.message);
    return 1;
  } finally {
    removeCluster(cluster);
    rmSync(temporary, { recursive: true, force: true });
  }
}

async function walk(page: Page, address: string): Promise<void> {
  /** @param still whether the pointer stays where it is */
  const shot = async (name: string, still = false) => {
    if (!still) await page.mouse.move(5, 790);
    await page.waitForTimeout(1500);
    await page.screenshot({ path: join(folder, `${name}.png`) });
  };
  const go = async (word: string) =>
    page.getByRole('navigation', { name: 'Course' }).getByText(word, { exact: true }).click();
  await page.goto(address);
  await shot('projects');
  await page.getByText(demoName, { exact: true }).click();
  await page.getByRole('heading', { name: 'Intake report' }).waitFor();
  const part = (name: string) => page.getByRole('tab', { name, exact: true }).click();
  const level = (name: string) => page.getByRole('button', { name: new RegExp(`^${name},`) }).click();
  await page.waitForTimeout(2500);
  await level('Upper');
  await shot('intake');
  await level('Ground');
  await page.getByRole('button', { name: /^marram-ground / }).click();
  await part('Revisions');
  await page.getByRole('button', { name: 'Use revision 2' }).click();
  await page.getByRole('button', { name: 'Show on the board' }).click();
  await page.getByRole('heading', { name: 'Since revision 1' }).scrollIntoViewIfNeeded();
  await page.getByRole('button', { name: 'Use revision 1' }).click();
  await page.getByRole('button', { name: 'Use revision 2' }).waitFor();
  await part('Report');
  await go('Datum');
  await page.getByRole('button', { name: 'Take millimetres' }).waitFor();
  await shot('datum');
  await page.getByRole('button', { name: 'Take millimetres' }).click();
  const take = async (name: string) => {
    await page.getByRole('combobox', { name: 'Drawing', exact: true }).click();
    await page.getByRole('option', { name, exact: true }).click();
  };
  await part('Fit');
  await take('marram-upper');
  await page.getByRole('button', { name: 'By grid labels' }).click();
  await page.getByRole('group', { name: 'The fit' }).waitFor();
  await page.getByRole('button', { name: 'Apply' }).click();
  await part('Place');
  await take('marram-section');
  await page.getByRole('button', { name: 'Look at it face on' }).click();
  await shot('datum-section');
  await page.getByRole('button', { name: 'Back to the plan' }).click();
  await part('Unit');
  await take('marram-ground');
  await level('Ground');
  await go('Sorting');
  await shot('sorting');
  await go('Reading');
  await page.getByRole('button', { name: 'Accept 20' }).click();
  await page.getByRole('tab', { name: /Columns/ }).click();
  await page.getByRole('button', { name: 'Next doubtful' }).click();
  await shot('reading-evidence');
  await page.getByRole('button', { name: 'Accept 45' }).click();
  await page
    .getByRole('tablist', { name: 'Kinds' })
    .getByRole('tab', { name: /^Walls/ })
    .click();
  await page.getByRole('button', { name: /of all kinds/ }).click();
  await page
    .getByRole('tablist', { name: 'Kinds' })
    .getByRole('tab', { name: /^Zones/ })
    .click();
  await page.getByRole('tab', { name: /accepted/ }).click();
  await page
    .getByRole('list', { name: /^Zones/ })
    .getByRole('button')
    .nth(5)
    .click();
  await shot('reading-zones');
  await page.getByRole('button', { name: 'Show all (Home)' }).click();
  await part('Review');
  await traced(page, shot, go);
  await go('Handover');
  await shot('handover');
  await page.getByRole('button', { name: 'Dark colours' }).click();
  await go('Reading');
  await page.getByRole('tab', { name: /accepted/ }).click();
  await shot('reading-dark');
  await page.goto(address);
  await page.getByRole('button', { name: 'Light colours' }).click();
  await page.getByText(finishedName, { exact: true }).click();
  await finished(page, shot, go);
}

/** The finished project: a truss taken from the section, the model in space, a mark followed in a second view. */
async function finished(
  page: Page,
  shot: (name: string, still?: boolean) => Promise<void>,
  go: (word: string) => Promise<void>,
) {
  const find = async (words: string, option: RegExp) => {
    await page.keyboard.press('Control+;');
    await page.keyboard.type(words);
    await page.getByRole('option').filter({ hasText: option }).first().click();
  };
  await page.getByText(/[\d,]+ lines, \d+ elements/).waitFor();
  await page.waitForTimeout(2500);
  await go('Tracing');
  await find('marram-section face on', /./);
  await page.waitForTimeout(1500);
  await page.evaluate(() => window.zirconBoard?.look([-3, -4, 21, 11]));
  await page.getByRole('button', { name: 'Take members by a click' }).click();
  const seen = await page.evaluate(() => window.zirconBoard!.camera);
  const board = (await page.getByRole('application').boundingBox())!;
  await page.mouse.click(
    board.x + board.width / 2 + (truss.from + 3 - seen.x) / seen.metresPerPixel,
    board.y + board.height / 2 - (truss.high + truss.chord / 2 - seen.y) / seen.metresPerPixel,
  );
  await page.getByRole('button', { name: /^Undo: Draw \d+ beams on a section/ }).waitFor();
  await page.keyboard.press('Escape');
  await shot('tracing-section');
  await page.getByRole('button', { name: 'Back to the plan' }).click();
  await page.getByRole('button', { name: 'The model in space' }).click();
  await page.waitForTimeout(2500);
  await shot('space');
  await page.getByRole('button', { name: 'The model in space' }).click();
  await page.evaluate(() => window.zirconBoard?.look('building'));
  await find('beam T1', /^beam T1/);
  await page.getByRole('button', { name: 'Second view' }).click();
  await page.getByRole('button', { name: /^R\s+250x500/ }).click();
  await shot('second-view');
  await page.getByRole('button', { name: 'Close the second view' }).click();
  // A column amid a room of the upper floor stands on nothing.
  await page.getByRole('button', { name: /^Upper, / }).click();
  await go('Tracing');
  await page.getByRole('radio', { name: 'Column', exact: true }).click();
  await page.getByRole('button', { name: 'One by one' }).click();
  await page.evaluate(() => window.zirconBoard?.look([10, 0, 18, 7]));
  await page.waitForTimeout(800);
  const plan = (await page.getByRole('application').boundingBox())!;
  await page.mouse.click(plan.x + plan.width / 2, plan.y + plan.height / 2);
  await page.keyboard.press('Escape');
  await go('Proof');
  await page
    .getByRole('button', { name: /^Nothing stands beneath/ })
    .first()
    .click();
  await page.waitForTimeout(1500);
  await shot('proof');
  // Without the loose column and the truss, as the demo is.
  await page.getByRole('button', { name: /^Undo: Draw 1 column/ }).click();
  await page.getByRole('button', { name: /^Undo: Draw \d+ beams on a section/ }).click();
  await page.getByRole('button', { name: /^Undo: Draw/ }).waitFor({ state: 'detached' });
  await page.getByRole('tab', { name: 'Drawings' }).click();
  await page.getByRole('combobox', { name: 'Drawing' }).click();
  await page.getByRole('option', { name: 'marram-upper', exact: true }).click();
  await page.getByText(/lie on their lines/).waitFor();
  await page.getByRole('button', { name: 'Tint on the board' }).click();
  await page.evaluate(() => window.zirconBoard?.look([-6, -6, 42, 20]));
  await page.waitForTimeout(800);
  await shot('comparison');
  await page.getByRole('tab', { name: 'Structure' }).click();
  await page.getByRole('button', { name: 'Calculate', exact: true }).click();
  await page.getByText('Taken for granted').waitFor();
  await page.getByRole('button', { name: /^Upper, / }).click();
  await page.evaluate(() => window.zirconBoard?.look([-2, -4, 34, 14]));
  await page.waitForTimeout(1500);
  await shot('structure');
  await lived(page, shot);
}

/** Heat and light of the library: what closes it, and what a field of luminaires gives it. */
async function lived(page: Page, shot: (name: string, still?: boolean) => Promise<void>) {
  await page.getByRole('tab', { name: 'Heat' }).click();
  const load = page.getByRole('table', { name: 'Design heat load' });
  await load.getByRole('button', { name: 'Library' }).click();
  await page.evaluate(() => window.zirconBoard?.look([-2, -2, 22, 14]));
  await page.getByRole('heading', { name: 'What closes Library' }).scrollIntoViewIfNeeded();
  await page.waitForTimeout(1500);
  await shot('heat');
  await page.getByRole('tab', { name: 'Light' }).click();
  await page.getByRole('button', { name: 'Work out' }).click();
  await page
    .getByRole('button', { name: /^Hang / })
    .last()
    .click();
  await page.getByRole('button', { name: 'Calculate', exact: true }).click();
  await page.getByRole('table', { name: 'Illuminance', exact: true }).waitFor({ timeout: 90_000 });
  await page.evaluate(() => window.zirconBoard?.look([4, -1, 18, 8]));
  await page.waitForTimeout(1500);
  await shot('light');
  await page.getByRole('button', { name: /^Undo: Light Library/ }).click();
}

/** Tracing: what the lines under the cursor would become, and what is selected with what can be done to it. */
async function traced(
  page: Page,
  shot: (name: string, still?: boolean) => Promise<void>,
  go: (word: string) => Promise<void>,
) {
  await go('Tracing');
  await page.evaluate(() => window.zirconBoard?.look([-3, -3, 20, 14]));
  await page.getByRole('radio', { name: 'Wall', exact: true }).click();
  await page.getByRole('button', { name: 'In a chain', exact: true }).click();
  const seen = await page.evaluate(() => window.zirconBoard!.camera);
  const board = (await page.getByRole('application').boundingBox())!;
  const at = [
    [8.1, 10.2],
    [8.1, 13.8],
  ].map(([x, y]) => [
    board.x + board.width / 2 + (x - seen.x) / seen.metresPerPixel,
    board.y + board.height / 2 - (y - seen.y) / seen.metresPerPixel,
  ]);
  await page.mouse.click(at[0][0], at[0][1]);
  await page.mouse.move(at[1][0], at[1][1]);
  await page.keyboard.down('l');
  await page.mouse.move(at[1][0] + 9, at[1][1] + 7);
  await shot('tracing', true);
  await page.keyboard.up('l');
  await page.keyboard.press('Escape');
  await page.keyboard.press('Escape');
  await page.getByRole('tab', { name: 'Change', exact: true }).click();
  await page.mouse.click(at[0][0], at[0][1] + 30);
  await page.getByRole('button', { name: /^columns \d/ }).click();
  await page
    .getByText(/\d+ selected/)
    .first()
    .scrollIntoViewIfNeeded();
  await shot('tracing-change');
  await page.getByRole('button', { name: 'None', exact: true }).click();
  await page.getByRole('button', { name: 'Show all (Home)' }).click();
}
