import { sql } from 'kysely';
import type { ElementRow } from '@/core/kinds/element';
import type { TableAccess } from './access';

/**
 * An element as the text of its JSON, put together by the database: tens of thousands of rows are sent on as they are.
 * Joined as text, in little more than half the time that its functions for JSON take; what is joined without being
 * quoted by them are ids and kinds, which hold nothing to be quoted.
 */
export const elementText = sql<string>`
  '{"id":"' || id || '","levelId":' || coalesce('"' || level_id || '"', 'null')
  || ',"source":' || case when source_drawing is null then 'null' else
    '{"drawing":"' || source_drawing || '","handles":' || array_to_json(coalesce(source_handles, '{}'))::text || '}' end
  || ',"libraryId":' || coalesce('"' || library_id || '"', 'null')
  || case when held then ',"held":true' else '' end
  || ',"kind":"' || kind || '","shape":' || shape::text || '}'
`;

/** Columns of an element as one JSON document a row: thousands of rows are one parameter, not tens of thousands. */
const elementColumns = (row: ElementRow) => ({
  id: row.id,
  level_id: row.levelId,
  kind: row.kind,
  shape: row.shape,
  source_drawing: row.source?.drawing ?? null,
  source_handles: row.source?.handles ?? null,
  library_id: row.libraryId ?? null,
  held: row.held ?? false,
});

export const element: TableAccess<'element'> = {
  async load(db, projectId, ids) {
    const rows = await db
      .selectFrom('elements')
      .select(sql<ElementRow>`(${elementText})::json`.as('row'))
      .where('project_id', '=', projectId)
      .$if(ids !== null, (q) => q.where(sql<boolean>`id = any(${ids}::uuid[])`))
      .orderBy('id')
      .execute();
    return rows.map(({ row }) => row);
  },
  async put(tx, projectId, rows) {
    await sql`
      insert into elements (id, project_id, level_id, kind, shape, source_drawing, source_handles, library_id, held)
      select id, ${projectId}, level_id, kind, shape, source_drawing, source_handles, library_id, held
      from jsonb_to_recordset(${JSON.stringify(rows.map(elementColumns))}::jsonb) as row (
        id uuid, level_id uuid, kind text, shape jsonb, source_drawing uuid, source_handles text[], library_id uuid,
        held boolean
      )
      on conflict (project_id, id) do update set
        level_id = excluded.level_id, kind = excluded.kind, shape = excluded.shape,
        source_drawing = excluded.source_drawing, source_handles = excluded.source_handles,
        library_id = excluded.library_id, held = excluded.held
    `.execute(tx);
  },
  async remove(tx, projectId, ids) {
    await sql`delete from elements where project_id = ${projectId} and id = any(${ids}::uuid[])`.execute(tx);
  },
};
