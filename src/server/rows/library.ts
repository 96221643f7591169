import type { LibraryRow } from '@/core/model/state';
import { expectAll, type TableAccess } from './access';

export const library: TableAccess<'library'> = {
  async load(db, projectId, ids) {
    const rows = await db
      .selectFrom('library')
      .selectAll()
      .where('project_id', '=', projectId)
      .$if(ids !== null, (q) => q.where('id', 'in', ids!))
      .execute();
    return rows.map(({ id, kind, name, made }) => ({ ...made, id, kind, name }) as LibraryRow);
  },
  async put(tx, projectId, rows) {
    const done = await tx
      .insertInto('library')
      .values(
        rows.map(({ id, kind, name, ...made }) => ({
          id,
          project_id: projectId,
          kind,
          name,
          made: JSON.stringify(made),
        })),
      )
      .onConflict((c) =>
        c
          .column('id')
          .doUpdateSet((eb) => ({
            kind: eb.ref('excluded.kind'),
            name: eb.ref('excluded.name'),
            made: eb.ref('excluded.made'),
          }))
          .where('library.project_id', '=', projectId),
      )
      .returning('id')
      .execute();
    expectAll(done, rows);
  },
  async remove(tx, projectId, ids) {
    await tx.deleteFrom('library').where('project_id', '=', projectId).where('id', 'in', ids).execute();
  },
};
