import { sql } from 'kysely';
import { bringIn, bringInRevision } from '../bringIn';
import { database } from '../database/connection';
import { storeDerived, sweepFiles } from '../files';
import { tellIntake } from '../intakes/told';
import { convertOriginal } from '../converter/convertOriginal';
import { readInThread, type Outcome, type ReadFile } from '../readInThread';
import { processId } from './processes';
import { stillOurs, type ReadingJob } from './queue';

/** Whether a job was cancelled is asked this often, milliseconds. */
const askEvery = 400;
/** A file that ends its reader so often is set aside. */
const mostCrashes = 3;

/**
 * Reads a file that was taken in: in a thread of its own, so that the server stays responsive, and ended within half a
 * second when it is cancelled. What follows from it is stored in one transaction at the end.
 * @param stopping ends it without a word; it is another process's to do then
 */
export async function readDrawing(job: ReadingJob, stopping: AbortSignal): Promise<void> {
  const db = database();
  const ending = new AbortController();
  const end = () => ending.abort();
  stopping.addEventListener('abort', end, { once: true });
  let done = 0;
  const watch = setInterval(() => {
    stillOurs(job, done).then(
      (ours) => {
        if (!ours) end();
        else void tellIntake(db, job.projectId, job.id).catch(() => undefined);
      },
      // Without the database nothing can be stored either; whoever has the job when it is back begins it anew.
      () => undefined,
    );
  }, askEvery);
  try {
    const unread = await convertOriginal(job.fileId, job.fileName, ending.signal);
    const file = await db
      .selectFrom('files')
      .select(['id', 'sha256', 'size'])
      .where('id', '=', job.fileId)
      .executeTakeFirstOrThrow();
    const answer: Outcome =
      unread ??
      (await readInThread(file.id, job.fileName, file.sha256, ending.signal, (bytes) => {
        done = bytes;
      }));
    if (ending.signal.aborted) await leave(job, stopping);
    else if ('crashed' in answer) await crashed(job, answer.crashed);
    else if ('failed' in answer) await failed(job, answer.failed, answer.again ?? false);
    else await store(job, file, answer);
  } finally {
    clearInterval(watch);
    stopping.removeEventListener('abort', end);
  }
  await sweepFiles(db);
  await tellIntake(db, job.projectId, job.id);
}

const ownJob = ({ id }: ReadingJob) => sql<boolean>`id = ${id} and state = 'reading' and process = ${processId()}`;

/** A process that stops leaves its job to others. */
async function leave(job: ReadingJob, stopping: AbortSignal): Promise<void> {
  if (!stopping.aborted) return;
  await database()
    .updateTable('intakes')
    .set({ state: 'waiting', process: null, done: 0 })
    .where(ownJob(job))
    .execute();
}

/** @param again whether its bytes are kept, to be tried again */
async function failed(job: ReadingJob, why: string, again: boolean): Promise<void> {
  const file = again ? {} : { file_id: null };
  await database()
    .updateTable('intakes')
    .set({ state: 'failed', process: null, message: `${job.fileName}: ${why}`, ...file })
    .where(ownJob(job))
    .execute();
}

/** A reader that ended of itself is given the file again, a few times: the memory may have been short for once. */
async function crashed(job: ReadingJob, why: string): Promise<void> {
  console.error(`Reading ${job.fileName} ended: ${why}`);
  await database()
    .updateTable('intakes')
    .set((eb) => ({
      crashes: eb('crashes', '+', 1),
      process: null,
      done: 0,
      state: sql`case when crashes + 1 >= ${sql.lit(mostCrashes)} then 'failed' else 'waiting' end`,
      message: sql`case when crashes + 1 >= ${sql.lit(mostCrashes)} then ${setAside(job.fileName)} end`,
    }))
    .where(ownJob(job))
    .execute();
}

const setAside = (fileName: string): string =>
  `${fileName}: the file ended its reader ${mostCrashes} times and is set aside; it needs ` +
  'more memory than it may have. Cut the drawing into parts, or raise ' +
  'ZIRCON_READ_MEMORY_MB and try again.';

async function store(job: ReadingJob, file: { id: string; size: number }, answer: ReadFile): Promise<void> {
  await database()
    .transaction()
    .execute(async (tx) => {
      const ours = await tx.selectFrom('intakes').select('id').where(ownJob(job)).forUpdate().executeTakeFirst();
      if (!ours) return;
      await storeDerived(tx, file.id, answer);
      const named = { id: file.id, name: job.fileName };
      const drawing =
        job.revises ??
        (await bringIn(tx, job.projectId, { ...named, levelId: job.levelId }, answer.intake, answer.unit));
      if (job.revises !== null) await bringInRevision(tx, job.projectId, drawing, named, answer.intake);
      await tx
        .updateTable('intakes')
        .set({ state: 'done', process: null, done: file.size, drawing_id: drawing, updated_at: sql`now()` })
        .where('id', '=', job.id)
        .execute();
    });
}
