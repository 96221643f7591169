import { groupBy } from '@/core/groupBy';
import { middle } from '@/core/geometry/vector';
import type { AllLooks, Line } from './looks';

/** Where more lines than this, about as long as one another, have their middles in one place, they fill something. */
const mostInPlace = 200;
/** The side of a place, metres: what a wall measures across. */
const place = 0.6;

/**
 * Lines that crowd one place, as of a filling, or drawn again and again: nobody could look through their neighbours one
 * by one. A longer line among them is none of them.
 */
export function crowds(looks: AllLooks, lines: readonly Line[]): void {
  const placeOf = ({ a, b, length }: Line): string => {
    const [x, y] = middle(a, b);
    return `${Math.floor(x / place)},${Math.floor(y / place)},${Math.round(Math.log2(length + 1e-6))}`;
  };
  for (const own of groupBy(lines, placeOf).values())
    if (own.length > mostInPlace)
      for (const { path } of own) looks[path] ??= { role: 'ignore', why: 'one of very many lines in one place' };
}
