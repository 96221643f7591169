import { leastOf, mostOf, pushAll } from '@/core/lists';
import { direction, type Point } from '@/core/geometry/vector';
import { angleOfPiece, lengthOfPiece, type Family, type StraightPiece } from '@/core/patterns/families';

/** A straight piece on the grid's layers. */
export interface GridPiece extends StraightPiece {
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

/**
 * Joins the pieces of each family that lie on one line across gaps, doubled ones merged, and straightens
 * what is off its family's direction by less than the tolerance.
 * @param sideways pieces closer than this across are on one line, metres
 * @param gap pieces closer than this along are one line, metres
 * @param goesOn whether what ends in one place and begins in another, further apart on one straight, is one line
 */
export function joinLines(
  families: readonly Family<GridPiece>[],
  sideways: number,
  gap: number,
  goesOn: (before: Stretch, next: Stretch) => boolean,
): JoinedLine[] {
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
      const lineAt = (part: readonly Span[]): JoinedLine => lineOf(part, u, origin, family.angle);
      /** `line` is what the spans make, where that is known. */
      let open: { spans: Span[]; from: Point; to: Point; line: JoinedLine | null } | null = null;
      for (const part of partsOf(run, gap)) {
        const line = lineAt(part);
        if (open !== null && goesOn({ start: open.from, end: open.to }, line)) {
          pushAll(open.spans, part);
          [open.to, open.line] = [line.end, null];
          continue;
        }
        if (open !== null) lines.push(open.line ?? lineAt(open.spans));
        open = { spans: part, from: line.start, to: line.end, line };
      }
      if (open !== null) lines.push(open.line ?? lineAt(open.spans));
    }
    return lines.map((line) => ({ ...line, parallels: lines.length - 1 }));
  });
}

/** Where a line begins and ends. */
export type Stretch = Pick<JoinedLine, 'start' | 'end'>;

/** A piece along its family's direction. */
interface Span {
  piece: GridPiece;
  from: number;
  to: number;
  offset: number;
}

/** Pieces of one straight, in their order, parted where they lie apart. */
function partsOf(run: readonly Span[], gap: number): Span[][] {
  const parts: Span[][] = [];
  let to = -Infinity;
  for (const span of run) {
    if (span.from - to > gap) parts.push([]);
    parts[parts.length - 1].push(span);
    to = Math.max(to, span.to);
  }
  return parts;
}

function lineOf(spans: readonly Span[], u: Point, origin: Point, angle: number): JoinedLine {
  const weight = spans.reduce((sum, span) => sum + lengthOfPiece(span.piece), 0);
  const offset = spans.reduce((sum, span) => sum + span.offset * lengthOfPiece(span.piece), 0) / weight;
  const from = leastOf(spans.map((span) => span.from));
  const to = mostOf(spans.map((span) => span.to));
  const at = (along: number): Point => [
    origin[0] + u[0] * along - u[1] * offset,
    origin[1] + u[1] * along + u[0] * offset,
  ];
  const off = spans.reduce((worst, span) => {
    const turn = angleOfPiece(span.piece) - angle;
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
