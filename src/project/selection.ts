'use client';
import { create } from 'zustand';

/** A line of an underlay that was clicked. */
export interface SelectedLine {
  drawingId: string;
  path: number;
}

interface SelectionStore {
  line: SelectedLine | null;
  select(line: SelectedLine | null): void;
}

export const useSelection = create<SelectionStore>()((set) => ({ line: null, select: (line) => set({ line }) }));
