import { sql, type Kysely } from 'kysely';

/** A small picture of each file that was read, for the list of projects: x1 y1 x2 y2 of straight lines. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`alter table file_reports add column picture jsonb check (jsonb_typeof(picture) = 'array')`.execute(db);
}
