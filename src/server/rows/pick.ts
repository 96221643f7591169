import type { Selectable } from 'kysely';
import * as v from 'valibot';
import type { PickRow } from '@/core/model/state';
import { likenessSchema } from '@/core/sorting/alike';
import { answerSchema } from '@/core/sorting/answers';
import type { Database } from '../database/schema';
import { expectAll, type TableAccess } from './access';

type Stored = Selectable<Database['picks']>;

function lessonOf(row: PickRow): string | null {
  if (row.kind === 'alike') return JSON.stringify(row.like);
  return row.kind === 'answer' ? JSON.stringify(row.answer) : null;
}

/** A row as it is stored; what its kind has not got is null there, by the table's own rules. */
function rowOf({ id, drawing_id: drawingId, kind, name, role, handles, lesson }: Stored): PickRow {
  const row = { id, drawingId, name };
  switch (kind) {
    case 'block':
      return { ...row, kind, role: role! };
    case 'lines':
      return { ...row, kind, role: role!, handles: handles! };
    case 'alike':
      return { ...row, kind, role: role!, like: v.parse(likenessSchema, lesson) };
    case 'answer':
      return { ...row, kind, answer: v.parse(answerSchema, lesson) };
  }
}

export const pick: TableAccess<'pick'> = {
  async load(db, projectId, ids) {
    const rows = await db
      .selectFrom('picks')
      .selectAll()
      .where('project_id', '=', projectId)
      .$if(ids !== null, (q) => q.where('id', 'in', ids!))
      .execute();
    return rows.map(rowOf);
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
          role: row.kind === 'answer' ? null : row.role,
          handles: row.kind === 'lines' ? row.handles : null,
          lesson: lessonOf(row),
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
            lesson: eb.ref('excluded.lesson'),
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
