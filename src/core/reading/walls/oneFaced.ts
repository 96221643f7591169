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

/** The walls of one family about a line that may go on with one face. */
interface Around {
  family: FaceFamily;
  /** The family's faces by their offsets. */
  faces: BoxIndex<Face>;
  marks: BoxIndex<Mark>;
  jambs: Jambs;
  /** Whether a wall of the family that ends at a place ends on another. */
  abuts: (along: number, offset: number) => boolean;
}

export const facesByOffset = ({ faces }: FaceFamily): BoxIndex<Face> =>
  new BoxIndex(faces, ({ offset }) => [0, offset, 0, offset]);

/**
 * Stretches of a wall of which one face is not drawn: a jamb as long as the wall is thick ends the other face, which
 * runs from there to the wall itself, or to one that it ends on. Without them one missed line makes two rooms one.
 * @param line the strips of the wall, of one offset and thickness, in their order along
 */
export function oneFaced(line: readonly Strip[], { family, faces, marks, jambs, abuts }: Around): Strip[] {
  const [{ offset, thickness }] = line;
  const own = [-thickness / 2, thickness / 2].flatMap((aside) =>
    faces.touching([0, offset + aside - onLine, 0, offset + aside + onLine]),
  );
  const isDrawn = (from: number, to: number): boolean =>
    marks.touching(boxOf([inPlan(family, from + atEnd, offset), inPlan(family, to - atEnd, offset)])).length > 0;
  const isHeld = (along: number): boolean =>
    line.some(({ from, to }) => Math.min(Math.abs(from - along), Math.abs(to - along)) <= atEnd) ||
    abuts(along, offset);
  return own
    .flatMap((face) => uncovered(face, line))
    .filter(({ from, to }) => {
      const [jambFrom, jambTo] = [from, to].map((along) => jambs(along, offset, thickness));
      const isNear = line.some((strip) => strip.from - to < goesOn && from - strip.to < goesOn);
      return isNear && jambFrom !== jambTo && isHeld(jambFrom ? to : from) && !isDrawn(from, to);
    })
    .map((stretched) => ({
      family,
      offset,
      thickness,
      ...stretched,
      inner: 0,
      parted: 0,
      oneFaced: stretched.to - stretched.from,
    }));
}

/** The short stretches of a face that no strip covers. @param strips in their order along */
function uncovered(face: Face, strips: readonly Strip[]) {
  return face.spans.flatMap((span) => {
    const left: { from: number; to: number; sources: Strip['sources'] }[] = [];
    let at = span.from;
    for (const { from, to } of [...strips, { from: span.to, to: span.to }]) {
      if (to < at || from > span.to) continue;
      if (from > at) left.push({ from: at, to: from, sources: span.sources });
      at = Math.max(at, to);
    }
    return left.filter(({ from, to }) => to - from >= stretch.least && to - from <= stretch.most);
  });
}
