import type { ElementRow } from '@/core/kinds/element';
import { sql, type Kysely, type Selectable, type Transaction } from 'kysely';
import {
  emptyState,
  type LevelRow,
  type ProjectState,
  type Rows as StateRows,
  type TableName,
} from '@/core/model/state';
import type { Db } from './database/connection';
import type { Database } from './database/schema';
import { Problem } from './problem';

type Tx = Transaction<Database> | Kysely<Database>;

/** How the rows of one table of a project's state lie in the database. `ids` null means all. */
interface TableAccess<T extends TableName> {
  load(db: Db, project: string, ids: string[] | null): Promise<StateRows[T][]>;
  put(tx: Tx, project: string, rows: StateRows[T][]): Promise<void>;
  remove(tx: Tx, project: string, ids: string[]): Promise<void>;
}

const split = (id: string): [string, string] => [id.slice(0, 36), id.slice(37)];

const project: TableAccess<'project'> = {
  async load(db, id) {
    const rows = await db
      .selectFrom('projects')
      .select(['id', 'name', 'display_unit', 'places', 'angles', 'survey', 'axes', 'naming', 'reading'])
      .where('id', '=', id)
      .execute();
    return rows.map(({ display_unit: displayUnit, ...row }) => ({ ...row, displayUnit }));
  },
  async put(tx, id, [row]) {
    if (row.id !== id) throw foreign();
    const json = (value: unknown) => (value === null ? null : JSON.stringify(value));
    await tx
      .updateTable('projects')
      .set({
        name: row.name,
        display_unit: row.displayUnit,
        places: row.places,
        angles: row.angles,
        survey: json(row.survey),
        axes: JSON.stringify(row.axes),
        naming: json(row.naming),
        reading: json(row.reading),
      })
      .where('id', '=', id)
      .execute();
  },
  async remove() {
    throw new Problem(400, 'A project cannot be taken away by an edit; delete it from the project list.');
  },
};

/** A level as the table has it. */
export const levelValues = ({ buildUp, ...row }: LevelRow, projectId: string) => ({
  ...row,
  build_up: buildUp,
  project_id: projectId,
});

const level: TableAccess<'level'> = {
  async load(db, projectId, ids) {
    const rows = await db
      .selectFrom('levels')
      .selectAll()
      .where('project_id', '=', projectId)
      .$if(ids !== null, (q) => q.where('id', 'in', ids!))
      .execute();
    return rows.map(({ project_id: _, build_up: buildUp, ...row }) => ({ ...row, buildUp }));
  },
  async put(tx, projectId, rows) {
    await expectLevels(
      tx,
      projectId,
      rows.flatMap(({ repeats }) => (repeats === null || rows.some(({ id }) => id === repeats) ? [] : [repeats])),
    );
    const done = await tx
      .insertInto('levels')
      .values(rows.map((row) => levelValues(row, projectId)))
      .onConflict((c) =>
        c
          .column('id')
          .doUpdateSet((eb) => ({
            name: eb.ref('excluded.name'),
            elevation: eb.ref('excluded.elevation'),
            height: eb.ref('excluded.height'),
            kind: eb.ref('excluded.kind'),
            build_up: eb.ref('excluded.build_up'),
            slab: eb.ref('excluded.slab'),
            repeats: eb.ref('excluded.repeats'),
          }))
          .where('levels.project_id', '=', projectId),
      )
      .returning('id')
      .execute();
    expectAll(done, rows);
  },
  async remove(tx, projectId, ids) {
    await tx.deleteFrom('levels').where('project_id', '=', projectId).where('id', 'in', ids).execute();
  },
};

/** What rows name by id has to be of the project. */
async function expectOwn(
  tx: Tx,
  table: 'levels' | 'library',
  projectId: string,
  ids: (string | null | undefined)[],
): Promise<void> {
  const wanted = [...new Set(ids.filter((id): id is string => typeof id === 'string'))];
  if (wanted.length === 0) return;
  expectAll(
    await tx.selectFrom(table).select('id').where('project_id', '=', projectId).where('id', 'in', wanted).execute(),
    wanted,
  );
}

const expectLevels = (tx: Tx, projectId: string, ids: (string | null)[]) => expectOwn(tx, 'levels', projectId, ids);

const library: TableAccess<'library'> = {
  async load(db, projectId, ids) {
    const rows = await db
      .selectFrom('library')
      .selectAll()
      .where('project_id', '=', projectId)
      .$if(ids !== null, (q) => q.where('id', 'in', ids!))
      .execute();
    return rows.map(({ id, kind, name, made }) => ({ ...made, id, kind, name }) as StateRows['library']);
  },
  async put(tx, projectId, rows) {
    const done = await tx
      .insertInto('library')
      .values(
        rows.map(({ id, kind, name, ...made }) => ({
          id,
          project_id: projectId,
          kind,
          name,
          made: JSON.stringify(made),
        })),
      )
      .onConflict((c) =>
        c
          .column('id')
          .doUpdateSet((eb) => ({
            kind: eb.ref('excluded.kind'),
            name: eb.ref('excluded.name'),
            made: eb.ref('excluded.made'),
          }))
          .where('library.project_id', '=', projectId),
      )
      .returning('id')
      .execute();
    expectAll(done, rows);
  },
  async remove(tx, projectId, ids) {
    await tx.deleteFrom('library').where('project_id', '=', projectId).where('id', 'in', ids).execute();
  },
};

const drawing: TableAccess<'drawing'> = {
  async load(db, projectId, ids) {
    const rows = await db
      .selectFrom('drawings')
      .innerJoin('revisions', (j) =>
        j.onRef('revisions.drawing_id', '=', 'drawings.id').onRef('revisions.number', '=', 'drawings.revision'),
      )
      .select(['drawings.id', 'name', 'revision', 'level_id', 'discarded', 'set_aside', 'file_id', 'file_name'])
      .select(
        sql<
          string[]
        >`array(select l.level_id from drawing_levels l where l.drawing_id = drawings.id order by l.level_id)`.as(
          'also_on',
        ),
      )
      .where('project_id', '=', projectId)
      .$if(ids !== null, (q) => q.where('drawings.id', 'in', ids!))
      .execute();
    return rows.map((row) => ({
      id: row.id,
      name: row.name,
      fileId: row.file_id,
      fileName: row.file_name,
      revision: row.revision,
      levelId: row.level_id,
      alsoOn: row.also_on,
      discarded: row.discarded,
      setAside: row.set_aside,
    }));
  },
  async put(tx, projectId, rows) {
    await expectLevels(
      tx,
      projectId,
      rows.flatMap((row) => [row.levelId, ...row.alsoOn]),
    );
    for (const row of rows) {
      const done = await tx
        .insertInto('drawings')
        .values({
          id: row.id,
          project_id: projectId,
          name: row.name,
          revision: row.revision,
          level_id: row.levelId,
          discarded: row.discarded,
          set_aside: row.setAside,
        })
        .onConflict((c) =>
          c
            .column('id')
            .doUpdateSet({
              name: row.name,
              revision: row.revision,
              level_id: row.levelId,
              discarded: row.discarded,
              set_aside: row.setAside,
            })
            .where('drawings.project_id', '=', projectId),
        )
        .returning('id')
        .execute();
      expectAll(done, [row]);
      await tx.deleteFrom('drawing_levels').where('drawing_id', '=', row.id).execute();
      const alsoOn = [...new Set(row.alsoOn)];
      if (alsoOn.length > 0)
        await tx
          .insertInto('drawing_levels')
          .values(alsoOn.map((levelId) => ({ drawing_id: row.id, level_id: levelId })))
          .execute();
      // Which file a revision shows is said once, when it comes in.
      await tx
        .insertInto('revisions')
        .values({ drawing_id: row.id, number: row.revision, file_id: row.fileId, file_name: row.fileName })
        .onConflict((c) => c.columns(['drawing_id', 'number']).doNothing())
        .execute();
    }
  },
  // Its file and its revisions stay, so that what took it away can be taken back.
  async remove(tx, projectId, ids) {
    await tx
      .updateTable('drawings')
      .set({ discarded: true })
      .where('project_id', '=', projectId)
      .where('id', 'in', ids)
      .execute();
    await tx.deleteFrom('drawing_levels').where('drawing_id', 'in', ids).execute();
  },
};

/** Rows that hang on a drawing: the drawing has to be of the project. */
async function expectDrawings(tx: Tx, projectId: string, ids: string[]): Promise<void> {
  const wanted = [...new Set(ids)];
  if (wanted.length === 0) return;
  const found = await tx
    .selectFrom('drawings')
    .select('id')
    .where('project_id', '=', projectId)
    .where('id', 'in', wanted)
    .execute();
  expectAll(found, wanted);
}

const placement: TableAccess<'placement'> = {
  async load(db, projectId, ids) {
    const rows = await db
      .selectFrom('placements')
      .innerJoin('drawings', 'drawings.id', 'placements.drawing_id')
      .selectAll('placements')
      .where('project_id', '=', projectId)
      .$if(ids !== null, (q) => q.where('drawing_id', 'in', ids!))
      .execute();
    return rows.map((row) => ({
      id: row.drawing_id,
      unit: row.unit,
      scale: row.scale,
      confirmed: row.confirmed,
      origin: [row.origin_x, row.origin_y],
      target: [row.target_x, row.target_y],
      turning: row.turning,
      mirrored: row.mirrored,
      upright: row.upright,
    }));
  },
  async put(tx, projectId, rows) {
    await expectDrawings(
      tx,
      projectId,
      rows.map((row) => row.id),
    );
    for (const row of rows) {
      const values = {
        unit: row.unit,
        scale: row.scale,
        confirmed: row.confirmed,
        origin_x: row.origin[0],
        origin_y: row.origin[1],
        target_x: row.target[0],
        target_y: row.target[1],
        turning: row.turning,
        mirrored: row.mirrored,
        upright: row.upright,
      };
      await tx
        .insertInto('placements')
        .values({ drawing_id: row.id, ...values })
        .onConflict((c) => c.column('drawing_id').doUpdateSet(values))
        .execute();
    }
  },
  async remove(tx, projectId, ids) {
    await expectDrawings(tx, projectId, ids);
    await tx.deleteFrom('placements').where('drawing_id', 'in', ids).execute();
  },
};

/** Where a table keeps one JSON value a drawing. */
function perDrawing<T extends 'recipe' | 'display'>(
  table: 'recipes' | 'displays',
  column: 'steps' | 'settings',
  toRow: (id: string, value: unknown) => StateRows[T],
  toValue: (row: StateRows[T]) => unknown,
): TableAccess<T> {
  const [name, kept] = [sql.table(table), sql.ref(column)];
  return {
    async load(db, projectId, ids) {
      const { rows } = await sql<{
        drawing_id: string;
        value: unknown;
      }>`select drawing_id, ${kept} as value from ${name} join drawings on drawings.id = drawing_id where project_id = ${projectId} and (${ids}::uuid[] is null or drawing_id = any(${ids}::uuid[]))`.execute(
        db,
      );
      return rows.map((row) => toRow(row.drawing_id, row.value));
    },
    async put(tx, projectId, rows) {
      await expectDrawings(
        tx,
        projectId,
        rows.map((row) => row.id),
      );
      for (const row of rows)
        await sql`insert into ${name} (drawing_id, ${kept}) values (${row.id}, ${JSON.stringify(toValue(row))}::jsonb) on conflict (drawing_id) do update set ${kept} = excluded.${kept}`.execute(
          tx,
        );
    },
    async remove(tx, projectId, ids) {
      await expectDrawings(tx, projectId, ids);
      await sql`delete from ${name} where drawing_id = any(${ids}::uuid[])`.execute(tx);
    },
  };
}

const recipe = perDrawing<'recipe'>(
  'recipes',
  'steps',
  (id, steps) => ({ id, steps }) as StateRows['recipe'],
  ({ steps }) => steps,
);
const display = perDrawing<'display'>(
  'displays',
  'settings',
  (id, settings) => ({ ...(settings as Omit<StateRows['display'], 'id'>), id }),
  ({ id: _, ...settings }) => settings,
);

const role: TableAccess<'role'> = {
  async load(db, projectId, ids) {
    const rows = await db
      .selectFrom('layer_roles')
      .innerJoin('drawings', 'drawings.id', 'layer_roles.drawing_id')
      .selectAll('layer_roles')
      .where('project_id', '=', projectId)
      .$if(ids !== null, (q) => q.where(pairIn('layer_roles.drawing_id', 'layer', ids!)))
      .execute();
    return rows.map((row) => ({
      id: `${row.drawing_id}/${row.layer}`,
      drawingId: row.drawing_id,
      layer: row.layer,
      role: row.role,
      suggested: row.suggested,
      shown: row.shown,
      libraryId: row.library_id,
    }));
  },
  async put(tx, projectId, rows) {
    await expectDrawings(
      tx,
      projectId,
      rows.map((row) => row.drawingId),
    );
    await expectOwn(
      tx,
      'library',
      projectId,
      rows.map((row) => row.libraryId),
    );
    await tx
      .insertInto('layer_roles')
      .values(
        rows.map((row) => ({
          drawing_id: row.drawingId,
          layer: row.layer,
          role: row.role,
          suggested: row.suggested,
          shown: row.shown,
          library_id: row.libraryId,
        })),
      )
      .onConflict((c) =>
        c.columns(['drawing_id', 'layer']).doUpdateSet((eb) => ({
          role: eb.ref('excluded.role'),
          suggested: eb.ref('excluded.suggested'),
          shown: eb.ref('excluded.shown'),
          library_id: eb.ref('excluded.library_id'),
        })),
      )
      .execute();
  },
  async remove(tx, projectId, ids) {
    await expectDrawings(
      tx,
      projectId,
      ids.map((id) => split(id)[0]),
    );
    await tx
      .deleteFrom('layer_roles')
      .where(pairIn('drawing_id', 'layer', ids))
      .execute();
  },
};

const pick: TableAccess<'pick'> = {
  async load(db, projectId, ids) {
    const rows = await db
      .selectFrom('picks')
      .innerJoin('drawings', 'drawings.id', 'picks.drawing_id')
      .selectAll('picks')
      .where('project_id', '=', projectId)
      .$if(ids !== null, (q) => q.where('picks.id', 'in', ids!))
      .execute();
    return rows.map(({ id, drawing_id: drawingId, kind, name, role: of, handles }) =>
      kind === 'block'
        ? { id, drawingId, kind, name, role: of }
        : { id, drawingId, kind, name, role: of, handles: handles ?? [] },
    );
  },
  async put(tx, projectId, rows) {
    await expectDrawings(
      tx,
      projectId,
      rows.map((row) => row.drawingId),
    );
    const ids = rows.map(({ id }) => id);
    // One that is there already has to be of this project too.
    await expectDrawings(
      tx,
      projectId,
      (await tx.selectFrom('picks').select('drawing_id').where('id', 'in', ids).execute()).map((row) => row.drawing_id),
    );
    await tx
      .insertInto('picks')
      .values(
        rows.map((row) => ({
          id: row.id,
          drawing_id: row.drawingId,
          kind: row.kind,
          name: row.name,
          role: row.role,
          handles: row.kind === 'lines' ? row.handles : null,
        })),
      )
      .onConflict((c) =>
        c.column('id').doUpdateSet((eb) => ({
          drawing_id: eb.ref('excluded.drawing_id'),
          kind: eb.ref('excluded.kind'),
          name: eb.ref('excluded.name'),
          role: eb.ref('excluded.role'),
          handles: eb.ref('excluded.handles'),
        })),
      )
      .execute();
  },
  async remove(tx, projectId, ids) {
    await tx
      .deleteFrom('picks')
      .where('id', 'in', ids)
      .where('drawing_id', 'in', (eb) => eb.selectFrom('drawings').select('id').where('project_id', '=', projectId))
      .execute();
  },
};

const decision: TableAccess<'decision'> = {
  async load(db, projectId, ids) {
    const rows = await db
      .selectFrom('decisions')
      .innerJoin('drawings', 'drawings.id', 'decisions.drawing_id')
      .selectAll('decisions')
      .where('project_id', '=', projectId)
      .$if(ids !== null, (q) => q.where(pairIn('decisions.drawing_id', 'key', ids!)))
      .execute();
    return rows.map((row) => ({
      id: `${row.drawing_id}/${row.key}`,
      drawingId: row.drawing_id,
      key: row.key,
      verdict: row.verdict,
      elementId: row.element_id,
      seen: row.seen,
    }));
  },
  async put(tx, projectId, rows) {
    await expectDrawings(
      tx,
      projectId,
      rows.map((row) => row.drawingId),
    );
    const columns = rows.map((row) => ({
      drawing_id: row.drawingId,
      key: row.key,
      verdict: row.verdict,
      element_id: row.elementId,
      seen: row.seen,
    }));
    await sql`
      insert into decisions (drawing_id, key, verdict, element_id, seen)
      select drawing_id, key, verdict, element_id, nullif(seen, 'null'::jsonb)
      from jsonb_to_recordset(${JSON.stringify(columns)}::jsonb) as row (
        drawing_id uuid, key text, verdict text, element_id uuid, seen jsonb
      )
      on conflict (drawing_id, key) do update set
        verdict = excluded.verdict, element_id = excluded.element_id, seen = excluded.seen
    `.execute(tx);
  },
  async remove(tx, projectId, ids) {
    await expectDrawings(
      tx,
      projectId,
      ids.map((id) => split(id)[0]),
    );
    await tx
      .deleteFrom('decisions')
      .where(pairIn('drawing_id', 'key', ids))
      .execute();
  },
};

/** Columns of an element as one JSON document a row: thousands of rows are one parameter, not tens of thousands. */
const elementColumns = (row: StateRows['element']) => ({
  id: row.id,
  level_id: row.levelId,
  kind: row.kind,
  shape: row.shape,
  source_drawing: row.source?.drawing ?? null,
  source_handles: row.source?.handles ?? null,
  library_id: row.libraryId ?? null,
});

const element: TableAccess<'element'> = {
  async load(db, projectId, ids) {
    const rows = await db
      .selectFrom('elements')
      .selectAll()
      .where('project_id', '=', projectId)
      .$if(ids !== null, (q) => q.where(sql<boolean>`id = any(${ids}::uuid[])`))
      .orderBy('id')
      .execute();
    return rows.map(elementOf);
  },
  async put(tx, projectId, rows) {
    await expectOwn(
      tx,
      'library',
      projectId,
      rows.map((row) => row.libraryId),
    );
    const { rows: done } = await sql<{ id: string }>`
      insert into elements (id, project_id, level_id, kind, shape, source_drawing, source_handles, library_id)
      select id, ${projectId}, level_id, kind, shape, source_drawing, source_handles, library_id
      from jsonb_to_recordset(${JSON.stringify(rows.map(elementColumns))}::jsonb) as row (
        id uuid, level_id uuid, kind text, shape jsonb, source_drawing uuid, source_handles text[], library_id uuid
      )
      on conflict (id) do update set
        level_id = excluded.level_id, kind = excluded.kind, shape = excluded.shape,
        source_drawing = excluded.source_drawing, source_handles = excluded.source_handles,
        library_id = excluded.library_id
      where elements.project_id = ${projectId}
      returning id
    `.execute(tx);
    expectAll(done, rows);
  },
  async remove(tx, projectId, ids) {
    await sql`delete from elements where project_id = ${projectId} and id = any(${ids}::uuid[])`.execute(tx);
  },
};

export function elementOf(row: Selectable<Database['elements']>): ElementRow {
  return {
    id: row.id,
    levelId: row.level_id,
    source: row.source_drawing ? { drawing: row.source_drawing, handles: row.source_handles ?? [] } : null,
    libraryId: row.library_id,
    kind: row.kind,
    shape: row.shape,
  } as ElementRow;
}

/** `(a, b) in (...)` for ids of the form drawing/rest. */
function pairIn(first: string, second: string, ids: string[]) {
  const pairs = ids.map(split);
  return sql<boolean>`(${sql.ref(first)}, ${sql.ref(second)}) in (select * from unnest(${pairs.map((p) => p[0])}::uuid[], ${pairs.map((p) => p[1])}::text[]))`;
}

const foreign = () =>
  new Problem(400, 'The edit names something that belongs to another project. Reload the page and repeat the step.');

function expectAll(found: readonly unknown[], wanted: readonly unknown[]): void {
  if (found.length !== wanted.length) throw foreign();
}

const access: { [T in TableName]: TableAccess<T> } = {
  project,
  level,
  library,
  drawing,
  placement,
  recipe,
  display,
  role,
  pick,
  decision,
  element,
};

export const tableAccess = <T extends TableName>(table: T): TableAccess<T> =>
  access[table] as unknown as TableAccess<T>;

/** All rows of a project. */
export async function loadState(db: Db, projectId: string): Promise<ProjectState> {
  const state: Record<string, Record<string, unknown>> = {};
  for (const table of Object.keys(emptyState) as TableName[]) {
    state[table] = Object.fromEntries((await tableAccess(table).load(db, projectId, null)).map((row) => [row.id, row]));
  }
  return state as unknown as ProjectState;
}
