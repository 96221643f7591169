import type { ElementKind, Shapes } from '@/core/kinds/element';

/** A plain value of a shape. */
type Value = number | string | boolean | null;

/** What is alike to a tenth of a millimetre, or of a thousandth of a degree, was read alike. */
const alike = 1e-4;

/** Whether a wall carries follows from what stands beside and beneath it, not from its own lines. */
const notOfItself = 'bearing';

const known = new WeakMap<object, Value[]>();

/**
 * The plain values of a shape, in the order of its keys' names. Lists come with their length before them, so that two
 * shapes whose values are the same have the same parts. Shapes do not change: of each they are put together once.
 */
export function valuesOf(shape: Shapes[ElementKind]): Value[] {
  const before = known.get(shape);
  if (before !== undefined) return before;
  const values: Value[] = [];
  addValues(shape, values);
  known.set(shape, values);
  return values;
}

function addValues(part: unknown, values: Value[]): void {
  if (Array.isArray(part)) {
    values.push(part.length);
    for (const own of part) addValues(own, values);
  } else if (typeof part === 'object' && part !== null) {
    for (const [key, own] of Object.entries(part).sort(([a], [b]) => (a < b ? -1 : 1))) {
      if (own === undefined || key === notOfItself) continue;
      values.push(key);
      addValues(own, values);
    }
  } else if (typeof part === 'number' || typeof part === 'string' || typeof part === 'boolean' || part === null) {
    values.push(part);
  }
}

/** Whether a shape is what was seen before, within a tenth of a millimetre a value. */
export function readsAlike(shape: Shapes[ElementKind], seen: readonly Value[]): boolean {
  const values = valuesOf(shape);
  return (
    values === seen ||
    (values.length === seen.length &&
      values.every((value, i) => {
        const before = seen[i];
        return typeof value === 'number' && typeof before === 'number'
          ? Math.abs(value - before) <= alike
          : value === before;
      }))
  );
}
