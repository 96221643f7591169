import { sql } from 'kysely';
import { expectAll, type TableAccess } from './access';

export const drawing: TableAccess<'drawing'> = {
  async load(db, projectId, ids) {
    const rows = await db
      .selectFrom('drawings')
      .innerJoin('revisions', (j) =>
        j.onRef('revisions.drawing_id', '=', 'drawings.id').onRef('revisions.number', '=', 'drawings.revision'),
      )
      .select(['drawings.id', 'name', 'revision', 'level_id', 'discarded', 'set_aside', 'file_id', 'file_name'])
      .select(
        sql<
          string[]
        >`array(select l.level_id from drawing_levels l where l.drawing_id = drawings.id order by l.level_id)`.as(
          'also_on',
        ),
      )
      .where('project_id', '=', projectId)
      .$if(ids !== null, (q) => q.where('drawings.id', 'in', ids!))
      .execute();
    return rows.map((row) => ({
      id: row.id,
      name: row.name,
      fileId: row.file_id,
      fileName: row.file_name,
      revision: row.revision,
      levelId: row.level_id,
      alsoOn: row.also_on,
      discarded: row.discarded,
      setAside: row.set_aside,
    }));
  },
  async put(tx, projectId, rows) {
    for (const row of rows) {
      const done = await tx
        .insertInto('drawings')
        .values({
          id: row.id,
          project_id: projectId,
          name: row.name,
          revision: row.revision,
          level_id: row.levelId,
          discarded: row.discarded,
          set_aside: row.setAside,
        })
        .onConflict((c) =>
          c
            .column('id')
            .doUpdateSet({
              name: row.name,
              revision: row.revision,
              level_id: row.levelId,
              discarded: row.discarded,
              set_aside: row.setAside,
            })
            .where('drawings.project_id', '=', projectId),
        )
        .returning('id')
        .execute();
      expectAll(done, [row]);
      await tx.deleteFrom('drawing_levels').where('drawing_id', '=', row.id).execute();
      const alsoOn = [...new Set(row.alsoOn)];
      if (alsoOn.length > 0)
        await tx
          .insertInto('drawing_levels')
          .values(alsoOn.map((levelId) => ({ project_id: projectId, drawing_id: row.id, level_id: levelId })))
          .execute();
      // Which file a revision shows is said once, when it comes in.
      await tx
        .insertInto('revisions')
        .values({ drawing_id: row.id, number: row.revision, file_id: row.fileId, file_name: row.fileName })
        .onConflict((c) => c.columns(['drawing_id', 'number']).doNothing())
        .execute();
    }
  },
  // Its file and its revisions stay, so that what took it away can be taken back; its level may go before that.
  async remove(tx, projectId, ids) {
    await tx
      .updateTable('drawings')
      .set({ discarded: true, level_id: null })
      .where('project_id', '=', projectId)
      .where('id', 'in', ids)
      .execute();
    await tx.deleteFrom('drawing_levels').where('project_id', '=', projectId).where('drawing_id', 'in', ids).execute();
  },
};
