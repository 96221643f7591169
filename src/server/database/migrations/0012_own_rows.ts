import { sql, type Kysely } from 'kysely';

/**
 * What a row names by id has to be of its own project: levels, drawings, library entries and elements are named
 * together with the project. An opening has to be in a wall that exists; openings without one from before stay until
 * they are changed.
 */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`
    alter table levels add unique (project_id, id);
    alter table drawings add unique (project_id, id);
    alter table library add unique (project_id, id);
    -- Nothing looks for an element without its project; one index serves for both.
    alter table decisions drop constraint decisions_element_id_fkey;
    drop index elements_project_id_idx;
    alter table elements drop constraint elements_pkey, add primary key (project_id, id);

    alter table decisions add column project_id uuid;
    alter table layer_roles add column project_id uuid;
    alter table picks add column project_id uuid;
    alter table drawing_levels add column project_id uuid;
    update decisions t set project_id = d.project_id from drawings d where d.id = t.drawing_id;
    update layer_roles t set project_id = d.project_id from drawings d where d.id = t.drawing_id;
    update picks t set project_id = d.project_id from drawings d where d.id = t.drawing_id;
    update drawing_levels t set project_id = d.project_id from drawings d where d.id = t.drawing_id;

    -- Where something of another project was named, nothing is.
    update levels t set repeats = null where repeats is not null
      and not exists (select from levels o where o.id = t.repeats and o.project_id = t.project_id);
    update drawings t set level_id = null where level_id is not null
      and not exists (select from levels o where o.id = t.level_id and o.project_id = t.project_id);
    delete from drawing_levels t
      where not exists (select from levels o where o.id = t.level_id and o.project_id = t.project_id);
    update elements t set level_id = null where level_id is not null
      and not exists (select from levels o where o.id = t.level_id and o.project_id = t.project_id);
    update elements t set source_drawing = null, source_handles = null where source_drawing is not null
      and not exists (select from drawings o where o.id = t.source_drawing and o.project_id = t.project_id);
    update elements t set library_id = null where library_id is not null
      and not exists (select from library o where o.id = t.library_id and o.project_id = t.project_id);
    update layer_roles t set library_id = null where library_id is not null
      and not exists (select from library o where o.id = t.library_id and o.project_id = t.project_id);
    update decisions t set element_id = null where element_id is not null
      and not exists (select from elements o where o.id = t.element_id and o.project_id = t.project_id);
  `.execute(db);
  // Checks that wait for the end of a transaction have to have run before a table is changed.
  await sql`set constraints all immediate`.execute(db);
  await sql`
    alter table decisions alter column project_id set not null;
    alter table layer_roles alter column project_id set not null;
    alter table picks alter column project_id set not null;
    alter table drawing_levels alter column project_id set not null;

    alter table levels drop constraint levels_repeats_fkey,
      add foreign key (project_id, repeats) references levels (project_id, id) deferrable initially deferred;
    alter table drawings drop constraint drawings_level_id_fkey,
      add foreign key (project_id, level_id) references levels (project_id, id) deferrable initially deferred;
    alter table drawing_levels
      drop constraint drawing_levels_drawing_id_fkey, drop constraint drawing_levels_level_id_fkey,
      add foreign key (project_id, drawing_id) references drawings (project_id, id) on delete cascade,
      add foreign key (project_id, level_id) references levels (project_id, id) deferrable initially deferred;
    alter table elements
      drop constraint elements_level_id_fkey, drop constraint elements_source_drawing_fkey,
      drop constraint elements_library_id_fkey,
      add foreign key (project_id, level_id) references levels (project_id, id) deferrable initially deferred,
      add foreign key (project_id, source_drawing) references drawings (project_id, id) deferrable initially deferred,
      add foreign key (project_id, library_id) references library (project_id, id) deferrable initially deferred;
    alter table decisions
      drop constraint decisions_drawing_id_fkey,
      add foreign key (project_id, drawing_id) references drawings (project_id, id) on delete cascade,
      add foreign key (project_id, element_id) references elements (project_id, id) deferrable initially deferred;
    alter table layer_roles
      drop constraint layer_roles_drawing_id_fkey, drop constraint layer_roles_library_id_fkey,
      add foreign key (project_id, drawing_id) references drawings (project_id, id) on delete cascade,
      add foreign key (project_id, library_id) references library (project_id, id) deferrable initially deferred;
    alter table picks
      drop constraint picks_drawing_id_fkey,
      add foreign key (project_id, drawing_id) references drawings (project_id, id) on delete cascade;

    alter table elements add column wall_id uuid
      generated always as (case when kind = 'opening' then (shape ->> 'wall')::uuid end) stored;
    create index on elements (project_id, wall_id) where wall_id is not null;
    drop index elements_library_id_idx;
    create index on elements (project_id, library_id);
    drop index decisions_element_id_idx;
    create index on decisions (project_id, element_id);
    alter table elements add constraint elements_wall_fkey
      foreign key (project_id, wall_id) references elements (project_id, id) deferrable initially deferred not valid;
  `.execute(db);
}
