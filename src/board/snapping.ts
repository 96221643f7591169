import { apply, determinant, invert } from '@/core/geometry/transform';
import type { Point } from '@/core/geometry/vector';
import { snapsNear, type SnapKind } from '@/core/underlay/snap';
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
