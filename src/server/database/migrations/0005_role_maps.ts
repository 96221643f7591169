import { sql, type Kysely } from 'kysely';

/** Role maps by name, for the next job from the same office. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`
    create table role_maps (
      id uuid primary key,
      name text not null unique check (length(name) between 1 and 120),
      rules jsonb not null check (jsonb_typeof(rules) = 'array'),
      updated_at timestamptz not null default now()
    );
  `.execute(db);
}
