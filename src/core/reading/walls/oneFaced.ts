import { BoxIndex, boxOf } from '@/core/geometry/boxIndex';
import { inPlan, type Face, type FaceFamily } from '@/core/patterns/faces';
import type { Strip } from '@/core/patterns/strips';
import type { Mark, Jambs } from './runs';

/** A stretch of wall with one face alone is so long, metres: an opening is wider. */
const stretch = { least: 0.1, most: 0.6 };
/** What its wall goes on as lies this near, metres: beyond a door. */
const goesOn = 2.5;
/** Faces lie on one line, and ends at one place, within this, metres. */
const onLine = 0.012;
const atEnd = 0.03;

/**
 * Stretches of walls of which one face is not drawn: a jamb as long as the wall is thick ends the other face, which
 * runs from there to the wall itself, or to one that it ends on. Without them one missed line makes two rooms one.
 * @param abuts whether a wall of the family that ends at a place ends on another
 */
export function oneFaced(
  family: FaceFamily,
  strips: readonly Strip[],
  marks: BoxIndex<Mark>,
  jambs: Jambs,
  abuts: (along: number, offset: number) => boolean,
): Strip[] {
  const own = strips.filter((strip) => strip.family === family);
  const byOffset = new BoxIndex(own, ({ offset }) => [0, offset, 0, offset]);
  return family.faces.flatMap((face) =>
    linesAt(face, byOffset, own).flatMap((line) => {
      const alike = own.filter((strip) => isOneLine(strip, line));
      return uncovered(face, alike).flatMap(({ from, to, sources }): Strip[] => {
        const isNear = alike.some((strip) => strip.from - to < goesOn && from - strip.to < goesOn);
        const [jambFrom, jambTo] = [from, to].map((along) => jambs(along, line.offset, line.thickness));
        if (!isNear || jambFrom === jambTo) return [];
        const far = jambFrom ? to : from;
        const isHeld =
          alike.some((strip) => Math.min(Math.abs(strip.from - far), Math.abs(strip.to - far)) <= atEnd) ||
          abuts(far, line.offset);
        const isDrawn =
          marks.touching(boxOf([inPlan(family, from + atEnd, line.offset), inPlan(family, to - atEnd, line.offset)]))
            .length > 0;
        if (!isHeld || isDrawn) return [];
        const { offset, thickness } = line;
        return [{ family, offset, thickness, from, to, sources, inner: 0, parted: 0, oneFaced: to - from }];
      });
    }),
  );
}

const isOneLine = (strip: Strip, line: Strip): boolean =>
  Math.abs(strip.offset - line.offset) <= onLine && Math.abs(strip.thickness - line.thickness) <= onLine;

/** The walls that a face is one of the faces of, the longest strip of each. */
function linesAt(face: Face, byOffset: BoxIndex<Strip>, own: readonly Strip[]): Strip[] {
  const thickest = own.reduce((most, { thickness }) => Math.max(most, thickness), 0);
  const found = byOffset
    .touching([0, face.offset - thickest / 2 - onLine, 0, face.offset + thickest / 2 + onLine])
    .filter(({ offset, thickness }) => Math.abs(Math.abs(face.offset - offset) - thickness / 2) <= onLine)
    .sort((p, q) => q.to - q.from - (p.to - p.from));
  return found.filter((strip, i) => found.findIndex((other) => isOneLine(strip, other)) === i);
}

/** The short stretches of a face that no strip covers. */
function uncovered(face: Face, strips: readonly Strip[]) {
  const sorted = [...strips].sort((p, q) => p.from - q.from);
  return face.spans.flatMap((span) => {
    const left: { from: number; to: number; sources: Strip['sources'] }[] = [];
    let at = span.from;
    for (const { from, to } of [...sorted, { from: span.to, to: span.to }]) {
      if (to < at || from > span.to) continue;
      if (from > at) left.push({ from: at, to: from, sources: span.sources });
      at = Math.max(at, to);
    }
    return left.filter(({ from, to }) => to - from >= stretch.least && to - from <= stretch.most);
  });
}
