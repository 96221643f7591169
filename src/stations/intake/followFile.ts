'use client';
import { create } from 'zustand';

/** What a browser that can keep hold of a file on the person's disk offers (File System Access API). */
interface FileHandle {
  name: string;
  getFile(): Promise<File>;
}
type PickingWindow = Window & { showOpenFilePicker?: (options: object) => Promise<FileHandle[]> };

/** A file on the person's own disk that a drawing follows. */
interface Followed {
  handle: FileHandle;
  seen: number;
  changed: boolean;
  problem: string | null;
}

interface FollowStore {
  files: Record<string, Followed>;
  /** Asks the person for the file. @returns whether one was chosen */
  follow(drawingId: string): Promise<boolean>;
  stop(drawingId: string): void;
  /** The file as it is now; it counts as seen. */
  take(drawingId: string): Promise<File | null>;
}

/** How often a followed file is looked at, milliseconds. */
const interval = 1500;

export const canFollow = (): boolean =>
  typeof window !== 'undefined' && typeof (window as PickingWindow).showOpenFilePicker === 'function';

/** Files followed while the page is open. */
export const useFollowed = create<FollowStore>()((set, get) => {
  const put = (drawingId: string, part: Partial<Followed>) => {
    const before = get().files[drawingId];
    if (before) set({ files: { ...get().files, [drawingId]: { ...before, ...part } } });
  };
  const watch = async (drawingId: string) => {
    const followed = get().files[drawingId];
    if (!followed) return;
    try {
      const file = await followed.handle.getFile();
      if (file.lastModified !== followed.seen && !followed.changed) put(drawingId, { changed: true, problem: null });
    } catch {
      put(drawingId, {
        problem: `${followed.handle.name} cannot be looked at any more: it was moved or the permission has ended.`,
      });
    }
    if (get().files[drawingId]) setTimeout(() => void watch(drawingId), interval);
  };
  return {
    files: {},
    async follow(drawingId) {
      const [handle] = await (window as PickingWindow).showOpenFilePicker!({
        types: [{ description: 'Drawings', accept: { 'application/dxf': ['.dxf'] } }],
      }).catch(() => []);
      if (!handle) return false;
      const { lastModified } = await handle.getFile();
      set({ files: { ...get().files, [drawingId]: { handle, seen: lastModified, changed: false, problem: null } } });
      setTimeout(() => void watch(drawingId), interval);
      return true;
    },
    stop(drawingId) {
      const { [drawingId]: _, ...rest } = get().files;
      set({ files: rest });
    },
    async take(drawingId) {
      const followed = get().files[drawingId];
      if (!followed) return null;
      const file = await followed.handle.getFile();
      put(drawingId, { seen: file.lastModified, changed: false, problem: null });
      return file;
    },
  };
});
