import { distance, type Point } from '@/core/geometry/vector';
import type { SnapGroup } from '@/project/tracing';
import type { Picked } from '../boardStore';

/** How far the cursor reaches for something to hold on to where nobody has said, in pixels. */
export const reachPixels = 12;

/** Something that the cursor can hold on to. `rank` is by how many pixels it stands back behind others. */
export interface Held extends Picked {
  group: SnapGroup;
  pixels: number;
  rank: number;
}

/** Where the cursor looks for something to hold on to. */
export interface SnapLook {
  at: Point;
  metresPerPixel: number;
  /** How far it reaches, pixels. */
  reach: number;
  /** The last point set, which feet and directions are taken from; null where there is none. */
  base: Point | null;
}

/** Whoever knows of places to hold on to offers those near a point; never more than a fixed number is looked at. */
export type SnapProvider = (look: SnapLook) => Held[];

/** Offers beyond these say nothing new. */
const mostOffered = 8;
/** Points closer than this are one, pixels; the better of them is kept. */
const onePlace = 0.05;

/** A place of the model or made of it, where it is in reach. */
export function offer({ at, metresPerPixel, reach }: SnapLook, group: SnapGroup, rank: number) {
  return (point: Point, words: string): Held[] => {
    const pixels = distance(point, at) / metresPerPixel;
    return pixels > reach ? [] : [{ group, words, drawingId: '', point, drawingPoint: point, pixels, rank }];
  };
}

/** What the cursor can hold on to by all providers, the best first. @param off what it does not hold on to */
export function holdsAt(providers: readonly SnapProvider[], look: SnapLook, off: readonly SnapGroup[] = []): Held[] {
  const all = providers
    .flatMap((provider) => provider(look))
    .filter(({ pixels, group }) => pixels <= look.reach && !off.includes(group))
    .sort((a, b) => a.pixels + a.rank - (b.pixels + b.rank));
  const kept: Held[] = [];
  for (const held of all) {
    if (kept.length === mostOffered) break;
    const same = ({ point: [x, y], drawingId }: Held): boolean =>
      drawingId === held.drawingId && Math.hypot(x - held.point[0], y - held.point[1]) < onePlace * look.metresPerPixel;
    if (!kept.some(same)) kept.push(held);
  }
  return kept;
}
