import { sql, type Kysely } from 'kysely';

/** Looks that have a name: which drawings and layers, which level, from where; a letter recalls one. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`
    create table views (
      id uuid primary key,
      project_id uuid not null references projects on delete cascade,
      name text not null check (length(name) between 1 and 120),
      key text check (key ~ '^[a-z]$'),
      look jsonb not null check (jsonb_typeof(look) = 'object')
    );
    create index views_project on views (project_id);
  `.execute(db);
}
