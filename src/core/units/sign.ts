/** Elevations closer to zero than this are zero, metres. */
const zero = 5e-7;

/** The sign before an elevation that is told without one: a minus comes with the number itself. */
export function signOf(metres: number): string {
  if (Math.abs(metres) < zero) return '\u00b1';
  return metres > 0 ? '+' : '';
}
