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

/**
 * A number of a shape.
 * @param factor how much of the shape's unit one of the unit on screen is: 1000 for kN of N
 */
export const number = <K extends ElementKind>(
  label: string,
  key: KeysOf<Shapes[K], number | null>,
  { unit, least, most, factor = 1 }: { unit: string; least: number; most: number; factor?: number },
): Field<K> => ({
  label,
  kind: 'number',
  unit,
  least,
  most,
  get: (shape) => {
    const value: unknown = shape[key];
    return typeof value === 'number' ? value / factor : null;
  },
  set: (shape, value) => ({ ...shape, [key]: value * factor }),
});

/** One of some words. */
export const choice = <K extends ElementKind, V extends string>(
  label: string,
  options: readonly V[],
  get: (shape: Shapes[K]) => V,
  set: (shape: Shapes[K], value: V) => Shapes[K],
): Field<K> => ({
  label,
  kind: 'choice',
  options,
  get,
  set: (shape, value) => {
    const known = options.find((one) => one === value);
    return known === undefined ? shape : set(shape, known);
  },
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
