import { sql, type Kysely } from 'kysely';

/** What a candidate was like when it was decided on, so that a revision shows what changed. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`alter table decisions add column seen text check (length(seen) between 1 and 40)`.execute(db);
}
