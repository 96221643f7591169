import { sql, type Kysely } from 'kysely';

/** Projects, levels, files, drawings with revisions, placements, roles, decisions, elements, the edit log, intakes. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`
    create table projects (
      id uuid primary key,
      name text not null check (length(name) between 1 and 120),
      display_unit text not null check (display_unit in ('mm', 'cm', 'm', 'in', 'ft', 'ft-in')),
      version bigint not null default 0,
      undo_top bigint,
      redo_top bigint,
      deleted_at timestamptz,
      created_at timestamptz not null default now(),
      updated_at timestamptz not null default now()
    );

    create table levels (
      id uuid primary key,
      project_id uuid not null references projects on delete cascade,
      name text not null check (length(name) between 1 and 120),
      elevation double precision not null,
      height double precision not null check (height > 0)
    );
    create index on levels (project_id);

    create table files (
      id uuid primary key,
      sha256 text not null check (length(sha256) = 64),
      size bigint not null check (size > 0),
      created_at timestamptz not null default now()
    );
    create table file_chunks (
      file_id uuid not null references files on delete cascade,
      seq integer not null,
      bytes bytea not null,
      primary key (file_id, seq)
    );
    create table file_reports (
      file_id uuid primary key references files on delete cascade,
      reader_version integer not null,
      intake jsonb not null
    );
    create table file_columns (
      file_id uuid not null references files on delete cascade,
      seq integer not null,
      bytes bytea not null,
      primary key (file_id, seq)
    );
    -- What is stored is binary and large; compressing it again costs time and gains little.
    alter table file_chunks alter column bytes set storage external;
    alter table file_columns alter column bytes set storage external;

    create table drawings (
      id uuid primary key,
      project_id uuid not null references projects on delete cascade,
      name text not null check (length(name) between 1 and 120),
      revision integer not null check (revision > 0),
      level_id uuid references levels deferrable initially deferred,
      discarded boolean not null,
      set_aside boolean not null
    );
    create index on drawings (project_id);
    create table revisions (
      drawing_id uuid not null references drawings on delete cascade,
      number integer not null check (number > 0),
      file_id uuid not null references files,
      file_name text not null,
      created_at timestamptz not null default now(),
      primary key (drawing_id, number)
    );
    create index on revisions (file_id);
    create table placements (
      drawing_id uuid primary key references drawings on delete cascade,
      unit text not null check (unit in ('mm', 'cm', 'm', 'in', 'ft')),
      confirmed boolean not null,
      origin_x double precision not null,
      origin_y double precision not null,
      target_x double precision not null,
      target_y double precision not null,
      turning double precision not null
    );
    create table layer_roles (
      drawing_id uuid not null references drawings on delete cascade,
      layer text not null,
      role text,
      suggested boolean not null,
      shown boolean not null,
      primary key (drawing_id, layer)
    );
    create table elements (
      id uuid primary key,
      project_id uuid not null references projects on delete cascade,
      level_id uuid references levels deferrable initially deferred,
      kind text not null check (kind in ('grid', 'column')),
      shape jsonb not null,
      source_drawing uuid references drawings deferrable initially deferred,
      source_handles text[]
    );
    create index on elements (project_id);
    create table decisions (
      drawing_id uuid not null references drawings on delete cascade,
      key text not null,
      verdict text not null check (verdict in ('accepted', 'rejected')),
      element_id uuid references elements deferrable initially deferred,
      primary key (drawing_id, key)
    );

    create table edits (
      project_id uuid not null references projects on delete cascade,
      seq bigint not null,
      client_id uuid not null,
      label text not null,
      changes jsonb not null,
      inverse jsonb not null,
      undoes bigint,
      previous_undo bigint,
      previous_redo bigint,
      created_at timestamptz not null default now(),
      primary key (project_id, seq),
      unique (project_id, client_id),
      foreign key (project_id, undoes) references edits (project_id, seq)
    );
    create function edits_are_kept() returns trigger language plpgsql as $$
      begin raise exception 'the edit log is append-only'; end $$;
    create trigger edits_append_only before update on edits for each row execute function edits_are_kept();

    create table intakes (
      id uuid primary key,
      project_id uuid not null references projects on delete cascade,
      level_id uuid,
      file_id uuid references files on delete set null,
      file_name text not null,
      size bigint not null,
      state text not null check (state in ('receiving', 'waiting', 'reading', 'done', 'failed', 'cancelled')),
      done bigint not null default 0,
      message text,
      drawing_id uuid,
      created_at timestamptz not null default now(),
      updated_at timestamptz not null default now()
    );
    create index on intakes (project_id);
  `.execute(db);
}
