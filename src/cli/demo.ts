import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { buildApplication, buildThreads } from './build';
import { removeCluster, startCluster, type Cluster } from './postgres';
import { demoFiles } from './demoFiles';
import { serve, type Serving } from './serve';
import { claimFolder, leaveFolder, stateFolder, tellRunning } from './running';
import { anyPort, portFree, Stop } from './system';

const usualPort = 4270;
const clusterFolder = join(stateFolder, 'db');

export const demo = (args: string[]) => start({ mode: 'start', withDemo: true }, args);
export const dev = (args: string[]) => start({ mode: 'dev', withDemo: true }, args);
/** As the demo, without its projects: what an office runs. */
export const serveAlone = (args: string[]) => start({ mode: 'start', withDemo: false }, args);

/** How it is started: whether sources are watched, and whether the demo's projects and drawings are there. */
interface How {
  mode: 'start' | 'dev';
  withDemo: boolean;
}

/** Sets everything up, serves until it is interrupted, and stops what it started. @returns the exit code */
async function start({ mode, withDemo }: How, args: string[]): Promise<number> {
  let options;
  try {
    options = parseArgs({ args, options: { fresh: { type: 'boolean' }, port: { type: 'string' } } }).values;
  } catch (error) {
    console.error((error as Error).message);
    return 2;
  }
  const running = await claimFolder();
  if (running) {
    console.log(
      running.address
        ? `Zircon Frame runs already: ${running.address}`
        : 'Zircon Frame is being started in another window.',
    );
    return 0;
  }
  let cluster: Cluster | null = null;
  let serving: Serving | null = null;
  let stopped = false;
  const interrupted = new Promise<void>((done) => {
    for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'] as const)
      process.on(signal, () => {
        stopped = true;
        done();
      });
  });
  const goOn = () => {
    if (stopped) throw new Stop('Stopped.');
  };
  try {
    const port = await choosePort(options.port);
    if (options.fresh && process.env.DATABASE_URL)
      throw new Stop(
        '--fresh deletes the private database only. The one at DATABASE_URL is not touched; ' +
          'empty it by hand, or start without DATABASE_URL.',
      );
    if (options.fresh) removeCluster(clusterFolder);
    if (!process.env.DATABASE_URL) cluster = await startCluster(clusterFolder, { throwAway: false });
    const databaseUrl = process.env.DATABASE_URL ?? cluster!.url;
    process.env.DATABASE_URL = databaseUrl;
    goOn();
    if (withDemo) await loadDemo();
    if (mode === 'start') await buildApplication();
    else await buildThreads();
    goOn();
    serving = await serve(
      mode,
      port,
      { DATABASE_URL: databaseUrl },
      {
        shown: mode === 'dev',
        stopped: () => stopped,
        begun: (server) => tellRunning({ server, databaseUrl }),
      },
    );
    tellRunning({ server: serving.process.pid ?? null, address: serving.address, databaseUrl });
    if (withDemo) writeDemoFiles();
    const drawings = withDemo ? `The demo's drawings lie in ${demoFolder}. ` : '';
    console.log(`Zircon Frame: ${serving.address}\n${drawings}Ctrl-C stops it.`);
    const server = serving.process;
    await Promise.race([
      interrupted,
      new Promise<void>((done) => {
        server.once('exit', () => done());
      }),
    ]);
    return 0;
  } catch (error) {
    if (!(error instanceof Stop)) throw error;
    console.error(error.message);
    return 1;
  } finally {
    await serving?.stop();
    cluster?.stop();
    leaveFolder();
  }
}

/** Where the demo's drawings lie as files, to be brought in by hand. */
const demoFolder = join(stateFolder, 'drawings');

function writeDemoFiles(): void {
  mkdirSync(demoFolder, { recursive: true });
  for (const [name, make] of Object.entries(demoFiles)) writeFileSync(join(demoFolder, name), make());
}

async function choosePort(asked: string | undefined): Promise<number> {
  if (asked !== undefined) {
    const port = Number(asked);
    if (!Number.isInteger(port) || port < 1 || port > 65535)
      throw new Stop(`"${asked}" is not a port; expected a number from 1 to 65535.`);
    if (!(await portFree(port)))
      throw new Stop(`Port ${port} is in use by another program. Choose another with --port, or leave it out.`);
    return port;
  }
  if (await portFree(usualPort)) return usualPort;
  const port = await anyPort();
  console.error(`Port ${usualPort} is in use by another program; ${port} is taken instead.`);
  return port;
}

/** Brings the schema up to date and, in an empty database, loads the demo. */
async function loadDemo(): Promise<void> {
  const { closeConnections } = await import('@/server/database/connection');
  const { bringUpToDate } = await import('@/server/bringUpToDate');
  const { seedDemo } = await import('./seed');
  try {
    await bringUpToDate();
    await seedDemo();
  } catch (error) {
    const { problemOf } = await import('@/server/problem');
    throw new Stop(`The database at DATABASE_URL cannot be used: ${problemOf(error).message}`);
  } finally {
    await closeConnections();
  }
}
