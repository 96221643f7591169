import type { Point } from '@/core/geometry/vector';
import { justifications, type ElementKind, type Section, type Shapes } from '@/core/model/elements';
import type { Candidate } from '@/core/reading/candidate';

/**
 * Something of an element that a person may put right: words, one of some, or a length in metres. Ends are of one
 * element only, never of many at once.
 */
export type Field<K extends ElementKind> = { label: string; end?: true } & (
  | { kind: 'words'; get: (shape: Shapes[K]) => string; set: (shape: Shapes[K], value: string) => Shapes[K] }
  | {
      kind: 'choice';
      options: readonly string[];
      get: (shape: Shapes[K]) => string;
      set: (shape: Shapes[K], value: string) => Shapes[K];
    }
  | {
      kind: 'length';
      least: number;
      get: (shape: Shapes[K]) => number | null;
      set: (shape: Shapes[K], value: number) => Shapes[K];
    }
);

const words = <K extends ElementKind>(label: string, key: keyof Shapes[K]): Field<K> => ({
  label,
  kind: 'words',
  get: (shape) => String(shape[key] ?? ''),
  set: (shape, value) => ({ ...shape, [key]: value }),
});
const length = <K extends ElementKind>(label: string, key: keyof Shapes[K], least = 0.001): Field<K> => ({
  label,
  kind: 'length',
  least,
  get: (shape) => shape[key] as number | null,
  set: (shape, value) => ({ ...shape, [key]: value }),
});

/** Coordinates of points of an element, in the project. */
function ends<K extends ElementKind>(points: readonly [key: string, word: string][]): Field<K>[] {
  return points.flatMap(([key, word]) =>
    [0, 1].map((axis): Field<K> => ({
      label: `${word}, ${axis === 0 ? 'east' : 'north'}`,
      end: true,
      kind: 'length',
      least: -Infinity,
      get: (shape) => (shape as unknown as Record<string, Point>)[key][axis],
      set: (shape, value) => {
        const [x, y] = (shape as unknown as Record<string, Point>)[key];
        return { ...shape, [key]: axis === 0 ? [value, y] : [x, value] };
      },
    })),
  );
}

/** The sides of a section that is a rectangle, or the diameter of a round one. */
function sectionFields<K extends 'column' | 'beam'>(section: Section): Field<K>[] {
  const side = (label: string, key: string): Field<K> => ({
    label,
    kind: 'length',
    least: 0.02,
    get: (shape) => ((shape as { section: Section }).section as unknown as Record<string, number>)[key],
    set: (shape, value) => ({ ...shape, section: { ...(shape as { section: Section }).section, [key]: value } }),
  });
  return section.shape === 'rectangle'
    ? [side('Width', 'width'), side('Depth', 'depth')]
    : section.shape === 'circle'
      ? [side('Diameter', 'diameter')]
      : [];
}

const line: [string, string][] = [
  ['start', 'Start'],
  ['end', 'End'],
];

/** What can be put right of an element, by its kind. */
export function fieldsOf<K extends ElementKind>(kind: K, shape: Shapes[K]): Field<K>[] {
  const fields = (): Field<never>[] => {
    switch (kind) {
      case 'grid':
        return [
          words<'grid'>('Label', 'label'),
          ...((shape as Shapes['grid']).kind === 'line' ? ends<'grid'>(line) : []),
        ] as never;
      case 'column':
        return [
          ...sectionFields<'column'>((shape as Shapes['column']).section),
          words<'column'>('Mark', 'mark'),
          ...ends<'column'>([['position', 'Middle']]),
        ] as never;
      case 'beam':
        return [
          ...sectionFields<'beam'>((shape as Shapes['beam']).section),
          words<'beam'>('Mark', 'mark'),
          {
            label: 'Top below the storey\u2019s',
            kind: 'length',
            least: -100,
            get: ({ drop = 0 }: Shapes['beam']) => drop,
            set: (beam: Shapes['beam'], drop: number) => ({ ...beam, drop }),
          },
          {
            label: 'Its line is',
            kind: 'choice',
            options: justifications,
            get: ({ justification = 'centre' }: Shapes['beam']) => justification,
            set: (beam: Shapes['beam'], justification: string) => ({ ...beam, justification }),
          },
          ...ends<'beam'>(line),
        ] as never;
      case 'wall':
        return [
          length<'wall'>('Thickness', 'thickness', 0.02),
          length<'wall'>('Height', 'height'),
          ...ends<'wall'>(line),
        ] as never;
      case 'opening':
        return [
          length<'opening'>('Width', 'width', 0.05),
          length<'opening'>('Height', 'height', 0.05),
          length<'opening'>('Sill', 'sill', 0),
          { ...length<'opening'>('From the wall\u2019s start', 'offset', 0), end: true },
        ] as never;
      case 'slab':
        return [length<'slab'>('Thickness', 'thickness', 0.02)] as never;
      case 'zone':
        return [
          words<'zone'>('Name', 'name'),
          words<'zone'>('Number', 'number'),
          length<'zone'>('Height', 'height'),
        ] as never;
      default:
        return [words<'outdoor'>('Name', 'name'), length<'outdoor'>('Height', 'height', 0)] as never;
    }
  };
  return fields() as unknown as Field<K>[];
}

/**
 * A candidate with things put right, by the labels of their fields; what its kind of section has not got stays as it
 * is.
 */
export function putRight<C extends Candidate>(candidate: C, changes: ReadonlyMap<string, string | number>): C {
  let shape: Shapes[ElementKind] = candidate.element;
  for (const field of fieldsOf(candidate.kind, shape as never)) {
    const value = changes.get(field.label);
    if (value !== undefined) shape = field.set(shape as never, value as never);
  }
  return { ...candidate, element: shape, asRead: candidate.asRead ?? candidate.element };
}

/** What some candidates have in common under a field; null where they differ. */
export function commonOf(candidates: readonly Candidate[], label: string): string | number | null {
  const values = new Set(
    candidates.map(
      ({ kind, element }) =>
        fieldsOf(kind, element as never)
          .find((field) => field.label === label)
          ?.get(element as never) ?? null,
    ),
  );
  return values.size === 1 ? [...values][0] : null;
}
