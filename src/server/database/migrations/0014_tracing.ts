import { sql, type Kysely } from 'kysely';

/**
 * Elements that somebody has checked are held: they are not changed until they are let go. The log says which window an
 * edit came from, and points of it can be marked with a name.
 */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`
    alter table elements add column held boolean not null default false;
    alter table edits add column window_id uuid;
    create table edit_marks (
      project_id uuid not null references projects (id) on delete cascade,
      seq integer not null check (seq >= 0),
      name text not null check (name <> '' and length(name) <= 120),
      created_at timestamptz not null default now(),
      primary key (project_id, seq)
    );
  `.execute(db);
}
