import { randomUUID, createHash } from 'node:crypto';
import { readerVersion } from '@/core/drawing/packDrawing';
import type { IntakeFile } from '@/core/handover/intake/writeIntake';
import { database, type Db } from './database/connection';
import { notFound, Problem } from './problem';

const chunkSize = 1 << 20;

/** Re-cuts a stream of byte runs into chunks of one megabyte. */
async function* inChunks(source: AsyncIterable<Uint8Array>): AsyncGenerator<Buffer> {
  let parts: Uint8Array[] = [];
  let size = 0;
  for await (const part of source) {
    let rest = part;
    while (size + rest.length >= chunkSize) {
      const take = chunkSize - size;
      yield Buffer.concat([...parts, rest.subarray(0, take)]);
      rest = rest.subarray(take);
      parts = [];
      size = 0;
    }
    if (rest.length > 0) {
      parts.push(rest);
      size += rest.length;
    }
  }
  if (size > 0) yield Buffer.concat(parts);
}

/** The hash of a file whose bytes have not all come yet. */
const unfinished = '0'.repeat(64);

/** Makes a file that has no bytes yet. @returns its id */
export async function beginFile(db: Db): Promise<string> {
  const id = randomUUID();
  await db.insertInto('files').values({ id, sha256: unfinished, size: 1 }).execute();
  return id;
}

/**
 * Stores a file's bytes as they come, each chunk for itself: between two of them nothing of the database is held.
 * @returns size in bytes and SHA-256
 */
export async function storeFile(
  db: Db,
  id: string,
  source: AsyncIterable<Uint8Array>,
): Promise<{ id: string; size: number; sha256: string }> {
  const hash = createHash('sha256');
  let size = 0;
  let seq = 0;
  for await (const bytes of inChunks(source)) {
    hash.update(bytes);
    size += bytes.length;
    await db.insertInto('file_chunks').values({ file_id: id, seq, bytes }).execute();
    seq += 1;
  }
  if (size === 0) throw new Problem(400, 'The file is empty. Expected a DXF drawing; export it again.');
  const sha256 = hash.digest('hex');
  await db.updateTable('files').set({ size, sha256 }).where('id', '=', id).execute();
  return { id, size, sha256 };
}

/** The file's bytes, chunk by chunk. */
export async function* fileChunks(id: string): AsyncGenerator<Buffer> {
  for (let seq = 0; ; seq += 1) {
    const row = await database()
      .selectFrom('file_chunks')
      .select('bytes')
      .where('file_id', '=', id)
      .where('seq', '=', seq)
      .executeTakeFirst();
    if (!row) return;
    yield row.bytes;
  }
}

/** What follows from a file alone, and can be made again. */
export interface Derived {
  columns: Uint8Array;
  intake: IntakeFile;
  /** A small picture of it: x1 y1 x2 y2 of straight lines. */
  picture: number[];
}

/** Keeps what a file was read to. */
export async function storeDerived(db: Db, id: string, { columns, intake, picture }: Derived): Promise<void> {
  await db.deleteFrom('file_columns').where('file_id', '=', id).execute();
  for (let at = 0, seq = 0; at < columns.length; at += chunkSize * 8, seq += 1) {
    await db
      .insertInto('file_columns')
      .values({ file_id: id, seq, bytes: Buffer.from(columns.subarray(at, at + chunkSize * 8)) })
      .execute();
  }
  await db.deleteFrom('file_reports').where('file_id', '=', id).execute();
  await db
    .insertInto('file_reports')
    .values({
      file_id: id,
      reader_version: readerVersion,
      intake: JSON.stringify(intake),
      picture: JSON.stringify(picture),
    })
    .execute();
}

/** That a file is shown by a drawing of a project. @throws Problem 404 */
export async function expectInProject(project: string, file: string): Promise<void> {
  const row = await database()
    .selectFrom('revisions')
    .innerJoin('drawings', 'drawings.id', 'revisions.drawing_id')
    .select('file_id')
    .where('project_id', '=', project)
    .where('file_id', '=', file)
    .executeTakeFirst();
  if (!row) throw notFound('This drawing');
}

/** The derived columns of a file, as a stream, or null where an older reader made them. */
export async function columnsOf(project: string, file: string): Promise<ReadableStream<Uint8Array> | null> {
  await expectInProject(project, file);
  const report = await database()
    .selectFrom('file_reports')
    .select('reader_version')
    .where('file_id', '=', file)
    .executeTakeFirst();
  if (report?.reader_version !== readerVersion) return null;
  return streamOf('file_columns', file);
}

/** The bytes that a table holds of a file, piece by piece as they are taken. */
export function streamOf(table: 'file_columns' | 'file_chunks', file: string): ReadableStream<Uint8Array> {
  let seq = 0;
  return new ReadableStream<Uint8Array>({
    async pull(controller) {
      const row = await database()
        .selectFrom(table)
        .select('bytes')
        .where('file_id', '=', file)
        .where('seq', '=', seq)
        .executeTakeFirst();
      seq += 1;
      if (row) controller.enqueue(new Uint8Array(row.bytes));
      else controller.close();
    },
  });
}

/** The intake report of a file, or null where an older reader made it. */
export async function intakeOf(project: string, file: string): Promise<IntakeFile | null> {
  await expectInProject(project, file);
  const row = await database()
    .selectFrom('file_reports')
    .select(['intake', 'reader_version'])
    .where('file_id', '=', file)
    .executeTakeFirst();
  if (!row) throw notFound('The intake report of this drawing');
  return row.reader_version === readerVersion ? row.intake : null;
}

/** Deletes files that nothing shows any more, then those that they were made of. */
export async function sweepFiles(db: Db): Promise<void> {
  const { numDeletedRows } = await db
    .deleteFrom('files')
    .where(({ not, exists, selectFrom }) =>
      not(exists(selectFrom('revisions').select('file_id').whereRef('revisions.file_id', '=', 'files.id'))),
    )
    .where(({ not, exists, selectFrom }) =>
      not(
        exists(
          selectFrom('intakes')
            .select('file_id')
            .whereRef('intakes.file_id', '=', 'files.id')
            .where('state', 'in', ['receiving', 'waiting', 'reading', 'failed']),
        ),
      ),
    )
    .where(({ not, exists, selectFrom }) =>
      not(exists(selectFrom('file_origins').select('file_id').whereRef('original_id', '=', 'files.id'))),
    )
    .executeTakeFirst();
  if (numDeletedRows > 0) await sweepFiles(db);
}

/** One file that a drawing was or is. */
export interface Revision {
  number: number;
  fileId: string;
  fileName: string;
  size: number;
  at: string;
}

/** The revisions of a drawing, the newest first. */
export async function revisionsOf(project: string, drawing: string): Promise<Revision[]> {
  const rows = await database()
    .selectFrom('revisions')
    .innerJoin('drawings', 'drawings.id', 'revisions.drawing_id')
    .innerJoin('files', 'files.id', 'revisions.file_id')
    .select(['number', 'file_id', 'file_name', 'size', 'revisions.created_at'])
    .where('project_id', '=', project)
    .where('drawing_id', '=', drawing)
    .orderBy('number', 'desc')
    .execute();
  if (rows.length === 0) throw notFound('This drawing');
  return rows.map((row) => ({
    number: row.number,
    fileId: row.file_id,
    fileName: row.file_name,
    size: Number(row.size),
    at: row.created_at.toISOString(),
  }));
}
