import { sql, type Kysely } from 'kysely';

/** Accounts, sessions, invitations and rights; who made an edit, brought a file in, and asked for work. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`
    create table people (
      id uuid primary key,
      name text not null check (length(name) between 1 and 80),
      password text not null,
      head boolean not null default false,
      created_at timestamptz not null default now()
    );
    create unique index on people (lower(name));
    create table sessions (
      token text primary key,
      person_id uuid not null references people on delete cascade,
      made_at timestamptz not null default now(),
      seen_at timestamptz not null default now()
    );
    create index on sessions (person_id);
    create table rights (
      project_id uuid not null references projects on delete cascade,
      person_id uuid not null references people on delete cascade,
      "right" text not null check ("right" in ('reader', 'editor', 'owner')),
      primary key (project_id, person_id)
    );
    create index on rights (person_id);
    create table invitations (
      token text primary key,
      person_id uuid references people on delete cascade,
      project_id uuid references projects on delete cascade,
      "right" text check ("right" in ('reader', 'editor', 'owner')),
      head boolean not null default false,
      ends_at timestamptz not null
    );
    create table failed_sign_ins (
      id uuid primary key default gen_random_uuid(),
      key text not null,
      at timestamptz not null default now()
    );
    create index on failed_sign_ins (key, at);
    alter table edits add column person text;
    alter table intakes add column person_id uuid;
    alter table jobs add column person_id uuid;
  `.execute(db);
}
