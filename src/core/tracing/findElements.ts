import type { ElementRow } from '@/core/kinds/element';
import { kinds, nameWords, sizeWords } from '@/core/kinds/kinds';
import type { Model } from '@/core/model/model';

/** What an element is found by, in small letters; rows are never changed, so that it is made once for each. */
const known = new WeakMap<ElementRow, { names: string[]; text: string }>();

function textOf(element: ElementRow): { names: string[]; text: string } {
  const found = known.get(element);
  if (found !== undefined) return found;
  // A room is called by its name and by its number.
  const names = element.kind === 'zone' ? [element.shape.name, element.shape.number] : [nameWords(element)];
  const size = sizeWords(element);
  const handles = element.source?.handles.join(' ') ?? '';
  const words = [kinds[element.kind].names[0], ...names, size, size.replace(/\s/g, ''), handles];
  const made = { names: names.map((name) => name.toLowerCase()), text: words.join(' ').toLowerCase() };
  known.set(element, made);
  return made;
}

/** Makes ready what some elements are found by, so that the first search need not. */
export function readyToFind(elements: Iterable<ElementRow>): void {
  for (const element of elements) textOf(element);
}

/**
 * The elements that some words are of: a mark, a label, a room's name or number, a size, a level or the handle of a
 * line that they came from. Those that are just called so come first.
 * @param words in small letters; none find nothing
 */
export function findElements(model: Model, words: readonly string[]): ElementRow[] {
  if (words.length === 0) return [];
  const whole = words.join(' ');
  const levels = new Map(Object.values(model.level).map(({ id, name }) => [id, name.toLowerCase()]));
  const [called, begin, rest]: ElementRow[][] = [[], [], []];
  for (const element of Object.values(model.element)) {
    const { names, text } = textOf(element);
    const level = element.levelId === null ? '' : (levels.get(element.levelId) ?? '');
    if (names.includes(whole)) called.push(element);
    else if (words.every((word) => text.includes(word) || level.includes(word)))
      (names.some((name) => name.startsWith(whole)) ? begin : rest).push(element);
  }
  return [...called, ...begin, ...rest];
}
