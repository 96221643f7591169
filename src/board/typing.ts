import type { Point } from '@/core/geometry/vector';
import type { TypedField } from './tools/trace/typedPoint';

/** What can be typed at the cursor: the fields, and where the cursor is, in pixels of the board. */
export interface Typing {
  fields: readonly TypedField[];
  at: Point;
  /** Whether a key turns to another way of typing. */
  turns: boolean;
}

type Listener = (typing: Typing | null) => void;
type Focus = (begun: string) => void;
const listeners = new Set<Listener>();
let focus: Focus | null = null;

/** Tells those who show the fields; it changes with every move of the pointer, and is kept apart from React. */
export function reportTyping(typing: Typing | null): void {
  for (const listener of listeners) listener(typing);
}

/** @param begin is called when typing begins on the board, with the first character */
export function hearTyping(listener: Listener, begin: Focus): () => void {
  listeners.add(listener);
  focus = begin;
  return () => {
    listeners.delete(listener);
    if (focus === begin) focus = null;
  };
}

/** Puts the keyboard into the first field, with what was typed on the board. @returns whether there is one */
export function beginTyping(begun: string): boolean {
  if (focus === null) return false;
  focus(begun);
  return true;
}
