import { distance, nearestOnPiece, type Point } from './vector';

/** A line of points without those that lie within a tolerance of what is left (Douglas and Peucker 1973). */
export function thinned(line: readonly Point[], tolerance: number): Point[] {
  const kept = new Set([0, line.length - 1]);
  const open: [number, number][] = [[0, line.length - 1]];
  for (let piece = open.pop(); piece !== undefined; piece = open.pop()) {
    const [from, to] = piece;
    let [farthest, most] = [-1, tolerance];
    for (let i = from + 1; i < to; i += 1) {
      const away = distance(line[i], nearestOnPiece(line[from], line[to], line[i]));
      if (away > most) [farthest, most] = [i, away];
    }
    if (farthest < 0) continue;
    kept.add(farthest);
    open.push([from, farthest], [farthest, to]);
  }
  return line.filter((_, i) => kept.has(i));
}
