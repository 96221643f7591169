import { apply, determinant, invert } from '@/core/geometry/transform';
import { distance, type Point } from '@/core/geometry/vector';
import { pieceAt, type Piece } from '@/core/underlay/pieces';
import { nearestOn } from '@/core/underlay/snap';
import type { PickedLine } from '../boardStore';
import type { BoardDrawing } from '../scene';

/** How far from a line a click still means it, in pixels. */
const clickPixels = 6;

/** The straight line of an underlay under a point, placed. */
export function straightAt(drawings: readonly BoardDrawing[], at: Point, metresPerPixel: number): PickedLine | null {
  const found = lineAt(drawings, at, metresPerPixel, true);
  const drawing = found && drawings.find(({ id }) => id === found.drawingId);
  if (!found || !drawing || found.piece.arc !== null) return null;
  const { primitives, layers } = drawing.underlay;
  const drawn = ([x, y]: Point): Point => [x + primitives.origin[0], y + primitives.origin[1]];
  const [from, to] = [apply(drawing.transform, found.piece.a), apply(drawing.transform, found.piece.b)];
  return {
    from,
    to,
    drawingId: drawing.id,
    drawn: [drawn(found.piece.a), drawn(found.piece.b)],
    words: `line on ${layers[primitives.layer[found.path]].name}`,
  };
}

/** The underlay line under a point, of drawings that are not held unless they are asked for too. */
export function lineAt(
  drawings: readonly BoardDrawing[],
  at: Point,
  metresPerPixel: number,
  heldToo = false,
): { drawingId: string; path: number; piece: Piece } | null {
  let best: { drawingId: string; path: number; piece: Piece; away: number } | null = null;
  for (const { id, underlay, transform, hidden, display } of drawings) {
    if (display.held && !heldToo) continue;
    const scale = Math.sqrt(Math.abs(determinant(transform)));
    const [reach, p] = [(clickPixels * metresPerPixel) / scale, apply(invert(transform), at)];
    const { primitives, index } = underlay;
    for (const item of index.tree.search(p[0] - reach, p[1] - reach, p[0] + reach, p[1] + reach)) {
      if (item >= index.vertex.length) continue;
      const piece = pieceAt(primitives, index, item);
      const away = distance(nearestOn(piece, p), p) * scale;
      if (hidden[primitives.layer[piece.path]] === 0 && away <= reach * scale && (best === null || away < best.away))
        best = { drawingId: id, path: piece.path, piece, away };
    }
  }
  return best && { drawingId: best.drawingId, path: best.path, piece: best.piece };
}
