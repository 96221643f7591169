import { sql, type Kysely } from 'kysely';

/**
 * What a file was made of is a file of its own, so that the plans of one building have one original; beside it the
 * account of what a building held.
 */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`
    alter table file_origins add column original_id uuid, add column report jsonb;
    update file_origins set original_id = gen_random_uuid();
    insert into files (id, sha256, size) select original_id, sha256, size from file_origins;
    insert into file_chunks (file_id, seq, bytes)
      select original_id, seq, bytes from file_origin_chunks join file_origins using (file_id);
    drop table file_origin_chunks;
    alter table file_origins
      alter column original_id set not null,
      add foreign key (original_id) references files (id),
      drop column size,
      drop column sha256;
    create index on file_origins (original_id);
  `.execute(db);
}
