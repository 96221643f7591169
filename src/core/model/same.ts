/** Whether two values of rows are the same, whatever the order of their keys; a missing value is the same as null. */
export function same(a: unknown, b: unknown): boolean {
  if (a === b || (a ?? null) === (b ?? null)) return true;
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return false;
  if (Array.isArray(a) || Array.isArray(b))
    return Array.isArray(a) && Array.isArray(b) && a.length === b.length && a.every((value, i) => same(value, b[i]));
  const [first, second] = [a as Record<string, unknown>, b as Record<string, unknown>];
  return [...new Set([...Object.keys(first), ...Object.keys(second)])].every((key) => same(first[key], second[key]));
}
