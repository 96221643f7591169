import { groupBy } from '@/core/groupBy';
import { BoxIndex, boxOf } from '@/core/geometry/boxIndex';
import { area, contains, counterClockwise } from '@/core/geometry/polygon';
import type { Outline } from '@/core/patterns/outlines';
import type { PlacedText } from '@/core/placed/placed';
import type { Bounded } from './bounded';
import { tellApart } from './texts';

/** An outline among others. */
interface Nested {
  outline: Outline;
  size: number;
  /** The smallest other that it lies in. */
  within: Nested | null;
  /** Whether a name or a number stands in it, and in none that lies in it. */
  named: boolean;
}

/**
 * Rooms by their outlines, drawn as such. What lies in another outline is taken from its area; where nothing is written
 * in it, it is only that: the inner edge of a room that goes round others.
 */
export function drawnZones(outlines: readonly Outline[], texts: readonly PlacedText[]): Bounded[] {
  const nested = outlines
    .map((outline): Nested => ({ outline, size: Math.abs(area(outline.points)), within: null, named: false }))
    .sort((a, b) => a.size - b.size);
  const index = new BoxIndex(nested, ({ outline }) => boxOf(outline.points));
  for (const one of nested) {
    const [corner] = one.outline.points;
    one.within = smallest(index.around(corner).filter((other) => other.size > one.size && holds(other, one)));
  }
  for (const text of texts) {
    const { name, number } = tellApart([text]);
    if (name === '' && number === '') continue;
    const about = smallest(index.around(text.at).filter(({ outline }) => contains(outline.points, text.at)));
    if (about !== null) about.named = true;
  }
  const insideOf = groupBy(nested, ({ within }) => within);
  const isHole = (one: Nested): boolean => one.within !== null && !one.named;
  return nested
    .filter((one) => !isHole(one))
    .map((one): Bounded => {
      const inside = insideOf.get(one) ?? [];
      const size = one.size - inside.reduce((sum, hole) => sum + hole.size, 0);
      return {
        outline: counterClockwise(one.outline.points),
        holes: inside.map(({ outline }) => counterClockwise(outline.points)),
        areas: { inner: size, centre: size, outer: size },
        handles: [...new Set([one, ...inside].flatMap(({ outline }) => outline.handles))],
        drawn: true,
        leak: null,
      };
    });
}

const smallest = (list: readonly Nested[]): Nested | null =>
  list.reduce<Nested | null>((least, one) => (least === null || one.size < least.size ? one : least), null);

/** Whether all corners of one lie in another: one drawn twice lies in none. */
const holds = (other: Nested, one: Nested): boolean =>
  one.outline.points.every((corner) => contains(other.outline.points, corner));
