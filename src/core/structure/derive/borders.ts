import type { Point } from '@/core/geometry/vector';
import type { Rings } from '@/core/geometry/ringParts';

/** A straight piece, x1, y1, x2, y2. */
export type Piece = [number, number, number, number];

/** Lines whose distances from zero differ by less are one line, metres; their directions are told apart this finely. */
const [apart, turns] = [0.001, 1e4];

interface Edge {
  from: number;
  to: number;
  /** 1 along the line's direction, -1 against it. */
  way: number;
}

/** A line that edges lie on: its direction and its distance from zero. */
interface Line {
  direction: Point;
  off: number;
  edges: Edge[];
}

/** The line of an edge, the same for both of its ways. */
function lineOf([x1, y1]: Point, [x2, y2]: Point): { key: string; direction: Point; off: number; way: number } | null {
  const length = Math.hypot(x2 - x1, y2 - y1);
  if (length < apart) return null;
  let [dx, dy] = [(x2 - x1) / length, (y2 - y1) / length];
  const way = dx > 1e-9 || (Math.abs(dx) <= 1e-9 && dy > 0) ? 1 : -1;
  [dx, dy] = [dx * way, dy * way];
  const off = x1 * dy - y1 * dx;
  const key = `${Math.round(Math.atan2(dy, dx) * turns)} ${Math.round(off / apart)}`;
  return { key, direction: [dx, dy], off, way };
}

/**
 * The border of what some parts cover together: edges on which two parts lie on either side cancel, also where one
 * part is longer than the other.
 */
export function borderOf(parts: readonly Rings[]): Piece[] {
  const lines = new Map<string, Line>();
  for (const rings of parts)
    for (const ring of rings)
      ring.forEach((a, i) => {
        const b = ring[(i + 1) % ring.length];
        const found = lineOf(a, b);
        if (found === null) return;
        const { key, direction: d, off, way } = found;
        const line = lines.get(key) ?? { direction: d, off, edges: [] };
        lines.set(key, line);
        const [from, to] = [a, b].map(([x, y]) => x * line.direction[0] + y * line.direction[1]);
        line.edges.push({ from: Math.min(from, to), to: Math.max(from, to), way });
      });
  return [...lines.values()].flatMap(uncancelled);
}

function uncancelled({ direction: [dx, dy], off, edges }: Line): Piece[] {
  const ends = edges.flatMap(({ from, to, way }) => [
    { at: from, change: way },
    { at: to, change: -way },
  ]);
  ends.sort((a, b) => a.at - b.at);
  const pieces: Piece[] = [];
  let [sum, begun] = [0, 0];
  for (const { at, change } of ends) {
    // The foot of zero on the line is (off dy, -off dx).
    if (sum !== 0 && at - begun > apart)
      pieces.push([off * dy + begun * dx, -off * dx + begun * dy, off * dy + at * dx, -off * dx + at * dy]);
    sum += change;
    begun = at;
  }
  return pieces;
}
