'use client';
import { wrap, type Remote } from 'comlink';
import { create } from 'zustand';
import { readerVersion } from '@/core/drawing/packDrawing';
import type { Placement } from '@/core/datum/placement';
import type { GridLine } from '@/core/model/elements';
import type { DrawingRow } from '@/core/model/state';
import type { ReadingResult } from '@/core/reading/read';
import type { Role } from '@/core/sorting/roles';
import { openIndex, type PieceIndex } from '@/core/underlay/pieces';
import type { Primitives } from '@/core/underlay/primitives';
import type { SegmentStore } from '@/core/underlay/segments';
import type { UnderlayWorker } from '@/workers/underlay.worker';

/** A drawing opened in this window. */
export interface Underlay { fileId: string; layers: { name: string; hidden: boolean }[]; primitives: Primitives; index: PieceIndex; segments: SegmentStore; insUnits: number | null }

type Entry = { state: 'opening' } | { state: 'open'; underlay: Underlay } | { state: 'failed'; message: string };

interface UnderlayStore {
  entries: Record<string, Entry>;
  open(project: string, drawings: DrawingRow[]): void;
  retry(fileId: string): void;
}

let worker: { thread: Worker; remote: Remote<UnderlayWorker> } | null = null;

function remote(): Remote<UnderlayWorker> {
  if (worker === null) {
    const thread = new Worker(new URL('../workers/underlay.worker.ts', import.meta.url), { type: 'module' });
    worker = { thread, remote: wrap<UnderlayWorker>(thread) };
  }
  return worker.remote;
}

export const useUnderlays = create<UnderlayStore>()((set, get) => {
  const put = (fileId: string, entry: Entry) => set({ entries: { ...get().entries, [fileId]: entry } });
  const openOne = async (project: string, fileId: string) => {
    put(fileId, { state: 'opening' });
    try {
      const data = await remote().open(fileId, `${location.origin}/api/projects/${project}/files/${fileId}/columns?reader=${readerVersion}`);
      put(fileId, { state: 'open', underlay: { fileId, layers: data.layers, primitives: data.primitives, index: openIndex(data.index), segments: data.segments, insUnits: data.header.insUnits } });
    } catch (error) { put(fileId, { state: 'failed', message: (error as Error).message }); }
  };
  return {
    entries: {},
    open(project, drawings) { for (const { fileId } of drawings) if (!get().entries[fileId]) void openOne(project, fileId); },
    retry(fileId) { set({ entries: Object.fromEntries(Object.entries(get().entries).filter(([id]) => id !== fileId)) }); },
  };
});

/** The underlay of a file where it is open. */
export const underlayOf = (entries: Record<string, Entry>, fileId: string | undefined): Underlay | null => {
  const entry = fileId === undefined ? undefined : entries[fileId];
  return entry?.state === 'open' ? entry.underlay : null;
};

/** Reads candidates in the worker. */
export const readInWorker = (fileId: string, placement: Placement, roles: (Role | null)[], accepted: GridLine[]): Promise<ReadingResult> => remote().read(fileId, placement, roles, accepted);
