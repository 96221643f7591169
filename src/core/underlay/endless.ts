import type { Point } from '@/core/geometry/vector';
import { mainContent } from './mainContent';
import type { PathOwner } from './paths';

/** An endless line, or a ray that begins at its first point. */
export interface EndlessLine {
  line: [Point, Point];
  both: boolean;
  owner: PathOwner;
}

/** Where there is nothing else, this much of an endless line is drawn on either side, in drawing units. */
const alone = 1000;

/**
 * The parts of endless lines to be drawn: as far as the main content reaches, and a tenth beyond.
 * @param xy the vertices of all else
 */
export function cutEndless(
  lines: readonly EndlessLine[],
  xy: Float64Array,
): { from: Point; to: Point; owner: PathOwner }[] {
  const main = mainContent({ xy, origin: [0, 0] });
  const reach = main ? Math.max(main[1][0] - main[0][0], main[1][1] - main[0][1]) * 0.1 : 0;
  return lines.flatMap(({ line: [p, q], both, owner }) => {
    const [[x1, y1], [x2, y2]] = main ?? [
      [p[0] - alone, p[1] - alone],
      [p[0] + alone, p[1] + alone],
    ];
    const d: Point = [q[0] - p[0], q[1] - p[1]];
    let [from, to] = [both ? -Infinity : 0, Infinity];
    for (const axis of [0, 1] as const) {
      const [low, high] = axis === 0 ? [x1 - reach, x2 + reach] : [y1 - reach, y2 + reach];
      if (d[axis] === 0) {
        if (p[axis] < low || p[axis] > high) to = -Infinity;
        continue;
      }
      const [a, b] = [(low - p[axis]) / d[axis], (high - p[axis]) / d[axis]];
      from = Math.max(from, Math.min(a, b));
      to = Math.min(to, Math.max(a, b));
    }
    const at = (t: number): Point => [p[0] + d[0] * t, p[1] + d[1] * t];
    return from < to ? [{ from: at(from), to: at(to), owner }] : [];
  });
}
