import { sql, type Kysely } from 'kysely';

/**
 * How a project shows lengths and angles, where the survey has it, its working axes; levels with kind, finish, slab and
 * the level they repeat; placements with scale, mirroring and upright drawings; drawings on several levels.
 */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`
    alter table projects
      add column places smallint check (places between 0 and 6),
      add column angles text not null default 'east' check (angles in ('east', 'north')),
      add column survey jsonb check (jsonb_typeof(survey) = 'object'),
      add column axes jsonb not null default '[]' check (jsonb_typeof(axes) = 'array');

    alter table levels
      add column kind text not null default 'floor' check (kind in ('foundation', 'ground', 'floor', 'roof')),
      add column build_up double precision not null default 0 check (build_up >= 0),
      add column slab double precision not null default 0 check (slab >= 0),
      add column repeats uuid references levels deferrable initially deferred,
      add check (repeats <> id);

    alter table placements
      add column scale double precision not null default 1 check (scale > 0),
      add column mirrored boolean not null default false,
      add column upright double precision;

    -- Further levels that a drawing is shown on, beside the one that its elements belong to.
    create table drawing_levels (
      drawing_id uuid not null references drawings on delete cascade,
      level_id uuid not null references levels deferrable initially deferred,
      primary key (drawing_id, level_id)
    );
  `.execute(db);
}
