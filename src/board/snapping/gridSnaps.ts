import { gridCrossings, type Crossing } from '@/core/kinds/gridCrossings';
import type { Model } from '@/core/model/model';
import { offer, type SnapProvider } from './held';

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
  return (look) => {
    const held = offer(look, 'grid', inFront);
    return crossings().flatMap(({ name, point }) => held(point, `crossing ${name} of the grid`));
  };
}
