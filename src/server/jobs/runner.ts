import { EventEmitter } from 'node:events';
import { run, runMigrations, type Runner, type WorkerEvents } from 'graphile-worker';
import pg from 'pg';
import { connections } from '../database/connection';
import { settings } from '../settings';
import { giveUpReading, readDrawing } from './readDrawing';

/** Makes the job queue's own tables. */
export const migrateJobs = () => runMigrations({ pgPool: connections().pool });

/**
 * Runs background work in this process until it is stopped. Each worker holds an advisory lock under its name, so
 * that the jobs of a process that was killed are known to be free and are taken up at once.
 */
export async function startJobs(): Promise<Runner> {
  const { pool } = connections();
  await migrateJobs();
  const guard = new pg.Client({ connectionString: settings.databaseUrl });
  guard.on('error', (error) => console.error(`Database connection lost: ${error.message}`));
  await guard.connect();
  await releaseDead(guard);
  const watch = setInterval(() => {
    void releaseDead(guard).catch(() => undefined);
  }, 30_000);
  const events: WorkerEvents = new EventEmitter();
  events.on('worker:create', ({ worker }) => {
    void guard.query('select pg_advisory_lock(hashtextextended($1, 2))', [worker.workerId]).catch(() => undefined);
  });
  const runner = await run({
    pgPool: pool,
    events,
    concurrency: settings.jobs,
    noHandleSignals: true,
    pollInterval: 2000,
    taskList: {
      readDrawing: async (payload, helpers) => {
        const { intake } = payload as { intake: string };
        try {
          await readDrawing(intake);
        } catch (error) {
          if (helpers.job.attempts >= helpers.job.max_attempts) await giveUpReading(intake);
          throw error;
        }
      },
    },
  });
  void runner.promise
    .catch((error: unknown) => console.error(error))
    .finally(() => {
      clearInterval(watch);
      void guard.end().catch(() => undefined);
    });
  return runner;
}

/** Frees the jobs whose worker is gone. */
async function releaseDead(guard: pg.Client): Promise<void> {
  const { rows } = await guard.query<{ locked_by: string }>(
    'select distinct locked_by from graphile_worker.jobs where locked_by is not null',
  );
  for (const { locked_by } of rows) {
    const {
      rows: [{ free }],
    } = await guard.query<{ free: boolean }>('select pg_try_advisory_lock(hashtextextended($1, 2)) as free', [
      locked_by,
    ]);
    if (!free) continue;
    await guard.query('select pg_advisory_unlock(hashtextextended($1, 2))', [locked_by]);
    // A lock held by this very session can be taken again; that worker lives.
    const {
      rows: [{ held }],
    } = await guard.query<{ held: boolean }>(
      "select exists (select from pg_locks where locktype = 'advisory' and pid = pg_backend_pid() and ((classid::bigint << 32) | objid::bigint) = hashtextextended($1, 2)) as held",
      [locked_by],
    );
    if (!held) await guard.query('select graphile_worker.force_unlock_workers($1)', [[locked_by]]);
  }
}
