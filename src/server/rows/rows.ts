import { emptyState, type ProjectState, type Rows, type TableName } from '@/core/model/state';
import type { Db } from '../database/connection';
import type { TableAccess } from './access';
import { acceptance } from './acceptance';
import { decision } from './decision';
import { drawing } from './drawing';
import { element } from './element';
import { level } from './level';
import { library } from './library';
import { display, recipe } from './perDrawing';
import { pick } from './pick';
import { placement } from './placement';
import { project } from './project';
import { role } from './role';
import { view } from './view';

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
  view,
  acceptance,
};

export const tableAccess = <T extends TableName>(table: T): TableAccess<T> =>
  access[table] as unknown as TableAccess<T>;

/** All rows of one table of a project. */
export const loadTable = <T extends TableName>(db: Db, projectId: string, table: T): Promise<Rows[T][]> =>
  tableAccess(table).load(db, projectId, null);

/** All rows of a project. */
export async function loadState(db: Db, projectId: string): Promise<ProjectState> {
  const state: Record<string, Record<string, unknown>> = {};
  for (const table of Object.keys(emptyState) as TableName[])
    state[table] = Object.fromEntries((await loadTable(db, projectId, table)).map((row) => [row.id, row]));
  return state as unknown as ProjectState;
}
