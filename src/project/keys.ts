'use client';
import { create } from 'zustand';
import { persist } from 'zustand/middleware';

/** What a key does on the board, and the key that does it where nobody has chosen another. */
export const boardKeys = {
  nextHold: { key: 'n', words: 'The next thing that the cursor can hold on to' },
  loupe: { key: 'l', words: 'The loupe, while the key is held' },
  pinLoupe: { key: 'k', words: 'Pin the loupe, and let it go' },
  form: { key: 't', words: 'Type a point in another way' },
  bend: { key: 'b', words: 'The next side is an arc' },
  otherReading: { key: 'o', words: 'Another reading of the same lines' },
  again: { key: 'r', words: 'Make the last kind again' },
} as const;
export type BoardKey = keyof typeof boardKeys;

export const boardKeyNames = Object.keys(boardKeys) as BoardKey[];

interface Keys {
  /** Keys that a person has chosen. */
  chosen: Partial<Record<BoardKey, string>>;
  choose(name: BoardKey, key: string): void;
  reset(): void;
}

export const useKeys = create<Keys>()(
  persist(
    (set, get) => ({
      chosen: {},
      choose: (name, key) => set({ chosen: { ...get().chosen, [name]: key.toLowerCase() } }),
      reset: () => set({ chosen: {} }),
    }),
    { name: 'zircon-keys', skipHydration: true, partialize: ({ chosen }) => ({ chosen }) },
  ),
);

/** The key of something. */
export const keyOf = (name: BoardKey): string => useKeys.getState().chosen[name] ?? boardKeys[name].key;

/** What a key does; null where it does nothing. */
export const boardKeyAt = (key: string): BoardKey | null =>
  boardKeyNames.find((name) => keyOf(name) === key.toLowerCase()) ?? null;

/** Keys that the board itself has: they can be given to nothing else. */
const ownKeys = [
  'arrowleft',
  'arrowright',
  'arrowup',
  'arrowdown',
  'home',
  'escape',
  'enter',
  'backspace',
  'delete',
  'tab',
];

/** Why a key cannot be chosen for something; null where it can. */
export function keyRefusal(name: BoardKey, key: string): string | null {
  const wanted = key.toLowerCase();
  if (ownKeys.includes(wanted) || !/^[a-z]$/.test(wanted))
    return 'Choose a letter: other keys have their meaning on the board.';
  const other = boardKeyAt(wanted);
  return other === null || other === name ? null : `That key is taken by \u201c${boardKeys[other].words}\u201d.`;
}
