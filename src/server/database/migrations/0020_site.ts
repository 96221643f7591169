import { sql, type Kysely } from 'kysely';

/** What the trial of heat starts from: the place, and constructions by rule. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`alter table projects add column site jsonb check (jsonb_typeof(site) = 'object')`.execute(db);
}
