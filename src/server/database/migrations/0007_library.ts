import { sql, type Kysely } from 'kysely';

/**
 * A library of sections and constructions that elements and layers refer to, roles of blocks and of picked lines, how a
 * project names sizes and what reading takes for granted.
 */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`
    create table library (
      id uuid primary key,
      project_id uuid not null references projects on delete cascade,
      kind text not null check (kind in ('section', 'wall', 'slab', 'glazing')),
      name text not null check (length(name) between 1 and 120),
      made jsonb not null check (jsonb_typeof(made) = 'object')
    );
    create index on library (project_id);

    alter table elements add column library_id uuid references library deferrable initially deferred;
    create index on elements (library_id);
    alter table layer_roles add column library_id uuid references library deferrable initially deferred;

    create table picks (
      id uuid primary key,
      drawing_id uuid not null references drawings on delete cascade,
      kind text not null check (kind in ('block', 'lines')),
      name text not null check (length(name) between 1 and 2000),
      role text not null,
      handles text[],
      check ((kind = 'lines') = (handles is not null)),
      unique (drawing_id, kind, name)
    );

    alter table projects
      add column naming jsonb check (jsonb_typeof(naming) = 'object'),
      add column reading jsonb check (jsonb_typeof(reading) = 'object');
  `.execute(db);
}
