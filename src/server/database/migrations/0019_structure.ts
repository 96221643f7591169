import { sql, type Kysely } from 'kysely';

/** What the structural trial of a project starts from: materials, load cases, combinations. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`alter table projects add column structure jsonb check (jsonb_typeof(structure) = 'object')`.execute(db);
}
