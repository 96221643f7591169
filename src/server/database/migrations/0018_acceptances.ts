import { sql, type Kysely } from 'kysely';

/** Findings that somebody accepts with a reason. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`
    create table acceptances (
      id uuid primary key,
      project_id uuid not null references projects on delete cascade,
      rule text not null check (length(rule) between 1 and 60),
      elements jsonb not null check (jsonb_typeof(elements) = 'array'),
      message text not null check (length(message) <= 2000),
      reason text not null check (length(reason) between 1 and 500)
    );
    create index acceptances_project on acceptances (project_id);
  `.execute(db);
}
