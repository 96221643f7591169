import type { Origin } from '@/core/handover/intake/origin';
import { database } from '../database/connection';
import { expectInProject, streamOf } from '../files';
import { notFound } from '../problem';

/** What a file was, or null where it came as a DXF. */
export async function originOf(project: string, file: string): Promise<Origin | null> {
  await expectInProject(project, file);
  const row = await database()
    .selectFrom('file_origins')
    .innerJoin('files', 'files.id', 'original_id')
    .select(['name', 'size', 'sha256', 'log', 'report', 'original_id'])
    .where('file_id', '=', file)
    .executeTakeFirst();
  if (row === undefined) return null;
  const { original_id: id, size, ...rest } = row;
  return { ...rest, id, size: Number(size) };
}

/** The bytes of a file as it came. @throws Problem 404 where it came as a DXF */
export async function originalBytes(
  project: string,
  file: string,
): Promise<{ origin: Origin; content: ReadableStream<Uint8Array> }> {
  const origin = await originOf(project, file);
  if (origin === null) throw notFound('The original of this file');
  return { origin, content: streamOf('file_chunks', origin.id) };
}
