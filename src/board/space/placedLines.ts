import type { Place } from '@/core/bodies/shell';
import type { Transform } from '@/core/geometry/transform';
import { direction, type Point } from '@/core/geometry/vector';
import type { SegmentStore } from '@/core/underlay/segments';

/** Where an upright drawing stands in the plan: the start of its line, and its direction in radians. */
export interface Standing {
  at: Point;
  turning: number;
}

/**
 * A drawing in space: its lines, where they lie in the plan and at which height; or, upright, along their line and at
 * true heights.
 */
export interface SpaceUnderlay {
  store: SegmentStore;
  transform: Transform;
  elevation: number;
  stands: Standing | null;
  hidden: Uint8Array;
}

/** Of one drawing at most this many lines are drawn, the longest: in space a drawing is there to find one's way. */
const mostLines = 40_000;

/** The longest shown lines of a drawing, placed, about an origin; the store has them by length, the longest first. */
export function placedLines(
  { store, transform: t, elevation, stands, hidden }: SpaceUnderlay,
  [ox, oy, oz]: Place,
): Float32Array {
  const count = Math.min(store.layer.length, mostLines);
  const points = new Float32Array(count * 6);
  const [c, s] = direction(stands?.turning ?? 0);
  let n = 0;
  for (let i = 0; i < store.layer.length && n < count; i += 1) {
    if (hidden[store.layer[i]] === 1) continue;
    for (let end = 0; end < 2; end += 1) {
      const [x, y] = [store.xy[4 * i + 2 * end], store.xy[4 * i + 2 * end + 1]];
      const [u, v] = [t[0] * x + t[2] * y + t[4], t[1] * x + t[3] * y + t[5]];
      const at = 6 * n + 3 * end;
      points[at] = (stands === null ? u : stands.at[0] + c * u) - ox;
      points[at + 1] = (stands === null ? v : stands.at[1] + s * u) - oy;
      points[at + 2] = (stands === null ? elevation : v) - oz;
    }
    n += 1;
  }
  return points.slice(0, n * 6);
}
