import { expectAll, type TableAccess } from './access';

export const pick: TableAccess<'pick'> = {
  async load(db, projectId, ids) {
    const rows = await db
      .selectFrom('picks')
      .selectAll()
      .where('project_id', '=', projectId)
      .$if(ids !== null, (q) => q.where('id', 'in', ids!))
      .execute();
    return rows.map(({ id, drawing_id: drawingId, kind, name, role: of, handles, likeness }) => {
      const row = { id, drawingId, name, role: of };
      if (kind === 'block') return { ...row, kind };
      return kind === 'lines' ? { ...row, kind, handles: handles ?? [] } : { ...row, kind, like: likeness! };
    });
  },
  async put(tx, projectId, rows) {
    const done = await tx
      .insertInto('picks')
      .values(
        rows.map((row) => ({
          id: row.id,
          project_id: projectId,
          drawing_id: row.drawingId,
          kind: row.kind,
          name: row.name,
          role: row.role,
          handles: row.kind === 'lines' ? row.handles : null,
          likeness: row.kind === 'alike' ? JSON.stringify(row.like) : null,
        })),
      )
      .onConflict((c) =>
        c
          .column('id')
          .doUpdateSet((eb) => ({
            drawing_id: eb.ref('excluded.drawing_id'),
            kind: eb.ref('excluded.kind'),
            name: eb.ref('excluded.name'),
            role: eb.ref('excluded.role'),
            handles: eb.ref('excluded.handles'),
            likeness: eb.ref('excluded.likeness'),
          }))
          .where('picks.project_id', '=', projectId),
      )
      .returning('id')
      .execute();
    expectAll(done, rows);
  },
  async remove(tx, projectId, ids) {
    await tx.deleteFrom('picks').where('id', 'in', ids).where('project_id', '=', projectId).execute();
  },
};
