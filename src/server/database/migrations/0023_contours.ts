import { sql, type Kysely } from 'kysely';

/** The ground about a building is a kind of element. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`
    alter table elements drop constraint elements_kind_check;
    alter table elements add constraint elements_kind_check check (kind in (
      'grid', 'column', 'beam', 'wall', 'opening', 'slab', 'zone', 'outdoor', 'roof', 'support', 'pointLoad', 'lineLoad',
      'areaLoad', 'luminaire', 'calculationArea', 'contour'
    ));
  `.execute(db);
}
