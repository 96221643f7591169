import { sql } from 'kysely';
import type { Rows as StateRows } from '@/core/model/state';
import { expectDrawings, type TableAccess } from './access';

/** Where a table keeps one JSON value a drawing. */
function perDrawing<T extends 'recipe' | 'display'>(
  table: 'recipes' | 'displays',
  column: 'steps' | 'settings',
  toRow: (id: string, value: unknown) => StateRows[T],
  toValue: (row: StateRows[T]) => unknown,
): TableAccess<T> {
  const [name, kept] = [sql.table(table), sql.ref(column)];
  return {
    async load(db, projectId, ids) {
      const { rows } = await sql<{
        drawing_id: string;
        value: unknown;
      }>`
        select drawing_id, ${kept} as value from ${name} join drawings on drawings.id = drawing_id
        where project_id = ${projectId} and (${ids}::uuid[] is null or drawing_id = any(${ids}::uuid[]))
      `.execute(db);
      return rows.map((row) => toRow(row.drawing_id, row.value));
    },
    async put(tx, projectId, rows) {
      await expectDrawings(
        tx,
        projectId,
        rows.map((row) => row.id),
      );
      for (const row of rows)
        await sql`
          insert into ${name} (drawing_id, ${kept}) values (${row.id}, ${JSON.stringify(toValue(row))}::jsonb)
          on conflict (drawing_id) do update set ${kept} = excluded.${kept}
        `.execute(tx);
    },
    async remove(tx, projectId, ids) {
      await expectDrawings(tx, projectId, ids);
      await sql`delete from ${name} where drawing_id = any(${ids}::uuid[])`.execute(tx);
    },
  };
}

export const recipe = perDrawing<'recipe'>(
  'recipes',
  'steps',
  (id, steps) => ({ id, steps }) as StateRows['recipe'],
  ({ steps }) => steps,
);
export const display = perDrawing<'display'>(
  'displays',
  'settings',
  (id, settings) => ({ ...(settings as Omit<StateRows['display'], 'id'>), id }),
  ({ id: _, ...settings }) => settings,
);
