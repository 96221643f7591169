import { boxOf, type Box } from '@/core/geometry/boxIndex';
import type { Point } from '@/core/geometry/vector';
import type { Bubble } from '@/core/patterns/grid/bubbles';
import type { Drawn } from './drawn';
import type { AllLooks, Line } from './looks';

/** So many bubbles say where the plan is. */
const fewest = 3;
/** The frame stands off bubbles and grid lines by this much at least, metres; outer walls stand nearer to the last. */
const apart = 1;
/** A side of the frame is at least this share of the plan's shorter side. */
const along = 0.9;
/** A frame drawn as one outline has at most so many corners: four, and those of a title block in its corner. */
const mostCorners = 8;

const looksLikeFrame = { role: 'ignore', why: 'a line round all bubbles, as of the sheet\u2019s frame' } as const;

/**
 * The frame of the sheet: long lines that pass all grid bubbles and grid lines on one side, and outlines about all of
 * them. Nothing of a building lies well outside its grid.
 */
export function frame(looks: AllLooks, drawn: Drawn, bubbles: readonly Bubble[], lines: readonly Line[]): void {
  if (bubbles.length < fewest) return;
  const axes = lines.filter(({ path }) => looks[path]?.role === 'grid').flatMap(({ a, b }) => [a, b]);
  const plan = boxOf([...bubbles.map(({ centre }) => centre), ...axes], apart);
  const shorter = Math.min(plan[2] - plan[0], plan[3] - plan[1]);
  for (const line of lines)
    if (looks[line.path] === null && line.length >= along * shorter && passes(line, plan))
      looks[line.path] = looksLikeFrame;
  for (let path = 0; path < looks.length; path += 1) {
    if (
      looks[path] !== null ||
      drawn.p.chain[path] !== 0 ||
      drawn.p.start[path + 1] - drawn.p.start[path] > mostCorners + 1
    )
      continue;
    const corners = drawn.corners(path);
    if (corners !== null && corners.length >= 4 && holds(boxOf(corners), plan)) looks[path] = looksLikeFrame;
  }
}

/** Whether a box lies to one side of a line, beside it and not beyond its ends. */
function passes({ a, b, length }: Line, [minX, minY, maxX, maxY]: Box): boolean {
  const [ux, uy] = [(b[0] - a[0]) / length, (b[1] - a[1]) / length];
  const corners: Point[] = [
    [minX, minY],
    [maxX, minY],
    [maxX, maxY],
    [minX, maxY],
  ];
  const across = corners.map(([x, y]) => (y - a[1]) * ux - (x - a[0]) * uy);
  const middle = ((minX + maxX) / 2 - a[0]) * ux + ((minY + maxY) / 2 - a[1]) * uy;
  return (across.every((off) => off > 0) || across.every((off) => off < 0)) && middle > 0 && middle < length;
}

const holds = (outer: Box, inner: Box): boolean =>
  outer[0] < inner[0] && outer[1] < inner[1] && outer[2] > inner[2] && outer[3] > inner[3];
