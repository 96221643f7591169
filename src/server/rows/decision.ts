import { sql } from 'kysely';
import type { DecisionRow } from '@/core/model/state';
import { expectAll, pairIn, type TableAccess } from './access';

/** The text of the JSON of a decision's id. */
export const decisionId = sql<string>`to_json(drawing_id || '/' || key)::text`;

/** A decision as the text of its JSON, put together by the database as elements are. */
export const decisionText = sql<string>`
  '{"id":' || ${decisionId} || ',"drawingId":"' || drawing_id || '","key":' || to_json(key)::text
  || ',"verdict":"' || verdict || '","elementId":' || coalesce('"' || element_id || '"', 'null')
  || ',"seen":' || coalesce(seen::text, 'null') || '}'
`;

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
      .select(sql<DecisionRow>`(${decisionText})::json`.as('row'))
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
