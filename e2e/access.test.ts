import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { join } from 'node:path';
import type { Page } from 'playwright-core';
import { openFinished, part, station, type Stage, settled, openProject } from './harness';

/** The rules of WCAG 2.2 AA and the library's best practices, in the page as it is. */
const axe = readFileSync(
  join(createRequire(join(process.cwd(), 'package.json')).resolve('axe-core/axe.min.js')),
  'utf8',
);

let stage: Stage;
let project: string;

beforeAll(async () => {
  ({ stage, project } = await openFinished());
}, 90_000);
afterAll(async () => stage.close());

interface Found {
  violations: { id: string; nodes: { html: string; any: { message: string }[] }[] }[];
}

/** What depends on the scheme; all else is asked of the light one alone. */
const ofColours = ['color-contrast', 'link-in-text-block'];

type Scheme = 'light' | 'dark';

/** What breaks a rule, as short texts. */
async function violations(page: Page, scheme: Scheme, where: string): Promise<string[]> {
  await page.evaluate(axe);
  const { violations: found } = await page.evaluate(
    (rules) =>
      (window as unknown as { axe: { run: (options: object) => Promise<unknown> } }).axe.run({
        preload: false,
        resultTypes: ['violations'],
        ...(rules === null ? {} : { runOnly: { type: 'rule', values: rules } }),
      }) as Promise<Found>,
    scheme === 'dark' ? ofColours : null,
  );
  return found.flatMap(({ id, nodes }) =>
    nodes.map(({ html, any }) => `${where}: ${id}: ${html.slice(0, 160)} ${any[0]?.message ?? ''}`),
  );
}

/** What opens over the desk or beside the board. */
async function overTheDesk(page: Page, scheme: Scheme): Promise<string[]> {
  const found: string[] = [];
  await page.getByRole('button', { name: 'The model in space' }).click();
  await page.getByRole('region', { name: 'How the model is seen' }).waitFor();
  await page.getByRole('button', { name: 'Cut', exact: true }).click();
  await page.getByRole('button', { name: 'Second view' }).click();
  await page.getByRole('textbox', { name: 'Find a text in this drawing' }).waitFor();
  await settled(page);
  found.push(...(await violations(page, scheme, 'Space and second view')));
  await page.getByRole('button', { name: 'Views', exact: true }).click();
  await page.getByRole('textbox', { name: 'Name of this view' }).waitFor();
  await settled(page);
  found.push(...(await violations(page, scheme, 'Views')));
  await page.keyboard.press('Escape');
  for (const tab of ['Intake', 'Keys']) {
    await page.getByRole('button', { name: 'Guide and keys' }).click();
    await part(page, tab);
    await settled(page);
    found.push(...(await violations(page, scheme, `Guide, ${tab}`)));
    await page.getByRole('button', { name: 'Close the guide' }).click();
  }
  return found;
}

const parts: Record<string, string[]> = {
  Intake: ['Report', 'Recipe', 'Plans', 'Display', 'Revisions'],
  Datum: ['Unit', 'Place', 'Fit', 'Levels', 'Measure', 'Project'],
  Sorting: ['Layers', 'Blocks', 'Picked lines', 'Role maps'],
  Reading: ['Review', 'Library', 'Numbering', 'Taken for granted'],
  Tracing: ['Make', 'Change', 'Tidy', 'History'],
  Proof: [],
  Handover: ['Deliveries', 'Single files'],
};

test.each<Scheme>(['light', 'dark'])('every part of every station keeps the rules, %s', async (scheme) => {
  const context = await stage.browser.newContext({ viewport: { width: 1280, height: 800 }, colorScheme: scheme });
  context.setDefaultTimeout(60_000);
  const page = await context.newPage();
  await page.goto(stage.address);
  await page.getByRole('heading', { name: 'Projects' }).waitFor();
  const found = await violations(page, scheme, 'Projects');
  await openProject(stage, page, project);
  for (const [name, tabs] of Object.entries(parts)) {
    await station(page, name);
    await page.getByRole('heading', { name, level: 1 }).waitFor();
    if (name === 'Reading') await page.getByRole('tablist', { name: 'Kinds' }).waitFor({ timeout: 60_000 });
    for (const tab of tabs) {
      await part(page, tab);
      await settled(page);
      found.push(...(await violations(page, scheme, `${name}, ${tab}`)));
    }
    if (tabs.length === 0) found.push(...(await violations(page, scheme, name)));
  }
  found.push(...(await overTheDesk(page, scheme)));
  expect(found).toEqual([]);
  await context.close();
});
