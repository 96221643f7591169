import type { Change } from './edits';
import type { Model } from './model';
import { same } from './same';
import { tableNames, type ProjectState, type Rows, type TableName } from './state';

type Row = Rows[TableName] | null;

/** Changes that a window has applied and nobody has confirmed yet, with the way back. */
export interface Pending {
  changes: Change[];
  inverse: Change[];
}

/** Rows as they come to be, over those of a model that is not touched meanwhile. */
class Overlay {
  private readonly rows = new Map<string, { table: TableName; id: string; row: Row }>();

  constructor(private readonly model: Model) {}

  row({ table, id }: { table: TableName; id: string }): Row {
    const over = this.rows.get(`${table} ${id}`);
    return over ? over.row : (this.model[table][id] ?? null);
  }

  /** @returns the changes that lead back */
  apply(changes: readonly Change[]): Change[] {
    return changes
      .map((change) => {
        const before = this.row(change);
        this.rows.set(`${change.table} ${change.id}`, change);
        return { ...change, row: before } as Change;
      })
      .reverse();
  }

  /** What has to be changed in the model so that it comes to be as this. */
  changes(): Change[] {
    return [...this.rows.values()].filter(
      (change) => !same(this.row(change), this.model[change.table][change.id] ?? null),
    ) as Change[];
  }
}

/** Whether every row that an edit changes is as it was when the edit was made, or as the edit would have it. */
function fits(overlay: Overlay, { changes, inverse }: Pending): boolean {
  const seen = new Map(inverse.map(({ table, id, row }) => [`${table} ${id}`, row]));
  return changes.every((change) => {
    const now = overlay.row(change);
    return same(now, seen.get(`${change.table} ${change.id}`) ?? null) || same(now, change.row);
  });
}

/**
 * Takes over what others did before the edits that this window has applied already: those are taken back, what the
 * others did is done, and they are done again. An edit that changes a row which somebody else has changed meanwhile, or
 * which an edit that was left out had made, contradicts and is left out. The model changes once.
 * @param done what others did, oldest first
 * @param pending the edits of this window, oldest first; the way back of those that stay is renewed
 * @param refused an edit of this window that is to be left out whatever it changes
 * @returns the edits left out, and the way back of each thing done
 */
export function replay<P extends Pending>(
  model: Model,
  done: readonly (readonly Change[])[],
  pending: readonly P[],
  refused: P | null = null,
): { left: P[]; inverses: Change[][] } {
  const overlay = new Overlay(model);
  for (const { inverse } of [...pending].reverse()) overlay.apply(inverse);
  const inverses = done.map((changes) => overlay.apply(changes));
  const left: P[] = [];
  for (const edit of pending) {
    if (edit !== refused && fits(overlay, edit)) edit.inverse = overlay.apply(edit.changes);
    else left.push(edit);
  }
  const changes = overlay.changes();
  if (changes.length > 0) model.apply(changes);
  return { left, inverses };
}

/**
 * The changes that make a model's rows those of a state, also where pending edits hide that they are others.
 * @param pending edits applied to the model that the state does not know of
 */
export function changesTo(model: Model, state: ProjectState, pending: readonly Pending[]): Change[] {
  const hidden = new Set(pending.flatMap(({ changes }) => changes.map(({ table, id }) => `${table} ${id}`)));
  return tableNames.flatMap((table): Change[] => {
    const ids = new Set([...Object.keys(model[table]), ...Object.keys(state[table])]);
    return [...ids]
      .filter((id) => hidden.has(`${table} ${id}`) || !same(model[table][id] ?? null, state[table][id] ?? null))
      .map((id) => ({ table, id, row: state[table][id] ?? null }) as Change);
  });
}
