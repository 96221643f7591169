import { sql, type Kysely } from 'kysely';

/** Photometric files are entries of the library too. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`
    alter table library drop constraint library_kind_check;
    alter table library add check (kind in ('section', 'wall', 'slab', 'glazing', 'photometry'));
  `.execute(db);
}
