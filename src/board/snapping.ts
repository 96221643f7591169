import { apply, determinant, invert } from '@/core/geometry/transform';
import type { Point } from '@/core/geometry/vector';
import { distance } from '@/core/geometry/vector';
import type { Crossing } from '@/core/reading/candidate';
import { gridCrossings } from '@/core/reading/grid/crossings';
import type { ElementRow } from '@/core/model/elements';
import { pieceAt, type Piece } from '@/core/underlay/pieces';
import { nearestOn, snapsNear, type SnapKind } from '@/core/underlay/snap';
import type { Picked, PickedLine } from './boardStore';
import type { BoardDrawing } from './scene';

/** How far the cursor reaches for something to hold on to, in pixels. */
export const reachPixels = 12;

export type Held = Picked & { kind: SnapKind; pixels: number };

/** What the cursor can hold on to on all drawings shown, the best first. */
export function holdsNear(drawings: readonly BoardDrawing[], at: Point, metresPerPixel: number): Held[] {
  return drawings.flatMap((drawing) => {
    const { underlay, transform, hidden } = drawing;
    const { primitives, index, layers } = underlay;
    const scale = Math.sqrt(Math.abs(determinant(transform)));
    const local = apply(invert(transform), at);
    const names = layers.map((layer) => layer.name);
    return snapsNear(
      primitives,
      index,
      names,
      local,
      (reachPixels * metresPerPixel) / scale,
      (layer) => hidden[layer] === 0,
    ).map((snap): Held => ({
      kind: snap.kind,
      words: snap.words,
      drawingId: drawing.id,
      point: apply(transform, snap.point),
      drawingPoint: [snap.point[0] + primitives.origin[0], snap.point[1] + primitives.origin[1]],
      pixels: (snap.distance * scale) / metresPerPixel,
    }));
  });
}

/** How far from a line a click still means it, in pixels. */
const clickPixels = 6;

const crossings = new WeakMap<readonly ElementRow[], Crossing[]>();

/** All crossings of the grid, found once for one set of elements. */
function crossingsOf(elements: readonly ElementRow[]): Crossing[] {
  let found = crossings.get(elements);
  if (!found) {
    found = gridCrossings(elements.flatMap((element) => (element.kind === 'grid' ? [element.shape] : [])));
    crossings.set(elements, found);
  }
  return found;
}

/** Crossings of the model's grid within reach, the nearest first. */
export function gridHolds(elements: readonly ElementRow[], at: Point, metresPerPixel: number): Held[] {
  return crossingsOf(elements)
    .flatMap(({ name, point }): Held[] => {
      const pixels = distance(point, at) / metresPerPixel;
      return pixels > reachPixels
        ? []
        : [
            {
              kind: 'crossing',
              words: `crossing ${name} of the grid`,
              drawingId: '',
              point,
              drawingPoint: point,
              pixels,
            },
          ];
    })
    .sort((a, b) => a.pixels - b.pixels);
}

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
