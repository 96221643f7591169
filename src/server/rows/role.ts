import { expectAll, pairIn, type TableAccess } from './access';

export const role: TableAccess<'role'> = {
  async load(db, projectId, ids) {
    const rows = await db
      .selectFrom('layer_roles')
      .selectAll()
      .where('project_id', '=', projectId)
      .$if(ids !== null, (q) => q.where(pairIn('drawing_id', 'layer', ids!)))
      .execute();
    return rows.map((row) => ({
      id: `${row.drawing_id}/${row.layer}`,
      drawingId: row.drawing_id,
      layer: row.layer,
      role: row.role,
      suggested: row.suggested,
      shown: row.shown,
      libraryId: row.library_id,
    }));
  },
  async put(tx, projectId, rows) {
    const done = await tx
      .insertInto('layer_roles')
      .values(
        rows.map((row) => ({
          project_id: projectId,
          drawing_id: row.drawingId,
          layer: row.layer,
          role: row.role,
          suggested: row.suggested,
          shown: row.shown,
          library_id: row.libraryId,
        })),
      )
      .onConflict((c) =>
        c
          .columns(['drawing_id', 'layer'])
          .doUpdateSet((eb) => ({
            role: eb.ref('excluded.role'),
            suggested: eb.ref('excluded.suggested'),
            shown: eb.ref('excluded.shown'),
            library_id: eb.ref('excluded.library_id'),
          }))
          .where('layer_roles.project_id', '=', projectId),
      )
      .returning('layer')
      .execute();
    expectAll(done, rows);
  },
  async remove(tx, projectId, ids) {
    await tx
      .deleteFrom('layer_roles')
      .where('project_id', '=', projectId)
      .where(pairIn('drawing_id', 'layer', ids))
      .execute();
  },
};
