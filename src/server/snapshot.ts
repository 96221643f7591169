import type { ProjectState } from '@/core/model/state';
import { database } from './database/connection';
import { historyOf, type History } from './edits';
import { views, type IntakeView } from './intakes';
import { loadState } from './rows';

/** All that a window needs to show a project. */
export interface Snapshot {
  state: ProjectState;
  history: History;
  intakes: IntakeView[];
}

/** A project as it is at one moment. */
export async function snapshot(project: string): Promise<Snapshot> {
  const { state, history } = await database()
    .transaction()
    .setIsolationLevel('repeatable read')
    .execute(async (tx) => ({ history: await historyOf(tx, project), state: await loadState(tx, project) }));
  return { state, history, intakes: await views(project) };
}
