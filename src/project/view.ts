'use client';
import { create } from 'zustand';
import { persist } from 'zustand/middleware';

export const stationNames = ['intake', 'datum', 'sorting', 'reading', 'handover'] as const;
export type StationName = (typeof stationNames)[number];

/** What one person looks at; kept in the browser, per project, across reloads. */
interface View {
  project: string;
  station: StationName;
  drawingId: string | null;
  levelId: string | null;
  benchFolded: boolean;
  /** Layers shown alone for a moment. */
  camera: { x: number; y: number; metresPerPixel: number } | null;
  set(part: Partial<Omit<View, 'set'>>): void;
}

const fresh = { station: 'intake' as StationName, drawingId: null, levelId: null, benchFolded: false, camera: null };

export const useView = create<View>()(persist((set) => ({ project: '', ...fresh, set: (part) => set(part) }), { name: 'zircon-view', skipHydration: true, partialize: ({ set: _set, ...rest }) => rest }));

/** Opens the view kept for a project, or a fresh one. */
export async function openView(project: string): Promise<void> {
  useView.persist.setOptions({ name: `zircon-view-${project}` });
  useView.setState({ ...fresh, project });
  await useView.persist.rehydrate();
  useView.setState({ project });
}
