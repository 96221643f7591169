import { arcOfBulge, arcSagitta, chordCount, pointOnArc } from '@/core/geometry/bulge';
import { distance, dot, middle, nearestOnPiece, pointAlong, subtract, type Point } from '@/core/geometry/vector';
import type { Grip } from './kind';

/** The points of an arc by its bulge, or the two ends of a straight line. */
export function bulgedLine(start: Point, end: Point, bulge: number): Point[] {
  if (bulge === 0) return [start, end];
  const arc = arcOfBulge(start, end, bulge);
  const chords = Math.max(2, chordCount(arc.radius, arc.sweep, arcSagitta));
  const between = Array.from({ length: chords - 1 }, (_, i) => pointOnArc(arc, (i + 1) / chords));
  return [start, ...between, end];
}

/** Sharper corners of a band are cut: their tips would reach far. */
const sharpest = 0.2;

/** To the left of a piece, of length one. */
function leftOf(a: Point, b: Point): Point {
  const length = distance(a, b) || 1;
  return [-(b[1] - a[1]) / length, (b[0] - a[0]) / length];
}

/** A band about a line of points, as an outline: its sides run beside each piece and meet at corners. */
export function bandOutline(line: readonly Point[], width: number): Point[] {
  const lefts = line.slice(1).map((p, i) => leftOf(line[i], p));
  const corners = line.map((_, i): Point => {
    const [u, w] = [lefts[Math.max(0, i - 1)], lefts[Math.min(lefts.length - 1, i)]];
    const open = Math.max(sharpest, 1 + dot(u, w));
    return [(u[0] + w[0]) / open, (u[1] + w[1]) / open];
  });
  const side = (by: number): Point[] => line.map((p, i) => [p[0] + corners[i][0] * by, p[1] + corners[i][1] * by]);
  return [...side(width / 2), ...side(-width / 2).reverse()];
}

/** Metres from a point to a line of points. */
export function awayFromLine(line: readonly Point[], p: Point): number {
  let least = Infinity;
  for (let i = 0; i + 1 < line.length; i += 1)
    least = Math.min(least, distance(p, nearestOnPiece(line[i], line[i + 1], p)));
  return least;
}

/** Metres along a line of points. */
export const lengthOfLine = (line: readonly Point[]): number =>
  line.reduce((sum, p, i) => (i === 0 ? 0 : sum + distance(line[i - 1], p)), 0);

/** The grips of what runs from a start to an end. */
export const lineGrips = ({ start, end }: { start: Point; end: Point }): Grip[] => [
  { name: 'start', at: start },
  { name: 'end', at: end },
  { name: 'middle', at: middle(start, end) },
];

/** A line with one of its grips dragged; the middle carries both ends. */
export function dragLine<S extends { start: Point; end: Point }>(shape: S, grip: string, to: Point): S {
  if (grip === 'start') return { ...shape, start: to };
  if (grip === 'end') return { ...shape, end: to };
  const [dx, dy] = subtract(to, middle(shape.start, shape.end));
  const { start, end } = shape;
  return { ...shape, start: [start[0] + dx, start[1] + dy], end: [end[0] + dx, end[1] + dy] };
}

/** A point along a line of points and the direction there, of length one. @param at metres from its start, along it */
export function alongLine(line: readonly Point[], at: number): { point: Point; direction: Point } {
  let left = at;
  for (let i = 1; ; i += 1) {
    const [a, b] = [line[i - 1], line[i]];
    const size = distance(a, b);
    if (left > size && i + 1 < line.length) {
      left -= size;
      continue;
    }
    const d = subtract(b, a);
    return { point: pointAlong(a, b, left / (size || 1)), direction: [d[0] / (size || 1), d[1] / (size || 1)] };
  }
}

/** The piece of a line of points between two places, with the corners between. @param from metres along it */
export function pieceOfLine(line: readonly Point[], from: number, to: number): Point[] {
  const between: Point[] = [];
  let before = 0;
  line.slice(1).forEach((p, i) => {
    before += distance(line[i], p);
    if (before > from && before < to) between.push(p);
  });
  return [alongLine(line, from).point, ...between, alongLine(line, to).point];
}
