import { sql, type RawBuilder } from 'kysely';

/** A table as a backup has it: its rows that belong to some projects, in an order in which they can be put back. */
export interface BackedUpTable {
  name: string;
  /** The condition on a row `t` that it belongs to one of the projects; null for what belongs to none. */
  of: ((projects: readonly string[]) => RawBuilder<unknown>) | null;
  order: string;
}

const anyOf = (projects: readonly string[]) => sql`any(${[...projects]}::uuid[])`;

/** Rows with the project's id. */
const ofProject = (name: string, order: string, column = 'project_id'): BackedUpTable => ({
  name,
  of: (projects) => sql`t.${sql.ref(column)} = ${anyOf(projects)}`,
  order,
});

/** Rows with a drawing's id. */
const ofDrawing = (name: string, order = 'drawing_id'): BackedUpTable => ({
  name,
  of: (projects) => sql`t.drawing_id in (select id from drawings where project_id = ${anyOf(projects)})`,
  order,
});

/** Rows of files that the projects' drawings show, or have shown, and of those that these were made of. */
const ofFile = (name: string, order: string, column = 'file_id'): BackedUpTable => ({
  name,
  of: (projects) => sql`t.${sql.ref(column)} in (
    with shown as (
      select file_id from revisions join drawings on drawings.id = drawing_id where project_id = ${anyOf(projects)}
    )
    select file_id from shown union select original_id from file_origins join shown using (file_id)
  )`,
  order,
});

/** Everything that an installation keeps, but what is under way at the moment. */
export const backedUp: readonly BackedUpTable[] = [
  { name: 'named_recipes', of: null, order: 'id' },
  { name: 'role_maps', of: null, order: 'id' },
  ofProject('projects', 'id', 'id'),
  ofProject('levels', 'id'),
  ofProject('library', 'id'),
  ofFile('files', 'id', 'id'),
  ofFile('file_chunks', 'file_id, seq'),
  ofFile('file_origins', 'file_id'),
  // Until migration 0025.
  ofFile('file_origin_chunks', 'file_id, seq'),
  ofFile('file_reports', 'file_id'),
  ofFile('file_columns', 'file_id, seq'),
  ofProject('drawings', 'id'),
  ofDrawing('revisions', 'drawing_id, number'),
  ofDrawing('placements'),
  ofDrawing('recipes'),
  ofDrawing('displays'),
  ofDrawing('layer_roles', 'drawing_id, layer'),
  ofDrawing('picks', 'id'),
  ofDrawing('drawing_levels', 'drawing_id, level_id'),
  ofProject('elements', 'id'),
  ofProject('views', 'id'),
  ofProject('acceptances', 'id'),
  ofDrawing('decisions', 'drawing_id, key'),
  ofProject('edits', 'project_id, seq'),
  ofProject('edit_marks', 'project_id, seq'),
];
