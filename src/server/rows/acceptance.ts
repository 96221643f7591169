import { expectAll, type TableAccess } from './access';

export const acceptance: TableAccess<'acceptance'> = {
  async load(db, projectId, ids) {
    const rows = await db
      .selectFrom('acceptances')
      .selectAll()
      .where('project_id', '=', projectId)
      .$if(ids !== null, (q) => q.where('id', 'in', ids!))
      .execute();
    return rows.map(({ project_id: _, ...row }) => row);
  },
  async put(tx, projectId, rows) {
    const done = await tx
      .insertInto('acceptances')
      .values(
        rows.map(({ elements, ...row }) => ({ ...row, project_id: projectId, elements: JSON.stringify(elements) })),
      )
      .onConflict((c) =>
        c
          .column('id')
          .doUpdateSet((eb) => ({
            rule: eb.ref('excluded.rule'),
            elements: eb.ref('excluded.elements'),
            message: eb.ref('excluded.message'),
            reason: eb.ref('excluded.reason'),
          }))
          .where('acceptances.project_id', '=', projectId),
      )
      .returning('id')
      .execute();
    expectAll(done, rows);
  },
  async remove(tx, projectId, ids) {
    await tx.deleteFrom('acceptances').where('project_id', '=', projectId).where('id', 'in', ids).execute();
  },
};
