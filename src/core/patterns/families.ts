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
 * tolerance. Its direction is the median weighted by length, which one line that is off does not move.
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
  return groups.map((group) => {
    const total = group.reduce((sum, { piece }) => sum + lengthOfPiece(piece), 0);
    let sum = 0;
    const median = group.find(({ piece }) => (sum += lengthOfPiece(piece)) >= total / 2)!;
    return { angle: median.angle, pieces: group.map(({ piece }) => piece) };
  });
}
