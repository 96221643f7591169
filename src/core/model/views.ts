import type { Look, ViewRow } from './look';
import { put, remove, type Edit } from './edits';
import type { ProjectState } from './state';

type Views = Pick<ProjectState, 'view'>;

/** The views of a project, by their names. */
export const viewsOf = (state: Views): ViewRow[] =>
  Object.values(state.view).sort((a, b) => a.name.localeCompare(b.name, 'en', { numeric: true }));

/** Keeps a look under a name; one of that name becomes the new one and keeps its key. */
export function keepView(state: Views, called: string, look: Look, newId: () => string): Edit {
  const same = viewsOf(state).find((row) => row.name.toLowerCase() === called.trim().toLowerCase());
  const row: ViewRow = { id: same?.id ?? newId(), name: called.trim(), key: same?.key ?? null, look };
  return { label: `View ${row.name} ${same ? 'kept anew' : 'kept'}`, changes: [put('view', row)] };
}

/** Gives a view a letter; another that had it loses it. */
export function giveKey(state: Views, row: ViewRow, key: string | null): Edit {
  const others = key === null ? [] : viewsOf(state).filter((other) => other.id !== row.id && other.key === key);
  return {
    label: key === null ? `View ${row.name} without a key` : `View ${row.name} on ${key.toUpperCase()}`,
    changes: [...others.map((other) => put('view', { ...other, key: null })), put('view', { ...row, key })],
  };
}

export const forgetView = (row: ViewRow): Edit => ({
  label: `View ${row.name} deleted`,
  changes: [remove('view', row.id)],
});

/** A look without what has gone meanwhile. */
export function lookNow(state: Pick<ProjectState, 'level' | 'drawing' | 'placement'>, look: Look): Look {
  const there = (id: string | null): string | null =>
    id !== null && state.drawing[id] !== undefined && !state.drawing[id].discarded ? id : null;
  const faceOn = there(look.faceOn);
  const drawings = look.drawings?.filter((id) => there(id) !== null) ?? null;
  return {
    ...look,
    levelId: look.levelId !== null && state.level[look.levelId] !== undefined ? look.levelId : null,
    faceOn: faceOn !== null && state.placement[faceOn]?.upright != null ? faceOn : null,
    drawings: drawings?.length === 0 ? null : drawings,
    isolated: look.isolated.filter(({ drawing }) => there(drawing) !== null),
    beside: there(look.beside),
  };
}
