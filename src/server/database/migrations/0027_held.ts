import { sql, type Kysely } from 'kysely';

/** A project that is held as it is: since when, and by whom where people sign in. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`
    alter table projects add column held_at timestamptz, add column held_by text;
  `.execute(db);
}
