import { BoxIndex, boxOf } from '@/core/geometry/boxIndex';
import { distance, type Point } from '@/core/geometry/vector';
import type { AllLooks, ArcPiece, Line } from './looks';
import type { LabelledOutline } from './pieces';

/** A grid line broken by something goes on within this, metres. */
const beyond = 15;

/** A ring with a label in it. */
export interface Bubble {
  centre: Point;
  radius: number;
}

/** Whether a line ends on a ring, or just short of it. */
const onRing = (end: Point, { centre, radius }: Bubble): boolean =>
  Math.abs(distance(centre, end) - radius) < 0.25 * radius + 0.05;

/** Grid lines are longer than this, metres. */
const shortestLine = 2;

/** Polygons about a label that long lines end in, pointing at their middles, are bubbles too; boxed numbers are not. */
export function polygonBubbles(looks: AllLooks, rings: readonly LabelledOutline[], lines: readonly Line[]): Bubble[] {
  const ends = lines
    .filter(({ length }) => length > shortestLine)
    .flatMap(({ a, b }) => [
      { at: a, back: b },
      { at: b, back: a },
    ]);
  const index = new BoxIndex(ends, ({ at }) => boxOf([at]));
  return rings.filter((ring) => {
    const pointsAt = ({ at, back }: { at: Point; back: Point }): boolean => {
      const length = distance(at, back);
      const [ux, uy] = [(at[0] - back[0]) / length, (at[1] - back[1]) / length];
      const [dx, dy] = [ring.centre[0] - at[0], ring.centre[1] - at[1]];
      return onRing(at, ring) && dx * ux + dy * uy > 0 && Math.abs(dx * uy - dy * ux) < 0.2 * ring.radius;
    };
    const found = index.around(ring.centre, 1.3 * ring.radius + 0.05).some(pointsAt);
    if (found) looks[ring.path] = { role: 'grid', why: 'an outline about a label at the end of a long line' };
    return found;
  });
}

/** Long lines and arcs that end in labelled rings. */
export function gridLines(
  looks: AllLooks,
  bubbles: readonly Bubble[],
  lines: readonly Line[],
  arcs: readonly ArcPiece[],
): void {
  const rings = new BoxIndex(bubbles, ({ centre, radius }) => boxOf([centre], 1.25 * radius + 0.05));
  for (const { path, a, b, length } of lines)
    if (length > shortestLine && [a, b].some((end) => rings.around(end).some((ring) => onRing(end, ring))))
      looks[path] = { role: 'grid', why: 'a long line that ends in a labelled ring' };
  for (const { path, centre, ends, radius } of arcs) {
    const runsTo = (end: Point, ring: Bubble): boolean =>
      Math.abs(distance(ring.centre, centre) - radius) < 0.15 * ring.radius && onRing(end, ring);
    if (radius > 1.5 && ends.some((end) => rings.around(end, 0.1).some((ring) => runsTo(end, ring))))
      looks[path] = { role: 'grid', why: 'an arc that ends in a labelled ring' };
  }
}

/** Lines on the run of those known to be grid lines. @returns all parts of grid lines known before */
export function gridRuns(looks: AllLooks, lines: readonly Line[]): Line[] {
  const known = lines.filter(({ path }) => looks[path]?.role === 'grid');
  const runs = new BoxIndex(known, ({ a, b }) => boxOf([a, b], beyond));
  for (const { path, a, b, length } of lines)
    if (looks[path] === null && length > 1 && runs.around(a).some((line) => onLine(line, a) && onLine(line, b)))
      looks[path] = { role: 'grid', why: 'on the run of a grid line' };
  return known;
}

/** Whether a point lies on the run of a line, a little beyond its ends too. */
function onLine({ a, b, length }: Line, p: Point): boolean {
  const [ux, uy] = [(b[0] - a[0]) / length, (b[1] - a[1]) / length];
  const [dx, dy] = [p[0] - a[0], p[1] - a[1]];
  const along = dx * ux + dy * uy;
  return Math.abs(dy * ux - dx * uy) < 0.02 && along > -beyond && along < length + beyond;
}
