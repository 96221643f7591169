import { createHash, randomUUID } from 'node:crypto';
import { sql } from 'kysely';
import { database } from '../database/connection';
import { inThread } from '../inThread';
import { mayStill, noMore } from '../people/rights';
import { settings } from '../settings';
import type { JobAnswer, MadeFile } from './answer';
import { ownJob, stillOurs, type Job } from './queue';

/** Whether a job was cancelled is asked this often, milliseconds. */
const askEvery = 400;

type Outcome = { files: MadeFile[]; version: number } | { failed: string };

/**
 * Does a job in a thread of its own and stores what comes of it in one transaction; one that is cancelled leaves
 * nothing.
 * @param stopping ends it without a word; it is another process's to do then
 */
export async function runJob(job: Job, stopping: AbortSignal): Promise<void> {
  const wanted = job.request.kind === 'delivery' ? 'editor' : 'reader';
  if (!(await mayStill(job.personId, job.projectId, wanted))) return fail(job, noMore);
  const ending = new AbortController();
  const end = () => ending.abort();
  stopping.addEventListener('abort', end, { once: true });
  let share = 0;
  const watch = setInterval(() => {
    stillOurs(job, share).then(
      (ours) => {
        if (!ours) end();
      },
      // Without the database nothing can be stored either; whoever has the job when it is back begins it anew.
      () => undefined,
    );
  }, askEvery);
  try {
    const outcome = await workInThread(job, ending.signal, (done) => {
      share = done;
    });
    if (stopping.aborted) await leave(job);
    else if (!ending.signal.aborted) await ('failed' in outcome ? fail(job, outcome.failed) : store(job, outcome));
  } finally {
    clearInterval(watch);
    stopping.removeEventListener('abort', end);
  }
}

const workInThread = ({ projectId, request }: Job, ending: AbortSignal, tell: (share: number) => void) =>
  inThread<Outcome>({
    file: 'work.thread.mjs',
    data: { project: projectId, request },
    ending,
    late: {
      failed:
        `It took longer than ${settings.readTimeout / 1000} s and was ended. ` +
        'Raise ZIRCON_READ_TIMEOUT_S, or divide the project.',
    },
    ended: (why) => ({
      failed: `It ended before it was done (${why}). Raise ZIRCON_READ_MEMORY_MB where memory was short, and try again.`,
    }),
    talk: (thread, resolve) => {
      thread.on('message', (answer: JobAnswer) => {
        if ('share' in answer) tell(answer.share);
        else resolve(answer);
      });
    },
  });

/** A process that stops leaves its job to others. */
async function leave(job: Job): Promise<void> {
  await database().updateTable('jobs').set({ state: 'waiting', process: null, done: 0 }).where(ownJob(job)).execute();
}

async function fail(job: Job, message: string): Promise<void> {
  await database().updateTable('jobs').set({ state: 'failed', process: null, message }).where(ownJob(job)).execute();
}

async function store(job: Job, { files, version }: { files: MadeFile[]; version: number }): Promise<void> {
  await database()
    .transaction()
    .execute(async (tx) => {
      const ours = await tx.selectFrom('jobs').select('id').where(ownJob(job)).forUpdate().executeTakeFirst();
      if (!ours) return;
      for (const { name, type, bytes } of files)
        await tx
          .insertInto('job_files')
          .values({
            id: randomUUID(),
            job_id: job.id,
            name,
            type,
            size: bytes.length,
            sha256: createHash('sha256').update(bytes).digest('hex'),
            bytes: Buffer.from(bytes.buffer),
          })
          .execute();
      await tx
        .updateTable('jobs')
        .set({ state: 'done', process: null, done: 1, version, updated_at: sql`now()` })
        .where('id', '=', job.id)
        .execute();
    });
}
