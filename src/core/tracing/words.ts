import type { ElementKind, ElementRow, Shapes } from '@/core/kinds/element';
import { kinds } from '@/core/kinds/kinds';
import { groupBy } from '@/core/groupBy';

/** "a wall", "an opening", with a capital where it begins a sentence. */
export function aThing(kind: ElementKind, capital = false): string {
  const [one] = kinds[kind].names;
  return `${capital ? 'A' : 'a'}${/^[aeiou]/.test(one) ? 'n' : ''} ${one}`;
}

/** What something is called where it stands alone: an outer wall, column C1, a beam. */
export function calledOf<K extends ElementKind>({ kind, shape }: { kind: K; shape: Shapes[K] }): string {
  const { names, name } = kinds[kind];
  const own = name(shape);
  if (own === '' || own === names[0]) return names[0];
  // What a wall is called is a quality of it; a door and a window are called so themselves.
  if (kind === 'opening') return own;
  return kind === 'wall' ? `${own} ${names[0]}` : `${names[0]} ${own}`;
}

/** How many elements there are of each kind: "2 columns, 1 wall". */
export const describeElements = (elements: readonly ElementRow[]): string =>
  [...groupBy(elements, ({ kind }) => kind)]
    .map(([kind, { length }]) => `${length} ${kinds[kind].names[length === 1 ? 0 : 1]}`)
    .join(', ');
