import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium, type Page } from 'playwright-core';
import { browserArguments, browserPath, ensureBrowser } from '@/cli/browser';
import { buildApplication } from '@/cli/build';
import { removeCluster, startCluster } from '@/cli/postgres';
import { serve } from '@/cli/serve';
import { anyPort } from '@/cli/system';
import type { Change } from '@/core/model/edits';
import type { ProjectState } from '@/core/model/state';

/** Where a bench of the real page works: the page, the served application, and a folder that goes away afterwards. */
export interface Bench {
  page: Page;
  address: string;
  folder: string;
}

/** The page has come to rest when nothing was drawn for this long, milliseconds. */
const rest = 400;
const patience = 120_000;
/** Asked by the clock: asking at each frame would itself keep the page drawing. */
export const wait = { timeout: patience, polling: 50 };

/** What the page tells of itself: when it last drew, what the board's frames took, and tasks that held it up. */
interface Told {
  drawn: number;
  /** Milliseconds of script. */
  frames: number[];
  tasks: { start: number; duration: number }[];
}

declare global {
  interface Window {
    told: Told;
  }
}

const listen = () => {
  window.told = { drawn: 0, frames: [], tasks: [] };
  new PerformanceObserver((list) => {
    for (const { startTime, duration } of list.getEntries()) window.told.tasks.push({ start: startTime, duration });
  }).observe({ type: 'longtask', buffered: true });
  const ask = window.requestAnimationFrame.bind(window);
  window.requestAnimationFrame = (callback) =>
    ask((time) => {
      window.told.drawn = performance.now();
      const before = window.zirconBoard?.lastFrame;
      callback(time);
      const took = window.zirconBoard?.lastFrame;
      if (took !== undefined && took !== before) window.told.frames.push(took);
    });
};

/** Waits until nothing was drawn for a while. @returns when the last was, in the page's time */
export async function settled(page: Page): Promise<number> {
  await page.waitForFunction((quiet) => performance.now() - window.told.drawn > quiet, rest, wait);
  return page.evaluate(() => window.told.drawn);
}

/** Serves the built application on a database of its own, opens it in a browser, and takes all away in the end. */
export async function withPage(work: (bench: Bench) => Promise<void>): Promise<number> {
  const folder = mkdtempSync(join(tmpdir(), 'zircon-window-'));
  const cluster = join(folder, 'db');
  try {
    ensureBrowser();
    const { url } = await startCluster(cluster, { throwAway: true });
    await buildApplication();
    const serving = await serve('start', await anyPort(), { DATABASE_URL: url });
    const browser = await chromium.launch({ executablePath: browserPath, args: browserArguments });
    try {
      const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
      await page.addInitScript(listen);
      await work({ page, address: serving.address, folder });
    } finally {
      await browser.close();
      await serving.stop();
    }
    return 0;
  } finally {
    removeCluster(cluster);
    rmSync(folder, { recursive: true, force: true });
  }
}

/** A new, empty project. @returns its id */
export async function newProject({ page, address }: Bench, name: string): Promise<string> {
  const response = await page.request.post(`${address}/api/projects`, { data: { name } });
  return ((await response.json()) as { id: string }).id;
}

/** Sends an edit to the server as a window would; what it changes may depend on the rows there are. */
export async function edit(
  { page, address }: Bench,
  id: string,
  label: string,
  changesOf: (state: ProjectState) => Change[],
): Promise<void> {
  const { state, history } = (await (await page.request.get(`${address}/api/projects/${id}/state`)).json()) as {
    state: ProjectState;
    history: { version: number };
  };
  const answer = await page.request.post(`${address}/api/projects/${id}/edits`, {
    data: { seen: history.version, clientId: crypto.randomUUID(), edit: { label, changes: changesOf(state) } },
  });
  if (!answer.ok()) throw new Error(await answer.text());
}
