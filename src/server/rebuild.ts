import { database } from './database/connection';
import type { IntakeFile } from '@/core/handover/intake/writeIntake';
import { columnsOf, intakeOf, storeDerived } from './files';
import { notFound, Problem } from './problem';
import { dxfReader, readInThread, type ReadFile } from './readInThread';

/** Reads a stored file again and replaces what was derived from it. */
export async function rebuildDerived(fileId: string): Promise<void> {
  const file = await database()
    .selectFrom('files')
    .innerJoin('revisions', 'revisions.file_id', 'files.id')
    .select(['files.id', 'sha256', 'file_name'])
    .where('files.id', '=', fileId)
    .executeTakeFirst();
  if (!file) throw notFound('This drawing');
  const answer = await readInThread<ReadFile>(
    dxfReader(file.file_name, file.sha256),
    file.id,
    new AbortController().signal,
  );
  if ('failed' in answer) throw new Problem(422, answer.failed);
  if ('crashed' in answer) throw new Problem(500, `${file.file_name} could not be read again. Try again in a moment.`);
  await database()
    .transaction()
    .execute((tx) => storeDerived(tx, file.id, answer));
}

/** What a file was read to, read again where an older reader made it. */
async function current<T>(file: string, load: () => Promise<T | null>): Promise<T> {
  const found = await load();
  if (found !== null) return found;
  await rebuildDerived(file);
  const again = await load();
  if (again === null) throw notFound('What was read of this drawing');
  return again;
}

export const currentIntake = (project: string, file: string): Promise<IntakeFile> =>
  current(file, () => intakeOf(project, file));

export const currentColumns = (project: string, file: string): Promise<ReadableStream<Uint8Array>> =>
  current(file, () => columnsOf(project, file));
