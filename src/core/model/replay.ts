import type { Change } from './edits';
import type { Model } from './model';
import { same } from './same';
import { tableNames, type ProjectState } from './state';

/** Changes that a window has applied and nobody has confirmed yet, with the way back. */
export interface Pending {
  changes: Change[];
  inverse: Change[];
  /** Makes the changes anew from the rows as they are now; null where there is nothing to do any more. */
  again: ((model: Model) => Change[] | null) | null;
}

/** Whether every row that an edit changes is as it was when the edit was made, or as the edit would have it. */
function fits(model: Model, { changes, inverse }: Pending): boolean {
  const seen = new Map(inverse.map(({ table, id, row }) => [`${table} ${id}`, row]));
  return changes.every(({ table, id, row }) => {
    const now = model[table][id] ?? null;
    return same(now, seen.get(`${table} ${id}`) ?? null) || same(now, row);
  });
}

/** Of changes one after another the last of each row, where it changes anything. */
function net(model: Model, changes: readonly Change[]): Change[] {
  const last = new Map(changes.map((change) => [`${change.table} ${change.id}`, change]));
  return [...last.values()].filter(({ table, id, row }) => !same(row, model[table][id] ?? null));
}

/** The way back of each of some changes, were they applied one after another to rows as they are after `before`. */
function waysBack(model: Model, before: readonly Change[], done: readonly (readonly Change[])[]): Change[][] {
  const rows = new Map(before.map((change) => [`${change.table} ${change.id}`, change.row]));
  return done.map((changes) =>
    changes
      .map((change) => {
        const key = `${change.table} ${change.id}`;
        const row = rows.has(key) ? rows.get(key) : (model[change.table][change.id] ?? null);
        rows.set(key, change.row);
        return { ...change, row } as Change;
      })
      .reverse(),
  );
}

/**
 * Takes over what others did before the edits that this window has applied already: those are taken back, what the
 * others did is done, and they are made again from what there is now. An edit that changes a row which somebody else
 * has
 * changed meanwhile, or which an edit that was left out had made, contradicts and is left out.
 * @param done what others did, oldest first
 * @param pending the edits of this window, oldest first; changes and ways back of those that stay are renewed
 * @param refused an edit of this window that is to be left out whatever it changes
 * @returns the edits left out, and the way back of each thing done
 */
export function replay<P extends Pending>(
  model: Model,
  done: readonly (readonly Change[])[],
  pending: readonly P[],
  refused: P | null = null,
): { left: P[]; inverses: Change[][] } {
  const back = [...pending].reverse().flatMap(({ inverse }) => inverse);
  const inverses = waysBack(model, back, done);
  const before = net(model, [...back, ...done.flat()]);
  if (before.length > 0) model.apply(before);
  const left: P[] = [];
  for (const edit of pending) {
    let changes;
    if (edit !== refused && fits(model, edit)) {
      if (edit.again) changes = edit.again(model);
      else changes = edit.changes;
    } else changes = null;

    if (changes === null) {
      left.push(edit);
      continue;
    }
    edit.changes = changes;
    edit.inverse = model.apply(changes);
  }
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
