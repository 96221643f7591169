import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium, type Page } from 'playwright-core';
import { browserArguments, browserPath, ensureBrowser } from '@/cli/browser';
import { buildApplication } from '@/cli/build';
import { removeCluster, startCluster } from '@/cli/postgres';
import { serve } from '@/cli/serve';
import { anyPort } from '@/cli/system';
import { roleId } from '@/core/model/roles';
import type { ProjectState } from '@/core/model/state';
import { makePlan } from './makePlan';
import { tiled } from './tiledPlan';

/** The page has come to rest when nothing was drawn for this long, milliseconds. */
const rest = 400;
const patience = 120_000;
/** Asked by the clock: asking at each frame would itself keep the page drawing. */
const wait = { timeout: patience, polling: 50 };

/** What the page tells of itself: when the board last drew, and tasks that held the window up. */
interface Told {
  drawn: number;
  tasks: { start: number; duration: number }[];
}

declare global {
  interface Window {
    told: Told;
  }
}

const listen = () => {
  window.told = { drawn: 0, tasks: [] };
  new PerformanceObserver((list) => {
    for (const { startTime, duration } of list.getEntries()) window.told.tasks.push({ start: startTime, duration });
  }).observe({ type: 'longtask', buffered: true });
  const ask = window.requestAnimationFrame.bind(window);
  window.requestAnimationFrame = (callback) =>
    ask((time) => {
      window.told.drawn = performance.now();
      callback(time);
    });
};

const now = (page: Page) => page.evaluate(() => performance.now());

/** Waits until nothing was drawn for a while. @returns when the last was, in the page's time */
async function settled(page: Page): Promise<number> {
  await page.waitForFunction((quiet) => performance.now() - window.told.drawn > quiet, rest, wait);
  return page.evaluate(() => window.told.drawn);
}

/** Whether an underlay lies on the board, all of it drawn. */
async function onBoard(page: Page): Promise<number> {
  await page.waitForFunction(() => (window.zirconBoard?.scene.drawings.length ?? 0) > 0, null, wait);
  return settled(page);
}

/** The longest task since a time, milliseconds. */
const longest = (page: Page, since: number) =>
  page.evaluate(
    (from) =>
      window.told.tasks.reduce((most, { start, duration }) => (start >= from ? Math.max(most, duration) : most), 0),
    since,
  );

const told = (what: string, took: number, goal: number, note = '') =>
  console.log(`${what.padEnd(44)}${(took / 1000).toFixed(2).padStart(8)} s   goal ${goal} s${note}`);

/** Drops a plan into a new project and times its way to the report and to the board. */
async function drop(page: Page, address: string, path: string): Promise<string> {
  const response = await page.request.post(`${address}/api/projects`, { data: { name: `Window ${path.length}` } });
  const { id } = (await response.json()) as { id: string };
  await page.goto(`${address}/projects/${id}`);
  const input = page.getByLabel('DXF files');
  await input.waitFor({ state: 'attached' });
  await settled(page);
  const start = await now(page);
  await input.setInputFiles(path);
  await page.getByRole('heading', { name: 'Intake report' }).waitFor(wait);
  told('drop to report', (await now(page)) - start, 4);
  await page.waitForFunction(() => (window.zirconBoard?.scene.drawings.length ?? 0) > 0, null, wait);
  told('first lines', (await now(page)) - start, 3);
  const end = await onBoard(page);
  told('drop to board', end - start, 8, `; longest task ${(await longest(page, start)).toFixed(0)} ms`);
  return id;
}

async function giveRoles(page: Page, address: string, id: string, roles: Record<string, string>): Promise<void> {
  const { state, history } = (await (await page.request.get(`${address}/api/projects/${id}/state`)).json()) as {
    state: ProjectState;
    history: { version: number };
  };
  const [drawing] = Object.values(state.drawing);
  const changes = [
    ...Object.entries(roles).flatMap(([layer, role]) => {
      const row = state.role[roleId(drawing.id, layer)];
      return row ? [{ table: 'role', id: row.id, row: { ...row, role, suggested: false } }] : [];
    }),
    {
      table: 'placement',
      id: drawing.id,
      row: { ...state.placement[drawing.id], unit: 'mm', scale: 1, confirmed: true },
    },
  ];
  const edit = { label: 'Roles', changes };
  const answer = await page.request.post(`${address}/api/projects/${id}/edits`, {
    data: { seen: history.version, clientId: crypto.randomUUID(), edit },
  });
  if (!answer.ok()) throw new Error(await answer.text());
}

/** Accepts all that is read of a plan. */
async function accept(page: Page): Promise<void> {
  const reading = await now(page);
  await page.getByRole('navigation', { name: 'Course' }).getByText('Reading', { exact: true }).click();
  const all = page.getByRole('button', { name: /^Accept .* of all kinds/ });
  await all.waitFor(wait);
  await settled(page);
  told('read', (await now(page)) - reading, 3);
  console.log(`  ${await all.textContent()}`);
  const start = await now(page);
  await all.click();
  await page.getByRole('status').filter({ hasText: 'Saved' }).waitFor(wait);
  told('accept all', (await now(page)) - start, 3, `; longest task ${(await longest(page, start)).toFixed(0)} ms`);
  await settled(page);
}

/** `./run bench window [entities]`: the ways of a large plan through the real page. Seconds depend on the machine. */
export async function benchWindow(entities: number): Promise<number> {
  const temporary = mkdtempSync(join(tmpdir(), 'zircon-window-'));
  const cluster = join(temporary, 'db');
  try {
    ensureBrowser();
    const { url } = await startCluster(cluster, { throwAway: true });
    await buildApplication();
    const serving = await serve('start', await anyPort(), { DATABASE_URL: url });
    const browser = await chromium.launch({ executablePath: browserPath, args: browserArguments });
    try {
      const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
      await page.addInitScript(listen);
      const [plain, plan] = [join(temporary, 'plain.dxf'), join(temporary, 'plan.dxf')];
      writeFileSync(plain, makePlan(entities));
      console.log(`A plan with blocks, ${entities.toLocaleString('en')} entities`);
      await drop(page, serving.address, plain);
      const { dxf, roles } = tiled(entities);
      writeFileSync(plan, dxf);
      console.log(`\nA plan to be read, ${(dxf.length / 1e6).toFixed(1)} MB`);
      const id = await drop(page, serving.address, plan);
      await giveRoles(page, serving.address, id, roles);
      await page.reload();
      await onBoard(page);
      await accept(page);
      const open = Date.now();
      await page.goto(`${serving.address}/projects/${id}`);
      await page.getByRole('navigation', { name: 'Course' }).waitFor();
      await page.waitForFunction(
        () => Object.keys(window.zirconBoard?.scene.model.element ?? {}).length > 0,
        null,
        wait,
      );
      told('open again, model there', Date.now() - open, 2);
      await onBoard(page);
      told('open again, all drawn', Date.now() - open, 8, `; longest task ${(await longest(page, 0)).toFixed(0)} ms`);
    } finally {
      await browser.close();
      await serving.stop();
    }
    return 0;
  } finally {
    removeCluster(cluster);
    rmSync(temporary, { recursive: true, force: true });
  }
}
