import { sql, type Kysely } from 'kysely';

/**
 * What was seen when a candidate was decided on is kept as the values of its shape, which can be compared within a
 * tolerance. The short texts kept before say nothing about that, and go.
 */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`
    alter table decisions
      drop constraint decisions_seen_check,
      alter column seen type jsonb using null,
      add check (seen is null or jsonb_typeof(seen) = 'array');
  `.execute(db);
}
