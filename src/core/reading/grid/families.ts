import { direction, type Point } from '@/core/geometry/vector';

/** A straight piece. */
interface Piece {
  a: Point;
  b: Point;
}

/** A straight piece on the grid's layers. */
export interface GridPiece extends Piece {
  handle: string;
  entity: number;
  layer: number;
}

/** A grid line put together from its pieces. */
export interface JoinedLine {
  start: Point;
  end: Point;
  pieces: GridPiece[];
  /** The angle that was taken out, in radians; zero where it was true. */
  straightened: number;
  /** How many lines share its direction. */
  parallels: number;
}

interface Family<P extends Piece> {
  angle: number;
  pieces: P[];
}

const lengthOf = ({ a, b }: Piece) => Math.hypot(b[0] - a[0], b[1] - a[1]);

/** The angle of a piece's run, in [0, pi). */
const angleOf = ({ a, b }: Piece) => {
  const angle = Math.atan2(b[1] - a[1], b[0] - a[0]);
  return ((angle % Math.PI) + Math.PI) % Math.PI;
};

/**
 * Groups pieces by direction: sorted by angle, a family ends where the next angle is further off than the
 * tolerance. Its direction is the median weighted by length, which one line that is off does not move.
 */
export function familiesOf<P extends Piece>(pieces: readonly P[], offAxis: number): Family<P>[] {
  const sorted = pieces.map((piece) => ({ piece, angle: angleOf(piece) })).sort((a, b) => a.angle - b.angle);
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
    const total = group.reduce((sum, { piece }) => sum + lengthOf(piece), 0);
    let sum = 0;
    const median = group.find(({ piece }) => (sum += lengthOf(piece)) >= total / 2)!;
    return { angle: median.angle, pieces: group.map(({ piece }) => piece) };
  });
}

/**
 * Joins the pieces of each family that lie on one line across gaps, doubled ones merged, and straightens
 * what is off its family's direction by less than the tolerance.
 * @param sideways pieces closer than this across are on one line, metres
 * @param gap pieces closer than this along are one line, metres
 */
export function joinLines(families: readonly Family<GridPiece>[], sideways: number, gap: number): JoinedLine[] {
  return families.flatMap((family) => {
    const u = direction(family.angle);
    const origin = family.pieces[0].a;
    const spans = family.pieces
      .map((piece) => {
        const local = (p: Point) => [
          (p[0] - origin[0]) * u[0] + (p[1] - origin[1]) * u[1],
          (p[1] - origin[1]) * u[0] - (p[0] - origin[0]) * u[1],
        ];
        const [a, b] = [local(piece.a), local(piece.b)];
        return { piece, from: Math.min(a[0], b[0]), to: Math.max(a[0], b[0]), offset: (a[1] + b[1]) / 2 };
      })
      .sort((p, q) => p.offset - q.offset);
    const lines: JoinedLine[] = [];
    for (let i = 0; i < spans.length;) {
      let j = i + 1;
      while (j < spans.length && spans[j].offset - spans[j - 1].offset <= sideways) j += 1;
      const run = spans.slice(i, j).sort((p, q) => p.from - q.from);
      i = j;
      for (let k = 0; k < run.length;) {
        const pieces = [run[k]];
        let to = run[k].to;
        for (k += 1; k < run.length && run[k].from - to <= gap; k += 1) {
          pieces.push(run[k]);
          to = Math.max(to, run[k].to);
        }
        lines.push(lineOf(pieces, u, origin, family.angle));
      }
    }
    return lines.map((line) => ({ ...line, parallels: lines.length - 1 }));
  });
}

function lineOf(
  spans: { piece: GridPiece; from: number; to: number; offset: number }[],
  u: Point,
  origin: Point,
  angle: number,
): JoinedLine {
  const weight = spans.reduce((sum, span) => sum + lengthOf(span.piece), 0);
  const offset = spans.reduce((sum, span) => sum + span.offset * lengthOf(span.piece), 0) / weight;
  const from = Math.min(...spans.map((span) => span.from));
  const to = Math.max(...spans.map((span) => span.to));
  const at = (along: number): Point => [
    origin[0] + u[0] * along - u[1] * offset,
    origin[1] + u[1] * along + u[0] * offset,
  ];
  const off = spans.reduce((worst, span) => {
    const turn = angleOf(span.piece) - angle;
    const bent = Math.abs(turn - Math.round(turn / Math.PI) * Math.PI);
    return Math.max(worst, bent);
  }, 0);
  const [{ piece }] = spans;
  // A single true line keeps its drawn ends to the last digit.
  if (spans.length === 1 && off < 1e-12) {
    const forward = (piece.b[0] - piece.a[0]) * u[0] + (piece.b[1] - piece.a[1]) * u[1] >= 0;
    return {
      start: forward ? piece.a : piece.b,
      end: forward ? piece.b : piece.a,
      pieces: [piece],
      straightened: 0,
      parallels: 0,
    };
  }
  return { start: at(from), end: at(to), pieces: spans.map((span) => span.piece), straightened: off, parallels: 0 };
}
