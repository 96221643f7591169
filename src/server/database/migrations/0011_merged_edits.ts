import { sql, type Kysely } from 'kysely';

/**
 * The log keeps its JSON as it came, which a large edit is written and read much faster as, and says of each edit which
 * rows it touched, so that edits of other rows need not be refused.
 */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`
    alter table edits disable trigger edits_append_only;
    alter table edits
      alter column changes type json using changes::json,
      alter column inverse type json using inverse::json,
      add column touched text[] not null default '{}';
    update edits set touched = array(
      select (change ->> 'table') || ' ' || (change ->> 'id') from json_array_elements(changes) as change
    );
    alter table edits enable trigger edits_append_only;

    -- Fast compression, where this server was built with it.
    do $$ begin
      alter table edits alter column changes set compression lz4, alter column inverse set compression lz4;
    exception when feature_not_supported or invalid_parameter_value then null;
    end $$;
  `.execute(db);
}
