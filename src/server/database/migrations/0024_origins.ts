import { sql, type Kysely } from 'kysely';

/** What a file was before the office's converter made a DXF of it: its name, its bytes, what the converter said. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`
    create table file_origins (
      file_id uuid primary key references files (id) on delete cascade,
      name text not null,
      size bigint not null,
      sha256 text not null,
      log text not null
    );
    create table file_origin_chunks (
      file_id uuid not null references file_origins (file_id) on delete cascade,
      seq integer not null,
      bytes bytea not null,
      primary key (file_id, seq)
    );
  `.execute(db);
}
