'use client';
import { create } from 'zustand';
import { persist } from 'zustand/middleware';

/**
 * What a key does, and the key that does it where nobody has chosen another: on the board a letter, anywhere one with
 * Ctrl or Alt, or F1 to F12. None is empty.
 */
export const acts = {
  nextHold: { where: 'board', key: 'n', words: 'The next thing that the cursor can hold on to' },
  loupe: { where: 'board', key: 'l', words: 'The loupe, while the key is held' },
  pinLoupe: { where: 'board', key: 'k', words: 'Pin the loupe, and let it go' },
  form: { where: 'board', key: 't', words: 'Type a point in another way' },
  bend: { where: 'board', key: 'b', words: 'The next side is an arc' },
  otherReading: { where: 'board', key: 'o', words: 'Another reading of the same lines' },
  again: { where: 'board', key: 'r', words: 'Make the last kind again' },
  space: { where: 'board', key: 'v', words: 'The model in space, and back to the plan' },
  beside: { where: 'board', key: 'p', words: 'A second view beside the board, and away' },
  measure: { where: 'board', key: 'm', words: 'Measure a distance' },
  levelUp: { where: 'board', key: 'u', words: 'The level above' },
  levelDown: { where: 'board', key: 'd', words: 'The level below' },
  find: { where: 'anywhere', key: 'ctrl ;', words: 'Find or do' },
  undo: { where: 'anywhere', key: 'ctrl z', words: 'Undo' },
  redo: { where: 'anywhere', key: 'ctrl y', words: 'Redo' },
  guide: { where: 'anywhere', key: 'f1', words: 'The guide of this station' },
  keys: { where: 'anywhere', key: 'ctrl /', words: 'The keys' },
  bench: { where: 'anywhere', key: 'ctrl .', words: 'Fold the bench, and unfold it' },
  intake: { where: 'anywhere', key: 'alt shift 1', words: 'Intake' },
  datum: { where: 'anywhere', key: 'alt shift 2', words: 'Datum' },
  sorting: { where: 'anywhere', key: 'alt shift 3', words: 'Sorting' },
  reading: { where: 'anywhere', key: 'alt shift 4', words: 'Reading' },
  tracing: { where: 'anywhere', key: 'alt shift 5', words: 'Tracing' },
  proof: { where: 'anywhere', key: 'alt shift 6', words: 'Proof' },
  handover: { where: 'anywhere', key: 'alt shift 7', words: 'Handover' },
} as const;
export type ActName = keyof typeof acts;

export const actNames = Object.keys(acts) as ActName[];

interface Keys {
  /** Keys that a person has chosen. */
  chosen: Partial<Record<ActName, string>>;
  choose(name: ActName, key: string): void;
  reset(): void;
}

export const useKeys = create<Keys>()(
  persist(
    (set, get) => ({
      chosen: {},
      choose: (name, key) => set({ chosen: { ...get().chosen, [name]: key } }),
      reset: () => set({ chosen: {} }),
    }),
    { name: 'zircon-keys', skipHydration: true, partialize: ({ chosen }) => ({ chosen }) },
  ),
);

/** The key of something. */
export const keyOf = (name: ActName): string => useKeys.getState().chosen[name] ?? acts[name].key;

/** What a key does; null where it does nothing. */
export const actAt = (key: string): ActName | null => actNames.find((name) => keyOf(name) === key) ?? null;

type Pressed = Pick<KeyboardEvent, 'key' | 'code' | 'ctrlKey' | 'metaKey' | 'altKey' | 'shiftKey'>;

/** What was pressed, as `ctrl shift z`; with Shift a digit stays the digit. */
export function pressed({ key, code, ctrlKey, metaKey, altKey, shiftKey }: Pressed): string {
  const digit = /^Digit(\d)$/.exec(code)?.[1];
  const plain = (digit !== undefined && shiftKey ? digit : key).toLowerCase();
  const held = [ctrlKey || metaKey ? 'ctrl' : '', altKey ? 'alt' : '', shiftKey ? 'shift' : ''];
  // A sign that is typed with Shift is the sign.
  const shifted = /^[a-z0-9]$|^.{2,}$/.test(plain) ? held : held.slice(0, 2);
  return [...shifted, plain].filter(Boolean).join(' ');
}

/** A key as it is shown: Ctrl Z, Alt Shift 1, V. */
export const shownKey = (key: string): string =>
  key
    .split(' ')
    .map((part) => part.charAt(0).toUpperCase() + part.slice(1))
    .join(' ');

/** What browsers keep for themselves. */
const browsers = new Set(['ctrl w', 'ctrl t', 'ctrl n', 'ctrl shift n', 'ctrl shift t', 'ctrl r', 'f5', 'f11', 'f12']);

/** Letters that benches have: of lists, and of deciding at Reading. */
const benches: Record<string, string> = {
  j: 'the next of a list',
  a: 'accepting at Reading',
};

const isLetter = (key: string): boolean => /^[a-z]$/.test(key);
const isAnywhere = (key: string): boolean => /^(?:ctrl|alt) (?:alt )?(?:shift )?[^\s]+$|^f\d{1,2}$/.test(key);

/** Why a key cannot be chosen for something; null where it can. */
export function keyRefusal(name: ActName, key: string): string | null {
  const { where } = acts[name];
  if (where === 'board' && !isLetter(key)) return 'Choose a letter: other keys have their meaning on the board.';
  if (where === 'anywhere' && !isAnywhere(key)) return 'Choose a key with Ctrl or Alt, or F1 to F12.';
  if (benches[key] !== undefined) return `${key.toUpperCase()} is the key of ${benches[key]}. Choose another.`;
  if (browsers.has(key)) return `${shownKey(key)} is the browser\u2019s own. Choose another key.`;
  const other = actAt(key);
  return other === null || other === name ? null : `That key is taken by \u201c${acts[other].words}\u201d.`;
}

/** Why a letter cannot recall a view; null where it can. */
export function viewKeyRefusal(key: string): string | null {
  if (!isLetter(key)) return 'The key of a view is a letter.';
  if (benches[key] !== undefined) return `${key.toUpperCase()} is the key of ${benches[key]}. Choose another.`;
  const other = actAt(key);
  return other === null ? null : `${key.toUpperCase()} is the key of \u201c${acts[other].words}\u201d. Choose another.`;
}
