import type { Point } from '@/core/geometry/vector';
import type { Picked } from '../boardStore';

/** How far the cursor reaches for something to hold on to, in pixels. */
export const reachPixels = 12;

/** Something that the cursor can hold on to. `rank` is by how many pixels it stands back behind others. */
export interface Held extends Picked {
  pixels: number;
  rank: number;
}

/** Whoever knows of places to hold on to offers those near a point; never more than a fixed number is looked at. */
export type SnapProvider = (at: Point, metresPerPixel: number) => Held[];

/** Offers beyond these say nothing new. */
const mostOffered = 8;
/** Points closer than this are one, pixels; the better of them is kept. */
const onePlace = 0.05;

/** What the cursor can hold on to by all providers, the best first. */
export function holdsAt(providers: readonly SnapProvider[], at: Point, metresPerPixel: number): Held[] {
  const all = providers
    .flatMap((provider) => provider(at, metresPerPixel))
    .filter(({ pixels }) => pixels <= reachPixels)
    .sort((a, b) => a.pixels + a.rank - (b.pixels + b.rank));
  const kept: Held[] = [];
  for (const held of all) {
    if (kept.length === mostOffered) break;
    const same = ({ point: [x, y], drawingId }: Held): boolean =>
      drawingId === held.drawingId && Math.hypot(x - held.point[0], y - held.point[1]) < onePlace * metresPerPixel;
    if (!kept.some(same)) kept.push(held);
  }
  return kept;
}
