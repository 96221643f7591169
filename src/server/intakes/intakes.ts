import { randomUUID } from 'node:crypto';
import { sql } from 'kysely';
import { isBuilding } from '@/core/cut/recognise';
import { recognise } from '@/core/drawing/recognise';
import { database } from '../database/connection';
import type { IntakeState } from '../database/schema';
import { expectFree } from '../edits/held';
import { beginFile, storeFile, sweepFiles } from '../files';
import { processId } from '../jobs/processes';
import { notFound, Problem, problemOf } from '../problem';
import { expectProject } from '../projects';
import { settings } from '../settings';
import { cutOff, tellIntake } from './told';

/** A file on its way in, as windows see it. */
export interface IntakeView {
  id: string;
  fileName: string;
  size: number;
  state: IntakeState;
  done: number;
  message: string | null;
  drawingId: string | null;
  /** Where its bytes are kept. */
  fileId: string | null;
  revises: string | null;
  /** Whether a failed one can be tried again: its bytes are still here. */
  again: boolean;
}

const megabytes = (bytes: number) => `${(bytes / 1024 / 1024).toFixed(bytes < 10 * 1024 * 1024 ? 1 : 0)} MB`;

/** Where a file is to go: the level its elements belong to, or the drawing whose next revision it is. */
interface Destination {
  levelId: string | null;
  revises: string | null;
  fileName: string;
  /** Who brings it in; null where nobody signs in. */
  person: string | null;
}

/**
 * Takes a file in. Its bytes are stored as they come, each megabyte for itself, so that a sender who is slow holds
 * nothing but his own line; the job that reads it begins when all are there. When the upload breaks off nothing of it
 * stays but a sentence, and the same where the server ends meanwhile.
 * @param length what the browser says the body's length is, in bytes
 */
export async function receive(
  project: string,
  to: Destination,
  length: number | null,
  body: AsyncIterable<Uint8Array>,
): Promise<IntakeView> {
  await expectDestination(project, to);
  if (length !== null && length > settings.maxUpload) throw tooLarge(to.fileName, length);
  const id = await beginIntake(project, to, length);
  try {
    const file = await storeFile(
      database(),
      await fileOfIntake(id),
      checked(unstalled(body, to.fileName), to.fileName),
    );
    if (length !== null && file.size !== length) throw shorter(to.fileName, file.size, length);
    await finishIntake(id, file);
  } catch (error) {
    const problem = problemOfUpload(error, to.fileName);
    await failIntake(project, id, problem.message).catch(() => undefined);
    throw problem;
  }
  await tellIntake(database(), project, id);
  return (await views(project, id))[0];
}

async function expectDestination(project: string, { revises }: Destination): Promise<void> {
  await expectProject(project);
  await expectFree(database(), project);
  if (revises === null) return;
  const drawing = await database()
    .selectFrom('drawings')
    .select('id')
    .where('id', '=', revises)
    .where('project_id', '=', project)
    .executeTakeFirst();
  if (!drawing) throw notFound('The drawing to be revised');
}

async function beginIntake(project: string, to: Destination, length: number | null): Promise<string> {
  const id = randomUUID();
  await database()
    .insertInto('intakes')
    .values({
      id,
      project_id: project,
      level_id: to.levelId,
      revises: to.revises,
      file_name: to.fileName,
      size: length ?? 0,
      state: 'receiving',
      process: processId(),
      file_id: null,
      message: null,
      drawing_id: null,
      person_id: to.person,
    })
    .execute();
  await tellIntake(database(), project, id);
  return id;
}

/** Makes the file that an intake fills; there is no moment at which nobody needs it. */
async function fileOfIntake(id: string): Promise<string> {
  return database()
    .transaction()
    .execute(async (tx) => {
      const file = await beginFile(tx);
      await tx.updateTable('intakes').set({ file_id: file }).where('id', '=', id).execute();
      return file;
    });
}

/** The file is whole: its bytes wait to be read. Not, where the intake was cancelled meanwhile. */
async function finishIntake(id: string, file: { size: number }): Promise<void> {
  await database()
    .updateTable('intakes')
    .set({ size: file.size, state: 'waiting', process: null, updated_at: sql`now()` })
    .where('id', '=', id)
    .where('state', '=', 'receiving')
    .execute();
}

async function failIntake(project: string, id: string, message: string): Promise<void> {
  await database()
    .updateTable('intakes')
    .set({ state: 'failed', file_id: null, process: null, message, updated_at: sql`now()` })
    .where('id', '=', id)
    .where('state', '=', 'receiving')
    .execute();
  await sweepFiles(database());
  await tellIntake(database(), project, id);
}

function problemOfUpload(error: unknown, fileName: string): Problem {
  if (error instanceof Problem) return error;
  const aborted =
    error instanceof Error && (error.name === 'AbortError' || /aborted|terminated|premature/i.test(error.message));
  return aborted ? cutOff(fileName) : problemOf(error);
}

/** Passes a body on, and ends it where nothing comes for a while. */
export async function* unstalled(body: AsyncIterable<Uint8Array>, fileName: string): AsyncGenerator<Uint8Array> {
  const parts = body[Symbol.asyncIterator]();
  for (;;) {
    let timer: NodeJS.Timeout | undefined;
    const stalled = new Promise<never>((_, reject) => {
      timer = setTimeout(() => reject(stood(fileName)), settings.uploadStall);
    });
    try {
      const { done, value } = await Promise.race([parts.next(), stalled]);
      if (done) return;
      yield value;
    } finally {
      clearTimeout(timer);
    }
  }
}

const stood = (fileName: string) =>
  new Problem(
    408,
    `The upload of ${fileName} stood still for ${settings.uploadStall / 1000} s and was ended. Nothing was stored; bring it in again.`,
  );
const shorter = (fileName: string, came: number, length: number) =>
  new Problem(
    400,
    `The upload of ${fileName} was cut off: ${came.toLocaleString('en')} of ` +
      `${length.toLocaleString('en')} bytes came. Nothing was stored; bring it in again.`,
  );
const tooLarge = (fileName: string, size: number) =>
  new Problem(
    413,
    `${fileName} has ${megabytes(size)}, more than the limit of ` +
      `${megabytes(settings.maxUpload)}. Cut the drawing into parts, or raise ZIRCON_MAX_UPLOAD_MB.`,
  );

/** Passes the body on, refusing what is no drawing at its first bytes and what grows beyond the limit. */
async function* checked(body: AsyncIterable<Uint8Array>, fileName: string): AsyncGenerator<Uint8Array> {
  let head: Uint8Array | null = new Uint8Array(0);
  let size = 0;
  const judge = (bytes: Uint8Array) => {
    const verdict = recognise(bytes);
    // What is no DXF may become one; of a building plans are made.
    if (!verdict.ok && !isBuilding(bytes) && (settings.converter === null || bytes.length === 0))
      throw new Problem(415, `${fileName}: ${verdict.message}`);
  };
  for await (const part of body) {
    size += part.length;
    if (size > settings.maxUpload) throw tooLarge(fileName, size);
    if (head === null) {
      yield part;
      continue;
    }
    const joined: Uint8Array = Buffer.concat([head, part]);
    if (joined.length < 64) {
      head = joined;
      continue;
    }
    judge(joined);
    head = null;
    yield joined;
  }
  if (head !== null) {
    judge(head);
    yield head;
  }
}

/** The intakes of a project that are under way or failed, newest last. */
export async function views(project: string, id?: string): Promise<IntakeView[]> {
  const rows = await database()
    .selectFrom('intakes')
    .selectAll()
    .where('project_id', '=', project)
    .$if(id !== undefined, (q) => q.where('id', '=', id!))
    .$if(id === undefined, (q) => q.where('state', 'in', ['receiving', 'waiting', 'reading', 'failed']))
    .orderBy('created_at')
    .execute();
  return rows.map((row) => ({
    id: row.id,
    fileName: row.file_name,
    size: row.size,
    state: row.state,
    done: row.done,
    message: row.message,
    drawingId: row.drawing_id,
    fileId: row.file_id,
    revises: row.revises,
    again: row.state === 'failed' && row.file_id !== null,
  }));
}

/** Stops an intake that is under way, or takes a failed one off the list. Its bytes go. */
export async function cancelIntake(project: string, id: string): Promise<void> {
  const row = await database()
    .updateTable('intakes')
    .set({ state: 'cancelled', file_id: null, process: null, updated_at: sql`now()` })
    .where('id', '=', id)
    .where('project_id', '=', project)
    .where('state', 'in', ['receiving', 'waiting', 'reading', 'failed'])
    .returning('id')
    .executeTakeFirst();
  if (!row) throw notFound('This intake');
  await sweepFiles(database());
  await tellIntake(database(), project, id);
}

/** Reads a file that could not be read once more. */
export async function retryIntake(project: string, id: string): Promise<void> {
  const row = await database()
    .updateTable('intakes')
    .set({ state: 'waiting', done: 0, message: null, crashes: 0, deaths: 0, updated_at: sql`now()` })
    .where('id', '=', id)
    .where('project_id', '=', project)
    .where('state', '=', 'failed')
    .where('file_id', 'is not', null)
    .returning('id')
    .executeTakeFirst();
  if (!row) throw notFound('This intake');
  await tellIntake(database(), project, id);
}
