import { sql } from 'kysely';
import type { DecisionRow } from '@/core/model/state';
import { expectAll, pairIn, type TableAccess } from './access';

/** A decision as JSON, made by the database. */
export const decisionJson = sql<DecisionRow>`json_build_object(
  'id', drawing_id || '/' || key,
  'drawingId', drawing_id,
  'key', key,
  'verdict', verdict,
  'elementId', element_id,
  'seen', seen
)`;

const decisionColumns = (row: DecisionRow) => ({
  drawing_id: row.drawingId,
  key: row.key,
  verdict: row.verdict,
  element_id: row.elementId,
  seen: row.seen,
});

export const decision: TableAccess<'decision'> = {
  async load(db, projectId, ids) {
    const rows = await db
      .selectFrom('decisions')
      .select(decisionJson.as('row'))
      .where('project_id', '=', projectId)
      .$if(ids !== null, (q) => q.where(pairIn('drawing_id', 'key', ids!)))
      .execute();
    return rows.map(({ row }) => row);
  },
  async put(tx, projectId, rows) {
    const { rows: done } = await sql<{ key: string }>`
      insert into decisions (project_id, drawing_id, key, verdict, element_id, seen)
      select ${projectId}, drawing_id, key, verdict, element_id, nullif(seen, 'null'::jsonb)
      from jsonb_to_recordset(${JSON.stringify(rows.map(decisionColumns))}::jsonb) as row (
        drawing_id uuid, key text, verdict text, element_id uuid, seen jsonb
      )
      on conflict (drawing_id, key) do update set
        verdict = excluded.verdict, element_id = excluded.element_id, seen = excluded.seen
      where decisions.project_id = ${projectId}
      returning key
    `.execute(tx);
    expectAll(done, rows);
  },
  async remove(tx, projectId, ids) {
    await tx
      .deleteFrom('decisions')
      .where('project_id', '=', projectId)
      .where(pairIn('drawing_id', 'key', ids))
      .execute();
  },
};
