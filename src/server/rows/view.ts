import * as v from 'valibot';
import { lookSchema } from '@/core/model/look';
import { expectAll, type TableAccess } from './access';

export const view: TableAccess<'view'> = {
  async load(db, projectId, ids) {
    const rows = await db
      .selectFrom('views')
      .selectAll()
      .where('project_id', '=', projectId)
      .$if(ids !== null, (q) => q.where('id', 'in', ids!))
      .execute();
    return rows.map(({ id, name, key, look }) => ({ id, name, key, look: v.parse(lookSchema, look) }));
  },
  async put(tx, projectId, rows) {
    const done = await tx
      .insertInto('views')
      .values(rows.map(({ look, ...row }) => ({ ...row, project_id: projectId, look: JSON.stringify(look) })))
      .onConflict((c) =>
        c
          .column('id')
          .doUpdateSet((eb) => ({
            name: eb.ref('excluded.name'),
            key: eb.ref('excluded.key'),
            look: eb.ref('excluded.look'),
          }))
          .where('views.project_id', '=', projectId),
      )
      .returning('id')
      .execute();
    expectAll(done, rows);
  },
  async remove(tx, projectId, ids) {
    await tx.deleteFrom('views').where('project_id', '=', projectId).where('id', 'in', ids).execute();
  },
};
