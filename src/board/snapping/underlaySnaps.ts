import { apply, determinant, invert } from '@/core/geometry/transform';
import { handicap, snapsNear } from '@/core/underlay/snap';
import type { BoardDrawing } from '../scene';
import type { Held, SnapProvider } from './held';

/** Points of the drawings shown: ends, crossings, centres, middles, and places on their lines. */
export const underlaySnaps =
  (drawings: () => readonly BoardDrawing[]): SnapProvider =>
  ({ at, metresPerPixel, reach }) =>
    drawings().flatMap((drawing) => {
      const { underlay, transform, hidden } = drawing;
      const { primitives, index, layers } = underlay;
      const scale = Math.sqrt(Math.abs(determinant(transform)));
      const local = apply(invert(transform), at);
      const names = layers.map((layer) => layer.name);
      const drawnReach = (reach * metresPerPixel) / scale;
      return snapsNear(primitives, index, names, local, drawnReach, (layer) => hidden[layer] === 0).map(
        (snap): Held => ({
          group: 'drawn',
          words: snap.words,
          drawingId: drawing.id,
          point: apply(transform, snap.point),
          drawingPoint: [snap.point[0] + primitives.origin[0], snap.point[1] + primitives.origin[1]],
          pixels: (snap.distance * scale) / metresPerPixel,
          rank: handicap[snap.kind] * reach,
        }),
      );
    });
