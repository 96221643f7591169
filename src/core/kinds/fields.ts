import type { Point } from '@/core/geometry/vector';
import type { ElementKind, Shapes } from './element';
import type { Field } from './kind';

/** The keys of a shape whose values are of a type. */
type KeysOf<S, V> = { [P in keyof S]-?: S[P] extends V ? P : never }[keyof S];

export const words = <K extends ElementKind>(label: string, key: KeysOf<Shapes[K], string>): Field<K> => ({
  label,
  kind: 'words',
  get: (shape) => String(shape[key]),
  set: (shape, value) => ({ ...shape, [key]: value }),
});

export const length = <K extends ElementKind>(
  label: string,
  key: KeysOf<Shapes[K], number | null>,
  least = 0.001,
): Field<K> => ({
  label,
  kind: 'length',
  least,
  get: (shape) => {
    const value: unknown = shape[key];
    return typeof value === 'number' ? value : null;
  },
  set: (shape, value) => ({ ...shape, [key]: value }),
});

/** The two coordinates of a point of a shape. */
export function coordinates<K extends ElementKind>(
  word: string,
  get: (shape: Shapes[K]) => Point,
  set: (shape: Shapes[K], to: Point) => Shapes[K],
): Field<K>[] {
  const field = (axis: 'east' | 'north'): Field<K> => ({
    label: `${word}, ${axis}`,
    end: true,
    kind: 'length',
    least: -Infinity,
    get: (shape) => get(shape)[axis === 'east' ? 0 : 1],
    set: (shape, value) => {
      const [x, y] = get(shape);
      return set(shape, axis === 'east' ? [value, y] : [x, value]);
    },
  });
  return [field('east'), field('north')];
}
