import type { Primitives } from './primitives';

const lowered = new WeakMap<Primitives, string[]>();

/** The texts of a drawing in small letters and on one line each, made once. */
export function loweredTexts(primitives: Primitives): string[] {
  const known = lowered.get(primitives);
  if (known !== undefined) return known;
  const made = primitives.texts.map(({ text }) =>
    (/\s\s|[^\S ]/.test(text) ? text.replace(/\s+/g, ' ') : text).toLowerCase(),
  );
  lowered.set(primitives, made);
  return made;
}

/** What is typed to find something, as words in small letters. */
export const wordsOf = (typed: string): string[] => typed.toLowerCase().split(/\s+/).filter(Boolean);

/** Whether a text in small letters holds all of some words. */
export const holdsAll = (text: string, words: readonly string[]): boolean => words.every((word) => text.includes(word));

/**
 * The texts of a drawing that hold all of some words, by their numbers; those that are just what was typed come first.
 * @param words in small letters; none find nothing
 */
export function findTexts(primitives: Primitives, words: readonly string[], most: number): number[] {
  if (words.length === 0) return [];
  const whole = words.join(' ');
  const [exact, found]: number[][] = [[], []];
  const texts = loweredTexts(primitives);
  for (let i = 0; i < texts.length && exact.length < most; i += 1) {
    if (texts[i] === whole) exact.push(i);
    else if (found.length < most && holdsAll(texts[i], words)) found.push(i);
  }
  return [...exact, ...found].slice(0, most);
}
