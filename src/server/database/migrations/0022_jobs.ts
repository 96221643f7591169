import { sql, type Kysely } from 'kysely';

/** What is calculated or written in the background, and the files that come of it. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`
    create table jobs (
      id uuid primary key,
      project_id uuid not null references projects on delete cascade,
      kind text not null,
      wish jsonb not null,
      state text not null check (state in ('waiting', 'running', 'done', 'failed')),
      done double precision not null default 0,
      version integer,
      process uuid,
      deaths integer not null default 0,
      message text,
      created_at timestamptz not null default now(),
      updated_at timestamptz not null default now()
    );
    create index on jobs (project_id);
    create index on jobs (state) where state in ('waiting', 'running');
    create table job_files (
      id uuid primary key,
      job_id uuid not null references jobs on delete cascade,
      name text not null,
      type text not null,
      size bigint not null,
      sha256 text not null,
      bytes bytea not null
    );
    create index on job_files (job_id);
  `.execute(db);
}
