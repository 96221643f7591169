import type { Origin } from '@/core/handover/intake/origin';
import { database } from '../database/connection';
import { expectInProject } from '../files';
import { notFound } from '../problem';

/** What a file was, or null where it came as a DXF. */
export async function originOf(project: string, file: string): Promise<Origin | null> {
  await expectInProject(project, file);
  const row = await database()
    .selectFrom('file_origins')
    .select(['name', 'size', 'sha256', 'log'])
    .where('file_id', '=', file)
    .executeTakeFirst();
  return row === undefined ? null : { ...row, size: Number(row.size) };
}

/** The bytes of a file as it came. @throws Problem 404 where it came as a DXF */
export async function originalBytes(
  project: string,
  file: string,
): Promise<{ origin: Origin; content: ReadableStream<Uint8Array> }> {
  const origin = await originOf(project, file);
  if (origin === null) throw notFound('The original of this file');
  let seq = 0;
  const content = new ReadableStream<Uint8Array>({
    async pull(controller) {
      const row = await database()
        .selectFrom('file_origin_chunks')
        .select('bytes')
        .where('file_id', '=', file)
        .where('seq', '=', seq)
        .executeTakeFirst();
      seq += 1;
      if (row) controller.enqueue(new Uint8Array(row.bytes));
      else controller.close();
    },
  });
  return { origin, content };
}
