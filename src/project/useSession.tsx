'use client';
import { createContext, useCallback, useContext, useMemo, useSyncExternalStore } from 'react';
import { useStore } from 'zustand';
import { largeEdit, type Edit } from '@/core/model/edits';
import type { Model } from '@/core/model/model';
import type { ProjectRow, TableName } from '@/core/model/state';
import type { Result } from '@/core/result';
import type { LengthStyle } from '@/core/units/length';
import { lengthsOf, projectRowOf } from './projectRow';
import type { Other } from './others';
import type { Facts, Session } from './session';
import { turn } from './turn';

const SessionContext = createContext<Session | null>(null);

/** Gives everything below it the opened project. */
export const SessionProvider = SessionContext.Provider;

/** The opened project. */
export function useSession(): Session {
  const session = useContext(SessionContext);
  if (session === null) throw new Error('No project is opened here');
  return session;
}

/** Whether who is here may change the project: a reader's window has no tools. */
export const useMayEdit = (): boolean => useSession().mayEdit;

/** What is known of the opened project beside its rows. */
export function useFacts<T>(select: (facts: Facts) => T): T {
  return useStore(useSession().facts, select);
}

/** A model at one moment: another object whenever one of the tables asked for has changed, for what depends on it. */
export interface Moment {
  model: Model;
}

/** What renders in the next turn, all of it together. */
const waiting = new Set<() => void>();

function inNextTurn(changed: () => void): void {
  if (waiting.size === 0)
    void turn().then(() => {
      const all = [...waiting];
      waiting.clear();
      for (const one of all) one();
    });
  waiting.add(changed);
}

/** The rows of the opened project, for a component that shows some tables: it renders when one of them has changed. */
export function useMoment(...tables: TableName[]): Moment {
  const { model } = useSession();
  const key = tables.join(' ');
  const subscribe = useCallback(
    (changed: () => void) =>
      model.subscribe((diff) => {
        if (!key.split(' ').some((table) => diff.tables.has(table as TableName))) return;
        if (diff.rows.length < largeEdit) changed();
        else inNextTurn(changed);
      }),
    [model, key],
  );
  const versions = useSyncExternalStore(
    subscribe,
    () => versionsOf(model, key),
    () => versionsOf(model, key),
  );
  // eslint-disable-next-line react-hooks/exhaustive-deps -- the moment is another one with other versions
  return useMemo(() => ({ model }), [model, versions]);
}

const versionsOf = (model: Model, key: string): string =>
  key
    .split(' ')
    .map((table) => model.version(table as TableName))
    .join(' ');

/** The rows themselves, where nothing is kept that depends on them. */
export const useModel = (...tables: TableName[]): Model => useMoment(...tables).model;

/** The row of the opened project itself. */
export function useProjectRow(): ProjectRow {
  return projectRowOf(useModel('project'));
}

/** How the project shows lengths. */
export function useLengths(): LengthStyle {
  return lengthsOf(useModel('project'));
}

type Make = (model: Model) => Edit | Result<Edit> | null;

/** An edit that is made of the model; the sentence of one that is refused is told in passing. */
const telling =
  (session: Session, make: Make) =>
  (model: Model): Edit | null => {
    const made = make(model);
    if (made === null || !('ok' in made)) return made;
    if (made.ok) return made.value;
    session.tell({ kind: 'problem', text: made.message });
    return null;
  };

/** Commits an edit. @returns whether it was confirmed */
export const commitMade = (session: Session, make: Make): Promise<boolean> => session.commit(telling(session, make));

/** Commits edits of the opened project. */
export function useCommit(): (make: Make) => Promise<boolean> {
  const session = useSession();
  return useCallback((make) => commitMade(session, make), [session]);
}

/** Applies edits of the opened project, and tells at once whether it did: the server hears of them on its own. */
export function useApply(): (make: Make) => boolean {
  const session = useSession();
  return useCallback((make) => session.apply(telling(session, make)), [session]);
}

/** Who else has the opened project open. */
export const useOthers = (): readonly Other[] => useStore(useSession().others.store);
