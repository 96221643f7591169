import { groupBy } from '@/core/groupBy';
import { BoxIndex, boxOf } from '@/core/geometry/boxIndex';
import { distance, type Point } from '@/core/geometry/vector';
import { defaultSettings } from '@/core/patterns/settings';
import type { AllLooks, Line } from './looks';

/** Where more lines than this have their middles within a wall's thickness, they fill something or are drawn again. */
const mostInPlace = 200;

const middleOf = ({ a, b }: Line): Point => [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2];

/** Lines without those that crowd one place, whose neighbours nobody could look through one by one. */
function withoutCrowds(lines: readonly Line[]): Line[] {
  const cellOf = (line: Line): string =>
    middleOf(line)
      .map((v) => Math.floor(v / defaultSettings.wall.most))
      .join();
  const cells = groupBy(lines, cellOf);
  return lines.filter((line) => (cells.get(cellOf(line))?.length ?? 0) <= mostInPlace);
}

/** Three or more lines between common ends, within a wall's thickness. */
export function windows(looks: AllLooks, lines: readonly Line[]): void {
  const open = withoutCrowds(lines.filter(({ path, length }) => looks[path] === null && length > 0.4 && length < 5));
  const index = new BoxIndex(open, (line) => boxOf([middleOf(line)]));
  for (const line of open) {
    const { a, b, length } = line;
    const middle = middleOf(line);
    const [ux, uy] = [(b[0] - a[0]) / length, (b[1] - a[1]) / length];
    const beside = index.around(middle, defaultSettings.wall.most).filter((other) => {
      const [mx, my] = [(other.a[0] + other.b[0]) / 2 - middle[0], (other.a[1] + other.b[1]) / 2 - middle[1]];
      const turn = Math.abs(ux * (other.b[1] - other.a[1]) - uy * (other.b[0] - other.a[0])) / other.length;
      return Math.abs(other.length - length) < 0.02 && turn < 0.02 && Math.abs(mx * ux + my * uy) < 0.02;
    });
    if (beside.length >= 3)
      for (const { path } of beside)
        looks[path] = { role: 'window', why: `${beside.length} lines between common ends` };
  }
}

/** Ends this near to a jamb are on it, metres. */
const onJamb = 0.02;

/** Lines from the middle part of one jamb to that of another, with no face between the jambs' ends: single panes. */
export function panes(looks: AllLooks, lines: readonly Line[]): void {
  const open = lines.filter(({ path }) => looks[path] === null);
  const jambs = open.filter(
    ({ length }) => length >= defaultSettings.wall.least && length <= defaultSettings.wall.most,
  );
  const index = new BoxIndex(jambs, ({ a, b }) => boxOf([a, b], onJamb));
  const ends = new BoxIndex(open, ({ a, b }) => boxOf([a, b], onJamb));
  /** Where a point lies on a jamb that is square to a line: 0 and 1 are its ends. */
  const jambAt = (p: Point, line: Line): Line | undefined =>
    index.around(p).find((jamb) => {
      const [ux, uy] = [(jamb.b[0] - jamb.a[0]) / jamb.length, (jamb.b[1] - jamb.a[1]) / jamb.length];
      const [dx, dy] = [p[0] - jamb.a[0], p[1] - jamb.a[1]];
      const along = (dx * ux + dy * uy) / jamb.length;
      const square = Math.abs(ux * (line.b[0] - line.a[0]) + uy * (line.b[1] - line.a[1])) < 0.05 * line.length;
      return square && Math.abs(dy * ux - dx * uy) < onJamb && along > 0.2 && along < 0.8;
    });
  for (const line of open) {
    if (line.length < 0.4 || line.length > 3.5) continue;
    const [from, to] = [jambAt(line.a, line), jambAt(line.b, line)];
    if (!from || !to || from === to) continue;
    // A face from jamb to jamb makes the stretch a wall with leaves.
    const faced = [from.a, from.b].some((corner) =>
      ends
        .around(corner)
        .some(
          (face) =>
            face !== from &&
            Math.abs(face.length - line.length) < 2 * onJamb &&
            [face.a, face.b].some((p) => distance(p, corner) < onJamb) &&
            [face.a, face.b].some((p) => [to.a, to.b].some((q) => distance(p, q) < onJamb)),
        ),
    );
    if (!faced) looks[line.path] = { role: 'window', why: 'a line from jamb to jamb' };
  }
}
