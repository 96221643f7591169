import { BoxIndex, boxOf } from '@/core/geometry/boxIndex';
import { leastBy } from '@/core/lists';
import { cross, distance, dot, subtract, type Point } from '@/core/geometry/vector';
import type { Bubble } from './bubbles';
import type { GridPiece } from './joined';

/** What leaders from a bubble to its line are like. */
const leader = {
  /** Metres. */
  longest: 4,
  /** So many pieces at most: a stub at the bubble, an oblique piece, a stub at the line. */
  steps: 3,
  /** The line goes on at least this many times as long as the piece that leads to it. */
  lineShare: 2,
  /** A piece begins between these shares of a ring's reach: the sides of a square lie nearer than its corners. */
  onRing: { least: 0.6, most: 1.15 },
  /** Pieces whose directions differ by less are one line, sine. */
  straight: 0.02,
  /** A line's end, once it is joined and straightened, is still this close to where its leader ends, metres. */
  atEnd: 0.05,
};

/** A bubble that stands aside of its line, and where the leader from it meets the line's end. */
export interface Led {
  at: Point;
  bubble: Bubble;
  /** The pieces that lead there, and the one of the line that they lead to. */
  steps: GridPiece[];
  line: GridPiece;
}

/**
 * Tells pieces that lead from a bubble aside, where two would overlap, to the end of its line. They are no lines.
 * @param gap how far ends that meet may lie apart, metres
 */
export function leadersOf(
  pieces: readonly GridPiece[],
  bubbles: readonly Bubble[],
  gap: number,
): { led: Led[]; rest: GridPiece[] } {
  const ends = new BoxIndex(
    pieces.flatMap((piece) => [
      { piece, at: piece.a, other: piece.b },
      { piece, at: piece.b, other: piece.a },
    ]),
    ({ at }) => boxOf([at]),
  );
  const led: Led[] = [];
  const used = new Set<GridPiece>();
  for (const bubble of bubbles) {
    const { centre, radius, label, alone } = bubble;
    if (label === null) continue;
    const farthest = leader.onRing.most * radius + gap;
    for (const { piece, at, other } of ends.around(centre, farthest)) {
      const away = distance(at, centre);
      // About a text without a ring it begins anywhere near.
      const nearest = alone === null ? leader.onRing.least * radius - gap : 0;
      if (away > farthest || away < nearest) continue;
      const walked = walk(piece, other, ends, gap);
      if (walked === null) continue;
      led.push({ ...walked, bubble });
      for (const step of walked.steps) used.add(step);
    }
  }
  return { led, rest: pieces.filter((piece) => !used.has(piece)) };
}

/** From a first piece's far end on, round a corner or two, to the end of a line; null where it leads nowhere. */
function walk(
  first: GridPiece,
  from: Point,
  ends: BoxIndex<{ piece: GridPiece; at: Point; other: Point }>,
  gap: number,
): { at: Point; steps: GridPiece[]; line: GridPiece } | null {
  const steps = [first];
  let at = from;
  while (steps.length <= leader.steps) {
    const last = steps[steps.length - 1];
    if (lengthOf(last) > leader.longest) return null;
    // Where other lines end there too, it goes on the straightest way.
    const onward = ends
      .around(at, gap)
      .filter(({ piece, at: end }) => !steps.includes(piece) && distance(end, at) <= gap);
    const next = leastBy(onward, (end) => -forward(last, at, end.other));
    if (next === null || isStraight(last, next.piece)) return null;
    if (lengthOf(next.piece) >= leader.lineShare * lengthOf(last) && lengthOf(next.piece) > leader.longest)
      return { at, steps, line: next.piece };
    steps.push(next.piece);
    at = next.other;
  }
  return null;
}

const lengthOf = ({ a, b }: GridPiece): number => distance(a, b);

const isStraight = (p: GridPiece, q: GridPiece): boolean =>
  Math.abs(cross(subtract(p.b, p.a), subtract(q.b, q.a))) < leader.straight * lengthOf(p) * lengthOf(q);

/** How far a way on from a place keeps to the direction of the piece before: the cosine of the turn. */
function forward({ a, b }: GridPiece, at: Point, to: Point): number {
  const before = distance(a, at) > distance(b, at) ? subtract(at, a) : subtract(at, b);
  const after = subtract(to, at);
  return dot(before, after) / (Math.hypot(...before) * Math.hypot(...after));
}

/** The leader that ties a bubble to an end of a line of such pieces. */
export const ledTo = (end: Point, pieces: readonly GridPiece[], leaders: BoxIndex<Led>): Led | null =>
  leaders
    .around(end, leader.atEnd)
    .find(({ at, line }) => distance(at, end) <= leader.atEnd && pieces.some(({ entity }) => entity === line.entity)) ??
  null;
