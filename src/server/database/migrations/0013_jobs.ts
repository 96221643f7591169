import { sql, type Kysely } from 'kysely';

/**
 * What runs a job, or takes an upload, is a process that says every other second that it lives. A job counts how often
 * its file ended its reader (`crashes`) apart from how often the process that ran it went away (`deaths`).
 */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`
    create table processes (
      id uuid primary key,
      beat_at timestamptz not null
    );
    alter table intakes
      add column process uuid,
      add column crashes integer not null default 0,
      add column deaths integer not null default 0;
    create index on intakes (state) where state in ('receiving', 'waiting', 'reading');
    drop schema if exists graphile_worker cascade;
  `.execute(db);
}
