import { mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { dirname, join, resolve } from 'node:path';
import { isAlive, root } from './system';

/** Where a server keeps its database and what it says of itself. */
export const stateFolder = resolve(process.env.ZIRCON_STATE ?? join(root, '.zircon'));
const serverFile = join(stateFolder, 'server.json');

/** A server of this folder: who started it, the process that serves, and where it answers once it does. */
export interface Running {
  pid: number;
  server: number | null;
  address: string;
  databaseUrl: string;
}

/** What a start command and a serving process have in their command lines. */
const words = { start: 'cli/main.ts', server: 'next' };
/** How long an old server has to end by itself, milliseconds. */
const patience = 4000;

function told(): Running | null {
  try {
    return JSON.parse(readFileSync(serverFile, 'utf8')) as Running;
  } catch {
    return null;
  }
}

/** The demo or dev server that runs from this folder, or null. */
export function runningServer(): Running | null {
  const running = told();
  return running !== null && isAlive(running.pid, words.start) ? running : null;
}

/**
 * Claims the folder for a server: one folder, one server. What a start command that was killed has left running is
 * ended first.
 * @returns the server that has the folder already, or null where it is claimed now
 */
export async function claimFolder(): Promise<Running | null> {
  mkdirSync(dirname(serverFile), { recursive: true });
  for (;;) {
    try {
      writeFileSync(serverFile, JSON.stringify(ownEntry()), { mode: 0o600, flag: 'wx' });
      return null;
    } catch (error) {
      if ((error as NodeJS.ErrnoException).code !== 'EEXIST') throw error;
    }
    const running = runningServer();
    if (running !== null) return running;
    await endLeftover(told());
    rmSync(serverFile, { force: true });
  }
}

const ownEntry = (): Running => ({ pid: process.pid, server: null, address: '', databaseUrl: '' });

/** Ends the server whose start command was killed. */
async function endLeftover(left: Running | null): Promise<void> {
  if (left?.server == null || !isAlive(left.server, words.server)) return;
  console.error('The server of an earlier start still ran, whose start command had been killed; it is ended now.');
  for (const signal of ['SIGTERM', 'SIGKILL'] as const) {
    try {
      process.kill(-left.server, signal);
    } catch {
      return;
    }
    const end = Date.now() + patience;
    while (isAlive(left.server, words.server) && Date.now() < end) await new Promise((done) => setTimeout(done, 50));
  }
}

/** Says where the server of this folder answers. */
export function tellRunning(entry: Partial<Running>): void {
  writeFileSync(serverFile, JSON.stringify({ ...ownEntry(), ...entry }), { mode: 0o600 });
}

/** Gives the folder free. */
export const leaveFolder = (): void => rmSync(serverFile, { force: true });
