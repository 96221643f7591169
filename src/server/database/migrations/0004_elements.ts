import { sql, type Kysely } from 'kysely';

/** Elements of all kinds. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`
    alter table elements drop constraint elements_kind_check;
    alter table elements add constraint elements_kind_check
      check (kind in ('grid', 'column', 'beam', 'wall', 'opening', 'slab', 'zone', 'outdoor'));
  `.execute(db);
}
