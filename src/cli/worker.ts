import { buildFolder, buildThreads } from './build';
import { runningServer } from './running';

/** `./run worker`: background work in a process of its own, until it is interrupted. */
export async function worker(): Promise<number> {
  process.env.DATABASE_URL ??= runningServer()?.databaseUrl;
  if (!process.env.DATABASE_URL) {
    console.error(
      'DATABASE_URL is not set and no demo runs from this folder. Give the database address of the server that this worker is to help.',
    );
    return 2;
  }
  process.env.ZIRCON_BUILD = buildFolder;
  await buildThreads();
  const { closeConnections } = await import('@/server/database/connection');
  const { closeEvents } = await import('@/server/events');
  const { outliveReaders } = await import('@/server/log');
  const { startJobs } = await import('@/server/jobs/runner');
  outliveReaders();
  const runner = await startJobs();
  console.log('Working. Ctrl-C stops.');
  await new Promise<void>((done) => {
    for (const signal of ['SIGINT', 'SIGTERM'] as const) process.once(signal, () => done());
  });
  await runner.stop();
  await closeEvents();
  await closeConnections();
  return 0;
}
