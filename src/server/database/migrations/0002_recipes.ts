import { sql, type Kysely } from 'kysely';

/** Recipes and displays of drawings, recipes by name, intakes that bring a drawing's next revision. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`
    create table recipes (
      drawing_id uuid primary key references drawings on delete cascade,
      steps jsonb not null check (jsonb_typeof(steps) = 'array')
    );
    create table displays (
      drawing_id uuid primary key references drawings on delete cascade,
      settings jsonb not null check (jsonb_typeof(settings) = 'object')
    );
    create table named_recipes (
      id uuid primary key,
      name text not null unique check (length(name) between 1 and 120),
      steps jsonb not null check (jsonb_typeof(steps) = 'array'),
      updated_at timestamptz not null default now()
    );
    alter table intakes add column revises uuid references drawings on delete cascade;
  `.execute(db);
}
