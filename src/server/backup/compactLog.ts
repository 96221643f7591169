import { sql } from 'kysely';
import { database } from '../database/connection';

/**
 * Takes edits out of the log that are older than some days. What they made stays; they can be undone no more, and
 * windows that have not seen them load their project anew. Nothing does this by itself.
 * @returns how many edits went
 */
export async function compactLog(days: number): Promise<number> {
  return database()
    .transaction()
    .execute(async (tx) => {
      const heads = await tx.selectFrom('projects').select(['id', 'version']).forUpdate().execute();
      let gone = 0;
      for (const { id } of heads) {
        const { rows } = await sql<{ cut: number | null }>`
          select max(seq) as cut from edits
          where project_id = ${id} and created_at < now() - make_interval(days => ${days})
        `.execute(tx);
        const cut = rows[0].cut;
        if (cut === null) continue;
        // A step that undid an old one names it; both go or both stay.
        const { rows: kept } = await sql<{ first: number | null }>`
          select min(undoes) as first from edits where project_id = ${id} and seq > ${cut}
        `.execute(tx);
        const last = Math.min(cut, (kept[0].first ?? Infinity) - 1);
        const done = await tx
          .deleteFrom('edits')
          .where('project_id', '=', id)
          .where('seq', '<=', last)
          .executeTakeFirst();
        gone += Number(done.numDeletedRows);
      }
      return gone;
    });
}
