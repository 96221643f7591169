import { BoxIndex, boxOf } from '@/core/geometry/boxIndex';
import { distance, type Point } from '@/core/geometry/vector';
import { defaultSettings } from '@/core/patterns/settings';
import type { AllLooks, Line } from './looks';

/** Ends this near to a jamb are on it, metres. */
export const onJamb = 0.02;

/** A line from jamb to jamb, and how long the jambs are, metres. */
export interface PaneLine extends Line {
  across: number;
}

/**
 * Lines from the middle part of one jamb to that of another, with no face between the jambs' ends: single panes.
 * @param sides straight sides of outlines, which have jambs among them too
 */
export function paneLines(looks: AllLooks, lines: readonly Line[], sides: readonly Line[]): PaneLine[] {
  const open = lines.filter(({ path }) => looks[path] === null);
  const drawn = [...open, ...sides.filter(({ path }) => looks[path] === null)];
  const jambs = drawn.filter(
    ({ length }) => length >= defaultSettings.wall.least && length <= defaultSettings.wall.most,
  );
  const index = new BoxIndex(jambs, ({ a, b }) => boxOf([a, b], onJamb));
  const ends = new BoxIndex(drawn, ({ a, b }) => boxOf([a, b], onJamb));
  /** Where a point lies on a jamb that is square to a line: 0 and 1 are its ends. */
  const jambAt = (p: Point, line: Line): Line | undefined =>
    index.around(p).find((jamb) => {
      const [ux, uy] = [(jamb.b[0] - jamb.a[0]) / jamb.length, (jamb.b[1] - jamb.a[1]) / jamb.length];
      const [dx, dy] = [p[0] - jamb.a[0], p[1] - jamb.a[1]];
      const along = (dx * ux + dy * uy) / jamb.length;
      const square = Math.abs(ux * (line.b[0] - line.a[0]) + uy * (line.b[1] - line.a[1])) < 0.05 * line.length;
      return square && Math.abs(dy * ux - dx * uy) < onJamb && along > 0.2 && along < 0.8;
    });
  return open.flatMap((line): PaneLine[] => {
    if (line.length < 0.4 || line.length > 3.5) return [];
    const [from, to] = [jambAt(line.a, line), jambAt(line.b, line)];
    if (!from || !to || from === to) return [];
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
    return faced ? [] : [{ ...line, across: Math.min(from.length, to.length) }];
  });
}

/** Tells single panes. */
export function panes(looks: AllLooks, lines: readonly Line[], sides: readonly Line[]): void {
  for (const { path } of paneLines(looks, lines, sides))
    looks[path] = { role: 'window', why: 'a line from jamb to jamb' };
}
