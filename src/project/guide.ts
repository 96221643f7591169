'use client';
import { create } from 'zustand';
import type { StationName } from './view';

/** A page of the guide: a station's, or the keys. */
export type GuidePage = StationName | 'keys';

interface GuideStore {
  /** The page that is open; null while the guide is closed. */
  page: GuidePage | null;
  open(page: GuidePage | null): void;
}

export const useGuide = create<GuideStore>()((set) => ({ page: null, open: (page) => set({ page }) }));
