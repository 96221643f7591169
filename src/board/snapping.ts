import { apply, determinant, invert } from '@/core/geometry/transform';
import type { Point } from '@/core/geometry/vector';
import { distance } from '@/core/geometry/vector';
import { pieceAt } from '@/core/underlay/pieces';
import { nearestOn, snapsNear, type SnapKind } from '@/core/underlay/snap';
import type { Picked } from './boardStore';
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
    return snapsNear(primitives, index, names, local, (reachPixels * metresPerPixel) / scale, (layer) => hidden[layer] === 0).map((snap): Held => ({
      kind: snap.kind, words: snap.words, drawingId: drawing.id, point: apply(transform, snap.point),
      drawingPoint: [snap.point[0] + primitives.origin[0], snap.point[1] + primitives.origin[1]], pixels: (snap.distance * scale) / metresPerPixel,
    }));
  });
}

/** How far from a line a click still means it, in pixels. */
const clickPixels = 6;

/** The underlay line under a point, of drawings that are not held. */
export function lineAt(drawings: readonly BoardDrawing[], at: Point, metresPerPixel: number): { drawingId: string; path: number } | null {
  let best: { drawingId: string; path: number; away: number } | null = null;
  for (const { id, underlay, transform, hidden, display } of drawings) {
    if (display.held) continue;
    const scale = Math.sqrt(Math.abs(determinant(transform)));
    const [reach, p] = [(clickPixels * metresPerPixel) / scale, apply(invert(transform), at)];
    const { primitives, index } = underlay;
    for (const item of index.tree.search(p[0] - reach, p[1] - reach, p[0] + reach, p[1] + reach)) {
      if (item >= index.vertex.length) continue;
      const piece = pieceAt(primitives, index, item);
      const away = distance(nearestOn(piece, p), p) * scale;
      if (hidden[primitives.layer[piece.path]] === 0 && away <= reach * scale && (best === null || away < best.away)) best = { drawingId: id, path: piece.path, away };
    }
  }
  return best && { drawingId: best.drawingId, path: best.path };
}
