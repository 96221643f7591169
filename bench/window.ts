import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Page } from 'playwright-core';
import { put } from '@/core/model/edits';
import { roleId } from '@/core/model/roles';
import type { Role } from '@/core/sorting/roles';
import { makePlan } from './makePlan';
import { edit, newProject, settled, wait, withPage, type Bench } from './pages';
import { tiled } from './tiledPlan';

const now = (page: Page) => page.evaluate(() => performance.now());

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
async function drop(bench: Bench, path: string): Promise<string> {
  const { page, address } = bench;
  const id = await newProject(bench, `Window ${path.length}`);
  await page.goto(`${address}/projects/${id}`);
  const input = page.getByLabel('Files to bring in');
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

/** Gives layers their roles, and the drawing its unit. */
const giveRoles = (bench: Bench, id: string, roles: Record<string, string>): Promise<void> =>
  edit(bench, id, 'Roles', (state) => {
    const [drawing] = Object.values(state.drawing);
    const given = Object.entries(roles).flatMap(([layer, role]) => {
      const row = state.role[roleId(drawing.id, layer)];
      return row ? [put('role', { ...row, role: role as Role, suggested: false })] : [];
    });
    const placement = { ...state.placement[drawing.id], unit: 'mm', scale: 1, confirmed: true } as const;
    return [...given, put('placement', placement)];
  });

/** Whether the page offers to accept all; asked of the document itself, for asking by roles holds a large page up. */
const offered = () =>
  Array.from(document.querySelectorAll('button'), (button) => button.textContent).some((text) =>
    /^Accept .* of all kinds/.test(text),
  );
const notOffered = () =>
  Array.from(document.querySelectorAll('button'), (button) => button.textContent).every(
    (text) => !/^Accept .* of all kinds/.test(text),
  );

const isSaved = () =>
  Array.from(document.querySelectorAll('[role="status"]'), (status) => status.textContent).some((text) =>
    text.includes('Saved'),
  );

/** Accepts all that is read of a plan. */
async function accept(page: Page): Promise<void> {
  const reading = await now(page);
  await page.getByRole('navigation', { name: 'Course' }).getByText('Reading', { exact: true }).click();
  const all = page.getByRole('button', { name: /^Accept .* of all kinds/ });
  await page.waitForFunction(offered, null, wait);
  told('read', (await settled(page)) - reading, 3);
  console.log(`  ${await all.textContent()}`);
  const start = await now(page);
  await all.click();
  await page.waitForFunction(notOffered, null, wait);
  told('accept all, shown', (await now(page)) - start, 3);
  await page.waitForFunction(isSaved, null, wait);
  told(
    'accept all, saved',
    (await now(page)) - start,
    3,
    `; longest task ${(await longest(page, start)).toFixed(0)} ms`,
  );
  await settled(page);
}

/** `./run bench window [entities]`: the ways of a large plan through the real page. Seconds depend on the machine. */
export const benchWindow = (entities: number): Promise<number> =>
  withPage(async (bench) => {
    const { page, address, folder } = bench;
    const [plain, plan] = [join(folder, 'plain.dxf'), join(folder, 'plan.dxf')];
    writeFileSync(plain, makePlan(entities));
    console.log(`A plan with blocks, ${entities.toLocaleString('en')} entities`);
    await drop(bench, plain);
    const { dxf, roles } = tiled(entities);
    writeFileSync(plan, dxf);
    console.log(`\nA plan to be read, ${(dxf.length / 1e6).toFixed(1)} MB`);
    const id = await drop(bench, plan);
    await giveRoles(bench, id, roles);
    await page.reload();
    await onBoard(page);
    await accept(page);
    const open = Date.now();
    await page.goto(`${address}/projects/${id}`);
    await page.getByRole('navigation', { name: 'Course' }).waitFor();
    await page.waitForFunction(() => Object.keys(window.zirconBoard?.scene.model.element ?? {}).length > 0, null, wait);
    told('open again, model there', Date.now() - open, 2);
    await onBoard(page);
    told('open again, all drawn', Date.now() - open, 8, `; longest task ${(await longest(page, 0)).toFixed(0)} ms`);
  });
