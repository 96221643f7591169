import { sql, type Kysely } from 'kysely';

/** Taking elements away asks which decisions made them: without an index each one looks at all decisions. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`create index on decisions (element_id)`.execute(db);
}
