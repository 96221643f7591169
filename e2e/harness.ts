import { createHash } from 'node:crypto';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import pg from 'pg';
import { chromium, type Browser, type BrowserContext, type Page } from 'playwright-core';
import { browserArguments, browserPath } from '@/cli/browser';
import { serve, type Serving } from '@/cli/serve';
import { templates } from '@/cli/templates';
import { anyPort } from '@/cli/system';
import type { ElementKind, ElementOf, ElementRow } from '@/core/kinds/element';
import type { ProjectState } from '@/core/model/state';

/** A server on a database of its own, and a browser. */
export interface Stage {
  address: string;
  databaseUrl: string;
  browser: Browser;
  sql: <T extends pg.QueryResultRow>(text: string, values?: unknown[]) => Promise<T[]>;
  /** A window of a person of its own. */
  person: () => Promise<{ context: BrowserContext; page: Page }>;
  /** Ends the server at once, as a power cut does. */
  kill: () => Promise<void>;
  restart: () => Promise<void>;
  close: () => Promise<void>;
}

/** Console messages that are the software renderer's and not ours. */
const noise = /GL Driver Message|GPU stall|Failed to load resource|EventSource|ERR_CONNECTION|ERR_INCOMPLETE|net::/;

/** A stage whose database holds the demo's finished project. */
export async function openFinished(): Promise<{ stage: Stage; project: string }> {
  const stage = await openStage({}, templates.finished);
  const [{ id }] = await stage.sql<{ id: string }>('select id from projects');
  return { stage, project: id };
}

/** @param template the database that its own begins as */
export async function openStage(env: Record<string, string> = {}, template: string = templates.empty): Promise<Stage> {
  const base = process.env.DATABASE_URL;
  if (!base) throw new Error('Run the interface tests through ./run test e2e');
  const name = `e2e_${createHash('sha256').update(`${process.hrtime.bigint()}`).digest('hex').slice(0, 12)}`;
  const admin = new pg.Client({ connectionString: base });
  await admin.connect();
  await admin.query(`create database ${name} template ${template}`);
  const url = new URL(base);
  url.pathname = `/${name}`;
  const databaseUrl = url.toString();
  const port = await anyPort();
  let serving: Serving = await serve('start', port, { DATABASE_URL: databaseUrl, ...env });
  const browser = await chromium.launch({ executablePath: browserPath, args: browserArguments });
  const client = new pg.Client({ connectionString: databaseUrl, application_name: 'keep' });
  client.on('error', (error) => problems.push(error.message));
  await client.connect();
  const stage: Stage = {
    address: serving.address,
    databaseUrl,
    browser,
    sql: async (text, values) => (await client.query(text, values)).rows as never,
    person: async () => {
      const context = await browser.newContext({
        viewport: { width: 1280, height: 800 },
        acceptDownloads: true,
        colorScheme: 'light',
      });
      context.setDefaultTimeout(60_000);
      await context.addInitScript(() =>
        document.addEventListener('securitypolicyviolation', (event) =>
          console.error(
            `policy ${event.violatedDirective} broken by ${event.sourceFile}:${event.lineNumber}:${event.columnNumber}`,
          ),
        ),
      );
      const page = await context.newPage();
      page.on('pageerror', (error) => problems.push(error.message));
      page.on('console', (message) => {
        if (message.type() === 'error' && !noise.test(message.text())) problems.push(message.text());
      });
      return { context, page };
    },
    kill: async () => {
      const ended = new Promise((done) => {
        serving.process.once('exit', done);
      });
      process.kill(-serving.process.pid!, 'SIGKILL');
      await ended;
    },
    restart: async () => {
      serving = await serve('start', port, { DATABASE_URL: databaseUrl, ...env });
    },
    close: async () => {
      await browser.close();
      await serving.stop();
      await client.end();
      await admin.query(`drop database ${name} with (force)`);
      await admin.end();
    },
  };
  return stage;
}

/** What went wrong in pages, unasked: the tests end by expecting nothing here. */
export const problems: string[] = [];

/** Asks the server as a program would. */
export async function ask<T>(
  stage: Stage,
  path: string,
  json?: unknown,
  method = json === undefined ? 'GET' : 'POST',
): Promise<{ status: number; body: T }> {
  const response = await fetch(stage.address + path, {
    method,
    // A connection of its own: one that is kept may be ended by the server just as it is used again.
    headers: { connection: 'close', ...(json === undefined ? {} : { 'content-type': 'application/json' }) },
    ...(json === undefined ? {} : { body: JSON.stringify(json) }),
  });
  return { status: response.status, body: (await response.json()) as T };
}

const folder = mkdtempSync(join(tmpdir(), 'zircon-files-'));

/** Writes a file to be chosen in the browser. */
export function fileNamed(name: string, content: string | Uint8Array): string {
  const path = join(folder, name);
  writeFileSync(path, content);
  return path;
}

export const station = (page: Page, word: string) =>
  page.getByRole('navigation', { name: 'Course' }).getByText(word, { exact: true }).click();

/** Where on the page a point of the project lies, found as a person would: by reading the position at two places. */
export async function boardMap(page: Page): Promise<(e: number, n: number) => [number, number]> {
  const box = (await page.getByRole('application').boundingBox())!;
  const told = async () => (await page.locator('[data-part=position]').textContent()) ?? '';
  const read = async (x: number, y: number, before: string): Promise<[number, number]> => {
    await page.mouse.move(x, y);
    // The position is told once a frame; a slow machine takes some.
    for (let i = 0; i < 100 && ['', before].includes(await told()); i += 1) await settled(page);
    const text = await told();
    const [e, n] = [
      ...text
        .replace(/[\u202f,]/g, '')
        .replace(/\u2212/g, '-')
        .matchAll(/(?:E|N|along|height) (-?[\d.]+)/g),
    ].map((match) => Number(match[1]));
    return [e, n];
  };
  // Below what lies over the board's upper edge: its buttons, and what is selected.
  const [x1, y1, x2, y2] = [box.x + 60, box.y + 120, box.x + box.width - 80, box.y + box.height - 80];
  // From outside of the board nothing is told: what is told then is of the place read.
  await page.mouse.move(2, 2);
  for (let i = 0; i < 20 && (await told()) !== ''; i += 1) await settled(page);
  const a = await read(x1, y1, '');
  const b = await read(x2, y2, await told());
  return (e, n) => [x1 + ((e - a[0]) / (b[0] - a[0])) * (x2 - x1), y1 + ((n - a[1]) / (b[1] - a[1])) * (y2 - y1)];
}

/** Makes a project in the browser and goes into it. */
export async function newProject(stage: Stage, page: Page, name: string): Promise<string> {
  await page.goto(stage.address);
  await page.getByRole('button', { name: 'New project' }).click();
  await page.getByRole('textbox', { name: 'Name' }).fill(name);
  await page.getByRole('button', { name: 'Create' }).click();
  await page.waitForURL(/\/projects\//);
  return page.url().split('/').pop()!;
}

/** Opens a project and waits until its board is there. */
export async function openProject(stage: Stage, page: Page, project: string): Promise<void> {
  await page.goto(`${stage.address}/projects/${project}`);
  await page.getByText(/[\d,]+ lines, \d+ elements/).waitFor();
}

/** Brings a file in and waits until its report is there. */
export async function bringIn(page: Page, path: string): Promise<void> {
  await page.getByLabel('Files to bring in').setInputFiles(path);
  await page.getByRole('heading', { name: 'Intake report' }).waitFor();
}

/**
 * A picture of the page as base64. Taken over the browser's own protocol: the library's way puts a style into the page,
 * which its policy forbids.
 */
export async function picture(page: Page): Promise<string> {
  const session = await page.context().newCDPSession(page);
  const { data } = await session.send('Page.captureScreenshot', { format: 'png' });
  await session.detach();
  return data;
}

/**
 * Waits until the window is at rest: what was done is taken in, the board has drawn it, and nothing moves or fades.
 */
export async function settled(page: Page): Promise<void> {
  const rested = await page.evaluate(async () => {
    const moving = () =>
      document.getAnimations().some(({ playState, effect }) => {
        const { iterations = 1 } = effect?.getTiming() ?? {};
        return playState === 'running' && iterations !== Infinity;
      });
    const atRest = () => !moving() && (window.zirconBoard?.atRest ?? true) && (window.zirconSpace?.atRest() ?? true);
    const end = Date.now() + 60_000;
    // What opens begins to fade in some frames after it is there.
    for (let calm = 0; calm < 3 && Date.now() < end; calm = atRest() ? calm + 1 : 0) {
      await new Promise((done) => requestAnimationFrame(done));
      await new Promise((done) => setTimeout(done));
    }
    return Date.now() < end;
  });
  if (!rested) throw new Error('The page did not come to rest');
}

/** Waits until the page looks otherwise than it did. @returns how it looks then */
export async function otherThan(page: Page, before: string): Promise<string> {
  const end = Date.now() + 60_000;
  for (;;) {
    await settled(page);
    const now = await picture(page);
    if (now !== before) return now;
    if (Date.now() > end) throw new Error('The page looks as before');
  }
}

/** Clicks at points of the project, once the board has come to rest. */
export async function clickOn(page: Page, ...points: [number, number][]): Promise<void> {
  await settled(page);
  const at = await boardMap(page);
  for (const [e, n] of points) {
    await page.mouse.move(...at(e, n));
    await settled(page);
    await page.mouse.click(...at(e, n));
  }
}

/** Chooses of a list that opens. */
export async function choose(page: Page, box: string, option: string): Promise<void> {
  await page.getByRole('combobox', { name: box, exact: true }).click();
  await page.getByRole('option', { name: option, exact: true }).click();
}

/** Types into a field and leaves it. */
export async function type(page: Page, field: string, text: string): Promise<void> {
  await page.getByRole('textbox', { name: field, exact: true }).fill(text);
  await page.keyboard.press('Enter');
}

/** Types into the fields at the cursor, once they stand there; Tab goes to the next of them, Enter takes them. */
export async function typeAtCursor(page: Page, ...texts: string[]): Promise<void> {
  await page.getByRole('group', { name: 'At the cursor' }).waitFor();
  for (const [i, text] of texts.entries()) {
    if (i > 0) await page.keyboard.press('Tab');
    await page.keyboard.type(text);
  }
  await page.keyboard.press('Enter');
}

/** Turns to a part of a bench. */
export const part = (page: Page, name: string) => page.getByRole('tab', { name, exact: true }).click();

/** The tab of a kind of candidates. */
export const kindTab = (page: Page, name: string) =>
  page.getByRole('tablist', { name: 'Kinds' }).getByRole('tab', { name: new RegExp(`^${name}`) });

/** Confirms the unit that the evidence is for. */
export async function confirmMillimetres(page: Page): Promise<void> {
  await station(page, 'Datum');
  await page.getByRole('button', { name: 'Take millimetres' }).click();
  await page.getByText('millimetres confirmed').waitFor();
}

/** The state of a project, once what was done last is saved. */
export async function stateOf(stage: Stage, page: Page, project: string): Promise<ProjectState> {
  await settled(page);
  await page.getByRole('status').filter({ hasText: 'Saved' }).waitFor();
  return (await ask<{ state: ProjectState }>(stage, `/api/projects/${project}/state`)).body.state;
}

/** The elements of a kind. */
export const ofKind = <K extends ElementKind>({ element }: ProjectState, kind: K): ElementOf<K>[] =>
  Object.values(element).filter((row): row is ElementRow & ElementOf<K> => row.kind === kind);

/** What is selected, over the board. */
export const selection = (page: Page) => page.getByRole('region', { name: 'Selection' });
