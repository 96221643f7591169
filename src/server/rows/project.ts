import { Problem } from '../problem';
import { foreign, type TableAccess } from './access';

export const project: TableAccess<'project'> = {
  async load(db, id) {
    const rows = await db
      .selectFrom('projects')
      .select([
        'id',
        'name',
        'display_unit',
        'places',
        'angles',
        'survey',
        'axes',
        'naming',
        'reading',
        'structure',
        'site',
      ])
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
        structure: json(row.structure),
        site: json(row.site),
      })
      .where('id', '=', id)
      .execute();
  },
  async remove() {
    throw new Problem(400, 'A project cannot be taken away by an edit; delete it from the project list.');
  },
};
