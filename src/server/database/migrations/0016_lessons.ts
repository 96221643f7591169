import { sql, type Kysely } from 'kysely';

/**
 * Roles of everything that is like one thing that was put right, and answers to what a drawing does not decide. Role
 * maps keep both, and say as well which of two written numbers of a size is the width.
 */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`
    alter table picks drop constraint picks_kind_check;
    alter table picks
      add constraint picks_kind_check check (kind in ('block', 'lines', 'alike', 'answer')),
      add column lesson jsonb check (jsonb_typeof(lesson) = 'object'),
      add check ((kind in ('alike', 'answer')) = (lesson is not null)),
      alter column role drop not null,
      add check ((kind = 'answer') = (role is null));
    alter table role_maps
      add column lessons jsonb not null default '[]' check (jsonb_typeof(lessons) = 'array'),
      add column answers jsonb not null default '[]' check (jsonb_typeof(answers) = 'array'),
      add column first_number text check (first_number in ('width', 'depth'));
  `.execute(db);
}
