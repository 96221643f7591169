import { sql, type Kysely } from 'kysely';

/**
 * Roles of everything that is like one thing that was put right, which role maps keep; they say as well which of two
 * written numbers of a size is the width.
 */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`
    alter table picks drop constraint picks_kind_check;
    alter table picks
      add constraint picks_kind_check check (kind in ('block', 'lines', 'alike')),
      add column likeness jsonb check (jsonb_typeof(likeness) = 'object'),
      add check ((kind = 'alike') = (likeness is not null));
    alter table role_maps
      add column lessons jsonb not null default '[]' check (jsonb_typeof(lessons) = 'array'),
      add column first_number text check (first_number in ('width', 'depth'));
  `.execute(db);
}
