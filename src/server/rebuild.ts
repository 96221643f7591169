import { database } from './database/connection';
import { storeDerived } from './files';
import { notFound, Problem } from './problem';
import { readInThread } from './readInThread';

/** Reads a stored file again and replaces what was derived from it. */
export async function rebuildDerived(fileId: string): Promise<void> {
  const file = await database().selectFrom('files').innerJoin('revisions', 'revisions.file_id', 'files.id').select(['files.id', 'sha256', 'file_name']).where('files.id', '=', fileId).executeTakeFirst();
  if (!file) throw notFound('This drawing');
  const answer = await readInThread(file.id, file.file_name, file.sha256, async () => undefined);
  if ('failed' in answer) throw new Problem(422, answer.failed);
  await database().transaction().execute((tx) => storeDerived(tx, file.id, answer.columns, answer.intake));
}
