import { join, resolve } from 'node:path';
import { parseArgs } from 'node:util';
import { clusterExists, startCluster } from './postgres';
import { runningServer, stateFolder } from './running';
import { Stop } from './system';

const usage = `Usage: ./run backup <file> [--project <name or id>]
       ./run restore <file> [--project <name or id>]
       ./run compact <days>`;

/** The arguments of one of these commands; null where they are not what they should be. */
function parsed(args: string[]): { what: string; project: string | null } | null {
  try {
    const { values, positionals } = parseArgs({
      args,
      options: { project: { type: 'string' } },
      allowPositionals: true,
    });
    return positionals.length === 1 ? { what: positionals[0], project: values.project ?? null } : null;
  } catch {
    return null;
  }
}

/** Does something with the database of this folder, or the one at DATABASE_URL, whether a server runs on it or not. */
async function withDatabase(work: () => Promise<void>): Promise<number> {
  const { closeConnections } = await import('@/server/database/connection');
  const { problemOf } = await import('@/server/problem');
  let stop = () => {};
  try {
    const known = process.env.DATABASE_URL ?? runningServer()?.databaseUrl;
    if (known) process.env.DATABASE_URL = known;
    else {
      const folder = join(stateFolder, 'db');
      if (!clusterExists(folder)) throw new Stop('There is no database yet; ./run demo makes one.');
      const cluster = await startCluster(folder, { throwAway: false });
      process.env.DATABASE_URL = cluster.url;
      ({ stop } = cluster);
    }
    await work();
    return 0;
  } catch (error) {
    console.error(error instanceof Stop ? error.message : problemOf(error).message);
    return 1;
  } finally {
    await closeConnections();
    stop();
  }
}

const wrong = (): number => {
  console.error(usage);
  return 2;
};

/** `./run backup <file>`: everything, or one project, into a file, while the server goes on. */
export async function backup(args: string[]): Promise<number> {
  const asked = parsed(args);
  if (asked === null) return wrong();
  const path = resolve(asked.what);
  return withDatabase(async () => {
    const { writeBackup } = await import('@/server/backup/writeBackup');
    const { projects, rows } = await writeBackup(path, asked.project);
    console.log(`${path}: ${rows.toLocaleString('en')} rows of ${named(projects)}, read again and whole.`);
  });
}

/** `./run restore <file>`: puts projects of a backup beside those that are there, as copies. */
export async function restore(args: string[]): Promise<number> {
  const asked = parsed(args);
  if (asked === null) return wrong();
  return withDatabase(async () => {
    const { bringUpToDate } = await import('@/server/bringUpToDate');
    const { restoreBackup } = await import('@/server/backup/restoreBackup');
    await bringUpToDate();
    const { projects, rows } = await restoreBackup(resolve(asked.what), asked.project);
    console.log(`Put back ${named(projects)}: ${rows.toLocaleString('en')} rows. What was there is as it was.`);
  });
}

/** `./run compact <days>`: takes edits out of the log that are older. */
export async function compact(args: string[]): Promise<number> {
  const days = Number(args[0]);
  if (args.length !== 1 || !Number.isInteger(days) || days < 0) return wrong();
  return withDatabase(async () => {
    const { compactLog } = await import('@/server/backup/compactLog');
    const gone = await compactLog(days);
    console.log(`${gone.toLocaleString('en')} edits older than ${days} days are out of the log; what they made stays.`);
  });
}

const named = (projects: readonly { name: string }[]): string =>
  projects.length === 0 ? 'no project' : projects.map(({ name }) => `\u201c${name}\u201d`).join(', ');
