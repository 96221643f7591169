import { distance } from '@/core/geometry/vector';
import type { Tolerance } from '@/core/tolerance';
import type { Segment } from './network';

/** A thickness this near to a step of the module is drawn as it is meant, metres. */
const exact = 2e-5;
/** Thicknesses that differ by less are drawn alike, metres. */
const drawnAlike = 2e-4;
/** A face may be drawn off by so much, metres: what its like in the drawing has within it is meant. */
const offByHand = 0.0055;
/** What is meant has to be there over so many times the length of what is drawn alike. */
const timesAsLong = 2;

/**
 * What thicknesses are meant by those drawn: a step of the rounding module where that is near; where a face is off, the
 * step nearby that more of the drawing's walls come to. Metres.
 */
export function meantThickness(
  segments: readonly Pick<Segment, 'start' | 'end' | 'thickness'>[],
  { roundingModule, rounding }: Tolerance,
): { meant: (thickness: number) => number; lengthOf: (thickness: number) => number } {
  const stepOf = (thickness: number): number =>
    Number((Math.round(thickness / roundingModule) * roundingModule).toFixed(9));
  const rounded = (thickness: number): number =>
    Math.abs(stepOf(thickness) - thickness) <= rounding + 1e-9 ? stepOf(thickness) : thickness;
  /** How long walls are that are drawn alike, by their thickness; that round alike; and of each size meant. */
  const [alike, steps, sizes] = [new Map<number, number>(), new Map<number, number>(), new Map<number, number>()];
  const add = (lengths: Map<number, number>, key: number, length: number) =>
    lengths.set(key, (lengths.get(key) ?? 0) + length);
  const keyOf = (thickness: number): number => Math.round(thickness / drawnAlike);
  for (const { thickness, start, end } of segments) {
    add(alike, keyOf(thickness), distance(start, end));
    add(steps, rounded(thickness), distance(start, end));
  }
  const meant = (thickness: number): number => {
    if (Math.abs(stepOf(thickness) - thickness) <= exact) return stepOf(thickness);
    const own = alike.get(keyOf(thickness)) ?? 0;
    const like = [...steps]
      .filter(([step]) => Math.abs(step - thickness) <= offByHand)
      .reduce<[number, number]>((best, one) => (one[1] > best[1] ? one : best), [rounded(thickness), 0]);
    return like[1] >= timesAsLong * own ? like[0] : rounded(thickness);
  };
  for (const { thickness, start, end } of segments) add(sizes, meant(thickness), distance(start, end));
  return { meant, lengthOf: (thickness) => sizes.get(thickness) ?? 0 };
}
