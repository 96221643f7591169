import { degrees, pointAlong, subtract, type Point } from '@/core/geometry/vector';
import type { Luminaire } from '@/core/kinds/luminaire';

/** The middles of so many equal parts of a line: half a spacing from its ends, a whole one between them. */
const middles = (from: Point, to: Point, count: number): Point[] =>
  Array.from({ length: count }, (_, i) => pointAlong(from, to, (i + 0.5) / count));

const turnOf = (from: Point, to: Point): number => {
  const [dx, dy] = subtract(to, from);
  return degrees(Math.atan2(dy, dx));
};

/** Luminaires in a row between two walls, half a spacing from either, turned along the row. */
export const luminaireRow = (from: Point, to: Point, count: number, like: Luminaire): Luminaire[] =>
  middles(from, to, count).map((position) => ({ ...like, position, rotation: like.rotation + turnOf(from, to) }));

/**
 * Luminaires in rows over a rectangle, half a spacing from its sides.
 * @param corners of the rectangle in their order; rows run along its first side
 * @param count in each row
 */
export function luminaireField(corners: readonly Point[], count: number, rows: number, like: Luminaire): Luminaire[] {
  const [a, b, c, d] = corners;
  const [begins, ends] = [middles(a, d, rows), middles(b, c, rows)];
  return begins.flatMap((from, i) => luminaireRow(from, ends[i], count, like));
}
