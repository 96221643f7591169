'use client';
import { useEffect } from 'react';
import { levelsUp } from '@/core/model/levels';
import { viewsOf } from '@/core/model/views';
import { useBoard } from '@/board/boardStore';
import { useGuide } from '@/project/guide';
import { actAt, acts, pressed, type ActName } from '@/project/keys';
import type { Session } from '@/project/session';
import { useSession } from '@/project/useSession';
import { stationNames, useView } from '@/project/view';
import { findEvent } from '@/ui/shell/FindOrDo';
import { toggleBeside } from './finding/commands';
import { recallView } from './ViewsMenu';

/** Where letters are typed, they are the field's own, and so are undo and redo. */
const typing = (target: EventTarget | null): boolean =>
  target instanceof HTMLInputElement || target instanceof HTMLTextAreaElement;

/** What is open over the desk has keys of its own. */
const ownKeys = '[role=dialog], [role=listbox], [role=menu], [role=combobox], [role=slider]';

type Acts = Partial<Record<ActName, () => void>>;

function actsOf(session: Session): Acts {
  const { set } = useView.getState();
  const stations = stationNames.map((station): [ActName, () => void] => [
    station,
    () => set({ station, benchFolded: false }),
  ]);
  return {
    ...Object.fromEntries(stations),
    space: () => set({ inSpace: !useView.getState().inSpace }),
    beside: toggleBeside,
    measure: () => useBoard.getState().setTool({ kind: 'measure', mode: 'distance' }),
    levelUp: () => stepLevel(session, 1),
    levelDown: () => stepLevel(session, -1),
    find: () => window.dispatchEvent(new Event(findEvent)),
    undo: () => void session.undo(),
    redo: () => void session.redo(),
    guide: () => useGuide.getState().open(useView.getState().station),
    keys: () => useGuide.getState().open('keys'),
    bench: () => set({ benchFolded: !useView.getState().benchFolded }),
  };
}

function stepLevel({ model }: Session, by: number): void {
  const { levelId, set } = useView.getState();
  const levels = levelsUp(model);
  const next = levels[levels.findIndex(({ id }) => id === levelId) + by];
  if (next !== undefined) set({ levelId: next.id, faceOn: null });
}

/** The keys of the program; those of the board count wherever nothing is typed and nothing is open over it. */
export function useActKeys(): void {
  const session = useSession();
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      if (event.defaultPrevented || event.repeat) return;
      const key = pressed(event);
      // A second way to do again what was taken back, which hands know.
      const name = actAt(key) ?? (key === 'ctrl shift z' ? 'redo' : null);
      if (name === null) recall(event, key);
      else if (isMeant(event, name)) run(event, name);
    };
    const run = (event: KeyboardEvent, name: ActName) => {
      const act = actsOf(session)[name];
      if (act === undefined) return;
      event.preventDefault();
      act();
    };
    const recall = (event: KeyboardEvent, key: string) => {
      if (!/^[a-z]$/.test(key) || !onBoard(event.target)) return;
      const row = viewsOf(session.model).find((one) => one.key === key);
      if (row === undefined) return;
      event.preventDefault();
      // Not within React's own work: what is seen has to be there before the camera looks at it.
      queueMicrotask(() => recallView(session.model, row));
    };
    window.addEventListener('keydown', press);
    return () => window.removeEventListener('keydown', press);
  }, [session]);
}

const onBoard = (target: EventTarget | null): boolean =>
  !typing(target) && !(target instanceof Element && target.closest(ownKeys) !== null);

function isMeant({ target }: KeyboardEvent, name: ActName): boolean {
  if (acts[name].where === 'board') return onBoard(target);
  return !((name === 'undo' || name === 'redo') && typing(target));
}
