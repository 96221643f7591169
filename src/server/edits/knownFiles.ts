import type { Transaction } from 'kysely';
import type { Change } from '@/core/model/edits';
import type { Database } from '../database/schema';
import { foreign } from '../rows/access';

/**
 * Files come into a project by being brought in. An edit from outside may show a file that the project has had before,
 * and no other: its content is nobody's else to see.
 */
export async function expectKnownFiles(tx: Transaction<Database>, project: string, changes: readonly Change[]) {
  const wanted = new Set(
    changes.flatMap(({ table, row }) => (table === 'drawing' && row !== null ? [row.fileId] : [])),
  );
  if (wanted.size === 0) return;
  const known = await tx
    .selectFrom('revisions')
    .innerJoin('drawings', 'drawings.id', 'revisions.drawing_id')
    .select('file_id')
    .distinct()
    .where('project_id', '=', project)
    .where('file_id', 'in', [...wanted])
    .execute();
  if (known.length !== wanted.size) throw foreign();
}
