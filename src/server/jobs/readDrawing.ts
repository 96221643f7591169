import { sql } from 'kysely';
import { bringIn, bringInRevision } from '../bringIn';
import { database } from '../database/connection';
import { fileChunks, storeDerived, sweepFiles } from '../files';
import { tellIntake } from '../intakes/told';
import { convertOriginal } from '../converter/convertOriginal';
import { isBuilding } from '@/core/cut/recognise';
import type { ReadBuilding } from '../ifc/readBuilding';
import { takeInBuilding } from '../ifc/takeInBuilding';
import { dxfReader, readInThread, type Outcome, type ReadFile } from '../readInThread';
import { mayStill, noMore } from '../people/rights';
import { log } from '../log';
import { nameOfPerson } from '../people/people';
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
  if (!(await mayStill(job.personId, job.projectId, 'editor'))) {
    await failed(job, noMore, false);
    return void (await tellIntake(db, job.projectId, job.id));
  }
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
    const answer = await outcomeOf(job, ending.signal, (bytes) => {
      done = bytes;
    });
    if (ending.signal.aborted || answer === null) await leave(job, stopping);
    else if ('crashed' in answer) await crashed(job, answer.crashed);
    else if ('failed' in answer) await failed(job, answer.failed, answer.again ?? false);
    else if ('plans' in answer) await storePlans(job, answer);
    else await store(job, answer);
  } finally {
    clearInterval(watch);
    stopping.removeEventListener('abort', end);
  }
  await sweepFiles(db);
  await tellIntake(db, job.projectId, job.id);
}

/**
 * What comes of a file, made a DXF first where it is none and no building; null where it went with a cancelled intake.
 */
async function outcomeOf(
  { fileId, fileName }: ReadingJob,
  ending: AbortSignal,
  progress: (done: number) => void,
): Promise<Outcome<ReadFile | ReadBuilding> | null> {
  const { value: head } = await fileChunks(fileId).next();
  if (head !== undefined && isBuilding(head)) return readInThread<ReadBuilding>(ifcReader, fileId, ending, progress);
  const unread = await convertOriginal(fileId, fileName, ending);
  if (unread !== null) return unread;
  const file = await database().selectFrom('files').select('sha256').where('id', '=', fileId).executeTakeFirst();
  return file === undefined ? null : readInThread<ReadFile>(dxfReader(fileName, file.sha256), fileId, ending, progress);
}

/** The program that cuts plans through an IFC. */
const ifcReader = { file: 'readBuilding.thread.mjs', data: {} };

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
  log.problem(`Reading ${job.fileName} ended: ${why}`, { project: job.projectId });
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

/** The plans of a building wait to be read as drawings; its own intake is done. */
async function storePlans(job: ReadingJob, building: ReadBuilding): Promise<void> {
  const db = database();
  const taken = await db.transaction().execute(async (tx) => {
    const ours = await tx.selectFrom('intakes').select('id').where(ownJob(job)).forUpdate().executeTakeFirst();
    if (!ours) return { intakes: [] };
    const answer = await takeInBuilding(tx, job, building);
    if ('intakes' in answer)
      await tx
        .updateTable('intakes')
        .set({ state: 'done', process: null, done: sql`size`, updated_at: sql`now()` })
        .where('id', '=', job.id)
        .execute();
    return answer;
  });
  if ('failed' in taken) await failed(job, taken.failed, false);
  else for (const id of taken.intakes) await tellIntake(db, job.projectId, id);
}

async function store(job: ReadingJob, answer: ReadFile): Promise<void> {
  await database()
    .transaction()
    .execute(async (tx) => {
      const ours = await tx.selectFrom('intakes').select('id').where(ownJob(job)).forUpdate().executeTakeFirst();
      if (!ours) return;
      await storeDerived(tx, job.fileId, answer);
      const named = { id: job.fileId, name: job.fileName, person: await nameOfPerson(tx, job.personId) };
      const drawing =
        job.revises ??
        (await bringIn(tx, job.projectId, { ...named, levelId: job.levelId }, answer.intake, answer.unit));
      if (job.revises !== null) await bringInRevision(tx, job.projectId, drawing, named, answer.intake);
      await tx
        .updateTable('intakes')
        .set({ state: 'done', process: null, done: sql`size`, drawing_id: drawing, updated_at: sql`now()` })
        .where('id', '=', job.id)
        .execute();
    });
}
