import { randomUUID } from 'node:crypto';
import { sql } from 'kysely';
import { recognise } from '@/core/drawing/recognise';
import { connections, database, type Db } from './database/connection';
import type { IntakeState } from './database/schema';
import { sweepFiles, storeFile } from './files';
import { notFound, Problem, problemOf } from './problem';
import { settings } from './settings';

/** A file on its way in, as windows see it. */
export interface IntakeView {
  id: string;
  fileName: string;
  size: number;
  state: IntakeState;
  done: number;
  message: string | null;
  drawingId: string | null;
  revises: string | null;
}

export const tellIntake = (db: Db, project: string, intake: string) =>
  sql`select pg_notify('zircon', ${JSON.stringify({ project, intake })})`.execute(db);

const megabytes = (bytes: number) => `${(bytes / 1024 / 1024).toFixed(bytes < 10 * 1024 * 1024 ? 1 : 0)} MB`;

/**
 * Takes a file in. The bytes go to the database in one transaction with the job that will read them: when the
 * upload breaks off, or the server does, nothing of them is there.
 * @param revises the drawing whose next revision it is, or null for a drawing of its own
 * @param length what the browser says the body's length is, in bytes
 */
export async function receive(
  project: string,
  { levelId, revises, fileName }: { levelId: string | null; revises: string | null; fileName: string },
  length: number | null,
  body: AsyncIterable<Uint8Array>,
): Promise<IntakeView> {
  const known = await database()
    .selectFrom('projects')
    .select('id')
    .where('id', '=', project)
    .where('deleted_at', 'is', null)
    .executeTakeFirst();
  if (!known) throw notFound('This project');
  if (
    revises !== null &&
    !(await database()
      .selectFrom('drawings')
      .select('id')
      .where('id', '=', revises)
      .where('project_id', '=', project)
      .executeTakeFirst())
  )
    throw notFound('The drawing to be revised');
  if (length !== null && length > settings.maxUpload) throw tooLarge(fileName, length);
  const id = randomUUID();
  const row = {
    id,
    project_id: project,
    level_id: levelId,
    revises,
    file_name: fileName,
    size: length ?? 0,
    state: 'receiving' as const,
  };
  await database()
    .insertInto('intakes')
    .values({ ...row, file_id: null, message: null, drawing_id: null })
    .execute();
  await tellIntake(database(), project, id);
  try {
    await connections()
      .uploadDb.transaction()
      .execute(async (tx) => {
        // Held as long as the upload lives; whoever can take it knows that the upload is dead.
        await sql`select pg_advisory_xact_lock(hashtextextended(${id}, 1))`.execute(tx);
        const file = await storeFile(tx, checked(body, fileName));
        if (length !== null && file.size !== length)
          throw new Problem(
            400,
            `The upload of ${fileName} was cut off: ${file.size.toLocaleString('en')} of ${length.toLocaleString('en')} bytes came. Nothing was stored; bring it in again.`,
          );
        await tx
          .updateTable('intakes')
          .set({ file_id: file.id, size: file.size, state: 'waiting', updated_at: sql`now()` })
          .where('id', '=', id)
          .execute();
        await sql`select graphile_worker.add_job('readDrawing', ${JSON.stringify({ intake: id })}::json, max_attempts => 3)`.execute(
          tx,
        );
      });
  } catch (error) {
    const aborted =
      error instanceof Error && (error.name === 'AbortError' || /aborted|terminated|premature/i.test(error.message));
    let problem;
    if (error instanceof Problem) problem = error;
    else if (aborted) problem = cutOff(fileName);
    else problem = problemOf(error);

    await database()
      .updateTable('intakes')
      .set({ state: 'failed', message: problem.message, updated_at: sql`now()` })
      .where('id', '=', id)
      .execute()
      .catch(() => undefined);
    await tellIntake(database(), project, id).catch(() => undefined);
    throw problem;
  }
  await tellIntake(database(), project, id);
  return (await views(project, id))[0];
}

const cutOff = (fileName: string) =>
  new Problem(400, `The upload of ${fileName} was cut off. Nothing was stored; bring it in again.`);
const tooLarge = (fileName: string, size: number) =>
  new Problem(
    413,
    `${fileName} has ${megabytes(size)}, more than the limit of ${megabytes(settings.maxUpload)}. Cut the drawing into parts, or raise ZIRCON_MAX_UPLOAD_MB.`,
  );

/** Passes the body on, refusing what is no drawing at its first bytes and what grows beyond the limit. */
async function* checked(body: AsyncIterable<Uint8Array>, fileName: string): AsyncGenerator<Uint8Array> {
  let head: Uint8Array | null = new Uint8Array(0);
  let size = 0;
  const judge = (bytes: Uint8Array) => {
    const verdict = recognise(bytes);
    if (!verdict.ok) throw new Problem(415, `${fileName}: ${verdict.message}`);
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
  await markDeadUploads(project);
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
    revises: row.revises,
  }));
}

/** Uploads whose process died have left their row behind, and nothing else. */
async function markDeadUploads(project: string): Promise<void> {
  const rows = await database()
    .selectFrom('intakes')
    .select(['id', 'file_name'])
    .where('project_id', '=', project)
    .where('state', '=', 'receiving')
    .where('created_at', '<', sql<Date>`now() - interval '2 seconds'`)
    .execute();
  for (const { id, file_name } of rows) {
    await database()
      .transaction()
      .execute(async (tx) => {
        const {
          rows: [{ free }],
        } = await sql<{ free: boolean }>`select pg_try_advisory_xact_lock(hashtextextended(${id}, 1)) as free`.execute(
          tx,
        );
        if (free)
          await tx
            .updateTable('intakes')
            .set({ state: 'failed', message: cutOff(file_name).message })
            .where('id', '=', id)
            .where('state', '=', 'receiving')
            .execute();
      });
  }
}

/** Stops an intake that is under way, or takes a failed one off the list. Its bytes go. */
export async function cancelIntake(project: string, id: string): Promise<void> {
  const row = await database()
    .updateTable('intakes')
    .set({ state: 'cancelled', updated_at: sql`now()` })
    .where('id', '=', id)
    .where('project_id', '=', project)
    .where('state', 'in', ['receiving', 'waiting', 'reading', 'failed'])
    .returning('id')
    .executeTakeFirst();
  if (!row) throw notFound('This intake');
  await sweepFiles(database());
  await tellIntake(database(), project, id);
}
