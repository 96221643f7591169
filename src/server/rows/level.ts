import type { LevelRow } from '@/core/model/state';
import { expectAll, type TableAccess } from './access';

/** A level as the table has it. */
export const levelValues = ({ buildUp, ...row }: LevelRow, projectId: string) => ({
  ...row,
  build_up: buildUp,
  project_id: projectId,
});

export const level: TableAccess<'level'> = {
  async load(db, projectId, ids) {
    const rows = await db
      .selectFrom('levels')
      .selectAll()
      .where('project_id', '=', projectId)
      .$if(ids !== null, (q) => q.where('id', 'in', ids!))
      .execute();
    return rows.map(({ project_id: _, build_up: buildUp, ...row }) => ({ ...row, buildUp }));
  },
  async put(tx, projectId, rows) {
    const done = await tx
      .insertInto('levels')
      .values(rows.map((row) => levelValues(row, projectId)))
      .onConflict((c) =>
        c
          .column('id')
          .doUpdateSet((eb) => ({
            name: eb.ref('excluded.name'),
            elevation: eb.ref('excluded.elevation'),
            height: eb.ref('excluded.height'),
            kind: eb.ref('excluded.kind'),
            build_up: eb.ref('excluded.build_up'),
            slab: eb.ref('excluded.slab'),
            repeats: eb.ref('excluded.repeats'),
          }))
          .where('levels.project_id', '=', projectId),
      )
      .returning('id')
      .execute();
    expectAll(done, rows);
  },
  async remove(tx, projectId, ids) {
    await tx.deleteFrom('levels').where('project_id', '=', projectId).where('id', 'in', ids).execute();
  },
};
