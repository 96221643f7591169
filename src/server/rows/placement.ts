import { expectDrawings, type TableAccess } from './access';

export const placement: TableAccess<'placement'> = {
  async load(db, projectId, ids) {
    const rows = await db
      .selectFrom('placements')
      .innerJoin('drawings', 'drawings.id', 'placements.drawing_id')
      .selectAll('placements')
      .where('project_id', '=', projectId)
      .$if(ids !== null, (q) => q.where('drawing_id', 'in', ids!))
      .execute();
    return rows.map((row) => ({
      id: row.drawing_id,
      unit: row.unit,
      scale: row.scale,
      confirmed: row.confirmed,
      origin: [row.origin_x, row.origin_y],
      target: [row.target_x, row.target_y],
      turning: row.turning,
      mirrored: row.mirrored,
      upright: row.upright,
    }));
  },
  async put(tx, projectId, rows) {
    await expectDrawings(
      tx,
      projectId,
      rows.map((row) => row.id),
    );
    for (const row of rows) {
      const values = {
        unit: row.unit,
        scale: row.scale,
        confirmed: row.confirmed,
        origin_x: row.origin[0],
        origin_y: row.origin[1],
        target_x: row.target[0],
        target_y: row.target[1],
        turning: row.turning,
        mirrored: row.mirrored,
        upright: row.upright,
      };
      await tx
        .insertInto('placements')
        .values({ drawing_id: row.id, ...values })
        .onConflict((c) => c.column('drawing_id').doUpdateSet(values))
        .execute();
    }
  },
  async remove(tx, projectId, ids) {
    await expectDrawings(tx, projectId, ids);
    await tx.deleteFrom('placements').where('drawing_id', 'in', ids).execute();
  },
};
