import { distance } from '@/core/geometry/vector';
import { gridCrossings, type Crossing } from '@/core/kinds/gridCrossings';
import type { Model } from '@/core/model/model';
import { reachPixels, type Held, type SnapProvider } from './held';

/** Crossings of the grid are held on to before anything else: by so many pixels they stand in front. */
const inFront = -6;

/** Crossings of the model's grid lines, found anew when one of them has changed. */
export function gridSnaps(model: () => Model): SnapProvider {
  let known: { model: Model; version: number; crossings: Crossing[] } | null = null;
  const crossings = (): Crossing[] => {
    const now = model();
    const version = now.levelVersion(null);
    if (known?.model !== now || known.version !== version)
      known = { model: now, version, crossings: gridCrossings(Array.from(now.ofKind('grid'), ({ shape }) => shape)) };
    return known.crossings;
  };
  return (at, metresPerPixel) =>
    crossings().flatMap(({ name, point }): Held[] => {
      const pixels = distance(point, at) / metresPerPixel;
      if (pixels > reachPixels) return [];
      const words = `crossing ${name} of the grid`;
      return [{ words, drawingId: '', point, drawingPoint: point, pixels, rank: inFront }];
    });
}
