import type { Point } from '@/core/geometry/vector';

/** A straight piece. */
export interface StraightPiece {
  a: Point;
  b: Point;
}

/** Pieces of one direction; the angle in radians, in [0, pi). */
export interface Family<P extends StraightPiece> {
  angle: number;
  pieces: P[];
}

export const lengthOfPiece = ({ a, b }: StraightPiece) => Math.hypot(b[0] - a[0], b[1] - a[1]);

/** The angle of a piece's run, in [0, pi). */
export const angleOfPiece = ({ a, b }: StraightPiece) => {
  const angle = Math.atan2(b[1] - a[1], b[0] - a[0]);
  return ((angle % Math.PI) + Math.PI) % Math.PI;
};

/**
 * Groups pieces by direction: sorted by angle, a family ends where the next angle is further off than the
 * tolerance. Its direction is the one that most of it, by length, is drawn in exactly; where no two pieces are drawn
 * alike, that of the piece that is square to such a family; else the median weighted by length.
 */
export function familiesOf<P extends StraightPiece>(pieces: readonly P[], offAxis: number): Family<P>[] {
  const sorted = pieces.map((piece) => ({ piece, angle: angleOfPiece(piece) })).sort((a, b) => a.angle - b.angle);
  const groups: { piece: P; angle: number }[][] = [];
  for (const entry of sorted) {
    const group = groups[groups.length - 1];
    if (group && entry.angle - group[group.length - 1].angle <= offAxis) group.push(entry);
    else groups.push([entry]);
  }
  const [first, last] = [groups[0], groups[groups.length - 1]];
  // Angles just below pi are angles just below zero.
  if (groups.length > 1 && first[0].angle + Math.PI - last[last.length - 1].angle <= offAxis) {
    groups.pop();
    groups[0] = [...last.map(({ piece, angle }) => ({ piece, angle: angle - Math.PI })), ...first];
  }
  const drawn = groups.map(drawnAlike);
  return groups.map((group, i) => ({
    angle: drawn[i] ?? squareTo(group, drawn) ?? medianOf(group),
    pieces: group.map(({ piece }) => piece),
  }));
}

/** Directions that differ by less are one direction, drawn exactly: 0.005 degrees, a millimetre in eleven metres. */
const exact = (0.005 * Math.PI) / 180;
/** At least this share of a family's length has to be drawn in its exact direction. */
const leastShare = 0.2;

interface Directed {
  piece: StraightPiece;
  angle: number;
}

const lengthOf = (group: readonly Directed[]): number =>
  group.reduce((sum, { piece }) => sum + lengthOfPiece(piece), 0);

/** The angle in the middle by length. */
function medianOf(group: readonly Directed[]): number {
  const total = lengthOf(group);
  let sum = 0;
  return group.find(({ piece }) => (sum += lengthOfPiece(piece)) >= total / 2)!.angle;
}

/** The angle that most length agrees on exactly; null where no two pieces agree or they are few. */
function drawnAlike(group: readonly Directed[]): number | null {
  let best: { from: number; to: number; length: number } | null = null;
  let [from, length] = [0, 0];
  for (let to = 0; to < group.length; to += 1) {
    length += lengthOfPiece(group[to].piece);
    while (group[to].angle - group[from].angle > exact) length -= lengthOfPiece(group[from++].piece);
    if (to > from && length > (best?.length ?? 0)) best = { from, to, length };
  }
  if (best === null || best.length < leastShare * lengthOf(group)) return null;
  return medianOf(group.slice(best.from, best.to + 1));
}

/** The angle of a piece that is square to one of some directions; null where none is. */
function squareTo(group: readonly Directed[], directions: readonly (number | null)[]): number | null {
  const off = (angle: number, other: number): number => {
    const turn = (angle - other) / (Math.PI / 2);
    return Math.abs(turn - Math.round(turn)) * (Math.PI / 2);
  };
  const square = group.find(({ angle }) => directions.some((other) => other !== null && off(angle, other) < exact));
  return square?.angle ?? null;
}
