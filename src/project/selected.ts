'use client';
import { create } from 'zustand';

interface SelectedStore {
  /** Elements that are selected, by their ids. */
  ids: ReadonlySet<string>;
  select(ids: Iterable<string>): void;
}

const none: ReadonlySet<string> = new Set();

/** The elements that this person has selected. */
export const useSelected = create<SelectedStore>()((set) => ({
  ids: none,
  select(ids) {
    const next = new Set(ids);
    set({ ids: next.size === 0 ? none : next });
  },
}));
