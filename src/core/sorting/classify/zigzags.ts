import { cross, subtract, type Point } from '@/core/geometry/vector';
import type { Drawn } from './drawn';
import type { AllLooks } from './looks';

/** Strokes are as long as one another within this share. */
const even = 0.05;
/** Insulation has more strokes than leaves that fold, and shorter ones, metres. */
const insulation = { fewest: 9, longest: 0.6 };

/** How many even strokes of a path step aside by turns, and how long they are, metres; null where it is no zigzag. */
export function zigzagOf(points: readonly Point[]): { count: number; stroke: number } | null {
  const strokes = points.slice(1).map((p, i) => subtract(p, points[i]));
  if (strokes.length < 2) return null;
  const lengths = strokes.map(([x, y]) => Math.hypot(x, y));
  const stroke = lengths.reduce((sum, length) => sum + length, 0) / lengths.length;
  const turns = strokes.slice(1).map((next, i) => Math.sign(cross(strokes[i], next)));
  const byTurns = turns[0] !== 0 && turns.every((turn, i) => turn === (i % 2 === 0 ? turns[0] : -turns[0]));
  const areEven = lengths.every((length) => Math.abs(length - stroke) <= even * stroke);
  return byTurns && areEven ? { count: strokes.length, stroke } : null;
}

/** Long zigzags of short strokes are insulation: no faces of walls. */
export function insulations(looks: AllLooks, drawn: Drawn): void {
  const { start, chain } = drawn.p;
  for (let path = 0; path < looks.length; path += 1) {
    if (looks[path] !== null || chain[path] !== 0 || start[path + 1] - start[path] <= insulation.fewest) continue;
    const { points, bulges } = drawn.placed(path);
    const zigzag = bulges.some((bulge) => bulge !== 0) ? null : zigzagOf(points);
    if (zigzag !== null && zigzag.stroke <= insulation.longest)
      looks[path] = { role: 'ignore', why: 'a zigzag, as insulation is drawn' };
  }
}
