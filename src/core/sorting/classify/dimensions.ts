import { BoxIndex, boxOf } from '@/core/geometry/boxIndex';
import { cross, distance, middle, subtract, type Point } from '@/core/geometry/vector';
import type { AllLooks, Line } from './looks';

/** What a dimension is like that was taken apart into lines. */
const dimension = {
  /** Strokes across its ends are at most this long, and the line is longer, metres. */
  tick: 0.65,
  /** A stroke's middle is this near to the end, metres. */
  near: 0.02,
  /** Strokes lean by this much, sines of 25 and 65 degrees: a line across an end squarely is a jamb or a wall's end. */
  lean: { least: 0.42, most: 0.91 },
  /** What is written beside it stands this near, metres. */
  text: 1,
};

/** Lines between two slanting strokes with a figure beside them: dimensions taken apart. */
export function dimensions(looks: AllLooks, lines: readonly Line[], figures: BoxIndex<Point>): void {
  const isOpen = ({ path }: Line): boolean => looks[path] === null;
  const ticks = lines.filter((line) => line.length <= dimension.tick && isOpen(line));
  const byMiddle = new BoxIndex(ticks, ({ a, b }) => boxOf([middle(a, b)]));
  const tickAt = (end: Point, line: Line): Line | undefined =>
    byMiddle.around(end, dimension.near).find((tick) => {
      const sine = Math.abs(cross(subtract(tick.b, tick.a), subtract(line.b, line.a))) / (tick.length * line.length);
      const leans = sine >= dimension.lean.least && sine <= dimension.lean.most;
      return leans && tick.length < line.length && distance(middle(tick.a, tick.b), end) <= dimension.near;
    });
  for (const line of lines) {
    if (!isOpen(line)) continue;
    const [first, last] = [tickAt(line.a, line), tickAt(line.b, line)];
    if (first === undefined || last === undefined) continue;
    if (figures.touching(boxOf([line.a, line.b], dimension.text)).length === 0) continue;
    for (const { path } of [line, first, last])
      looks[path] = { role: 'ignore', why: 'a dimension line between two strokes' };
  }
}
