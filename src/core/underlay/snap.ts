import { pointOnArc } from '@/core/geometry/bulge';
import { distance, dot, middle, subtract, type Point } from '@/core/geometry/vector';
import { crossingsOf } from './crossings';
import { pieceAt, type Piece, type PieceIndex } from './pieces';
import { PathFlag, type Primitives } from './primitives';

export type SnapKind = 'end' | 'crossing' | 'centre' | 'middle' | 'nearest';

/** A point that the cursor can hold on to. */
export interface Snap {
  kind: SnapKind;
  /** About the primitives' origin, in drawing units. */
  point: Point;
  distance: number;
  /** What it is, in words: "end of line on A-WALL". */
  words: string;
}

/** How much nearer a lesser kind has to be to win, as a share of the reach. */
export const handicap: Record<SnapKind, number> = { end: 0, crossing: 0.05, centre: 0.1, middle: 0.25, nearest: 0.6 };

/** At most this many sides and centres are looked at, the nearest by their boxes, however many lie in reach. */
const mostLooked = 192;
/** Crossings are sought among at most this many sides, the nearest. */
const crowd = 24;

/**
 * The points near the cursor that it can hold on to, the best first.
 * Crossings are computed on the fly for the nearest sides, never stored.
 * @param at the cursor about the primitives' origin, in drawing units
 * @param reach how far from the cursor, in drawing units
 * @param shown whether the layer of that number takes part
 */
export function snapsNear(
  primitives: Primitives,
  index: PieceIndex,
  layers: readonly string[],
  at: Point,
  reach: number,
  shown: (layer: number) => boolean,
): Snap[] {
  const sides = index.vertex.length;
  const found: Snap[] = [];
  const offer = (kind: SnapKind, point: Point, words: () => string) => {
    const away = distance(point, at);
    if (away > reach) return;
    const twin = found.findIndex((snap) => distance(snap.point, point) < reach * 1e-4);
    if (twin < 0) found.push({ kind, point, distance: away, words: words() });
    else if (handicap[kind] < handicap[found[twin].kind]) found[twin] = { kind, point, distance: away, words: words() };
  };
  const layerOf = (item: number): number =>
    primitives.layer[index.path[item < sides ? item : index.centreOf[item - sides]]];
  const items = index.tree.neighbors(at[0], at[1], mostLooked, reach, (item) => shown(layerOf(item)));
  const close: { piece: Piece; away: number }[] = [];
  for (const item of items) {
    const centre = item >= sides;
    if (centre && item - sides >= index.centreOf.length) continue;
    const piece = pieceAt(primitives, index, centre ? index.centreOf[item - sides] : item);
    const what = () => `${nameOf(primitives, piece)} on ${layers[primitives.layer[piece.path]]}`;
    if (centre) {
      offer('centre', piece.arc!.centre, () => `centre of ${what()}`);
      continue;
    }
    const nearest = nearestOn(piece, at);
    const away = distance(nearest, at);
    if (away > reach) continue;
    close.push({ piece, away });
    if ((primitives.flags[piece.path] & PathFlag.circle) === 0) {
      offer('end', piece.a, () => `end of ${what()}`);
      offer('end', piece.b, () => `end of ${what()}`);
      offer('middle', piece.arc ? pointOnArc(piece.arc, 0.5) : middle(piece.a, piece.b), () => `middle of ${what()}`);
    }
    offer('nearest', nearest, () => `on ${what()}`);
  }
  const pieces = close
    .sort((a, b) => a.away - b.away)
    .slice(0, crowd)
    .map(({ piece }) => piece);
  const layerName = (piece: Piece): string => layers[primitives.layer[piece.path]];
  for (const [i, one] of pieces.entries())
    for (const other of pieces.slice(i + 1))
      for (const point of crossingsOf(one, other))
        offer('crossing', point, () =>
          one.path <= other.path
            ? crossingWords(layerName(one), layerName(other))
            : crossingWords(layerName(other), layerName(one)),
        );
  const rank = (snap: Snap) => snap.distance + handicap[snap.kind] * reach;
  return found.sort((a, b) => rank(a) - rank(b)).slice(0, 8);
}

const crossingWords = (a: string, b: string) => (a === b ? `crossing on ${a}` : `crossing of ${a} and ${b}`);

function nameOf(primitives: Primitives, piece: Piece): string {
  if ((primitives.flags[piece.path] & PathFlag.circle) !== 0) return 'circle';
  return piece.arc ? 'arc' : 'line';
}

/** The point of a side nearest to p. */
export function nearestOn(piece: Piece, p: Point): Point {
  if (piece.arc === null) {
    const ab = subtract(piece.b, piece.a);
    const square = dot(ab, ab);
    const t = square === 0 ? 0 : Math.min(1, Math.max(0, dot(subtract(p, piece.a), ab) / square));
    return [piece.a[0] + t * ab[0], piece.a[1] + t * ab[1]];
  }
  const { centre, start, sweep } = piece.arc;
  const angle = Math.atan2(p[1] - centre[1], p[0] - centre[0]);
  const turn = sweep >= 0 ? angle - start : start - angle;
  const along = turn - Math.floor(turn / (2 * Math.PI)) * 2 * Math.PI;
  if (along <= Math.abs(sweep)) return pointOnArc(piece.arc, along / Math.abs(sweep));
  return distance(piece.a, p) < distance(piece.b, p) ? piece.a : piece.b;
}
