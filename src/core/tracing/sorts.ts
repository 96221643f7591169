import { groupBy } from '@/core/groupBy';
import { elementKinds, type ElementKind, type ElementRow, type Shapes } from '@/core/kinds/element';
import { millimetres } from '@/core/kinds/figures';
import { kinds } from '@/core/kinds/kinds';
import { sectionName } from '@/core/kinds/section';
import { holdingOf } from '@/core/kinds/support';
import { calledOf } from './words';

/** What sort of its kind an element is: its section, its thickness, its load case; empty where there is one only. */
function sortOf(element: ElementRow): string {
  switch (element.kind) {
    case 'column':
    case 'beam':
      return sectionName(element.shape.section);
    case 'wall':
      return `${millimetres(element.shape.thickness)}, ${element.shape.outer ? 'outer' : 'inner'}`;
    case 'slab':
    case 'roof':
      return millimetres(element.shape.thickness);
    case 'opening':
      return `${element.shape.use}, ${millimetres(element.shape.width)} wide`;
    case 'pointLoad':
    case 'lineLoad':
    case 'areaLoad':
      return `case ${element.shape.case}`;
    case 'support':
      return holdingOf(element.shape);
    case 'luminaire':
      return element.shape.photometry || 'no photometry';
    default:
      return '';
  }
}

/** Elements of one kind, by what sort they are; `ids` are those of all sorts. */
export interface KindBranch {
  kind: ElementKind;
  ids: string[];
  sorts: { words: string; ids: string[] }[];
}

const idsOf = (elements: readonly ElementRow[]): string[] => elements.map(({ id }) => id);

/** Elements as a tree: by kind in the usual order, then by sort, the most frequent first. */
export function treeOf(elements: readonly ElementRow[]): KindBranch[] {
  const byKind = groupBy(elements, ({ kind }) => kind);
  return elementKinds.flatMap((kind) => {
    const own = byKind.get(kind);
    if (own === undefined) return [];
    const sorts = [...groupBy(own, sortOf)]
      .map(([words, members]) => ({ words, ids: idsOf(members) }))
      .sort((a, b) => b.ids.length - a.ids.length || a.words.localeCompare(b.words, 'en', { numeric: true }));
    return [{ kind, ids: idsOf(own), sorts: sorts.length === 1 && sorts[0].words === '' ? [] : sorts }];
  });
}

/** The facts of an element, such as the whole name of a zone. */
const factsOf = <K extends ElementKind>({ kind, shape }: { kind: K; shape: Shapes[K] }): string =>
  kinds[kind].facts(shape);

/** Elements of whose kind, name, sort or facts a word begins with each of some words. */
export function matching(elements: readonly ElementRow[], text: string): ElementRow[] {
  const wanted = text.toLowerCase().split(/\s+/).filter(Boolean);
  if (wanted.length === 0) return [...elements];
  return elements.filter((element) => {
    const own = [...kinds[element.kind].names, calledOf(element), sortOf(element), factsOf(element)];
    const words = own.join(' ').toLowerCase().split(/\s+/);
    return wanted.every((part) => words.some((word) => word.startsWith(part)));
  });
}
