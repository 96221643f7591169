import { area } from '@/core/geometry/polygon';
import type { AreaMeasure } from '@/core/model/siteSettings';
import { distance, lineCrossing, type Point } from '@/core/geometry/vector';
import type { Room } from '@/core/rooms/rooms';
import type { Plate } from './plates';
import type { Stretch } from './stretches';

/** How much more than by inner faces a room's surfaces are. */
export interface Measured {
  /** Of each stretch, the length of its side as a share of that by inner faces. */
  along: (stretch: Stretch) => number;
  /** Added at the foot and at the head of what reaches from floor to ceiling, metres. */
  down: number;
  up: number;
  /** Floors and ceilings as a share of those by inner faces. */
  plan: number;
}

export const byInnerFaces: Measured = { along: () => 1, down: 0, up: 0, plan: 1 };

/** How far outside a side the measure lies, metres. */
export function offsetOf(own: readonly Stretch[], measure: AreaMeasure): number {
  const thickest = own.reduce((most, { wall }) => Math.max(most, wall?.wall.thickness ?? 0), 0);
  const outer = measure === 'outer' && own.every(({ beyond }) => beyond === null);
  return outer ? thickest : thickest / 2;
}

/** Below this sine two sides run on straight. */
const straight = 1e-6;

/** A ring with each side moved outward by its own offset: where its corners come to lie. */
export function movedOut(ring: readonly Point[], offsets: readonly number[]): Point[] {
  const n = ring.length;
  const sides = ring.map((a, i) => {
    const b = ring[(i + 1) % n];
    const size = distance(a, b) || 1;
    const out: Point = [(b[1] - a[1]) / size, -(b[0] - a[0]) / size];
    const by = (p: Point): Point => [p[0] + out[0] * offsets[i], p[1] + out[1] * offsets[i]];
    return { a: by(a), b: by(b), d: [(b[0] - a[0]) / size, (b[1] - a[1]) / size] };
  });
  return sides.map((side, i) => {
    const before = sides[(i + n - 1) % n];
    const sine = before.d[0] * side.d[1] - before.d[1] * side.d[0];
    const met = Math.abs(sine) < straight ? null : lineCrossing(before.a, before.b, side.a, side.b);
    return met?.point ?? side.a;
  });
}

/** Structure between a room and what lies over or under the most of it, metres. */
function structure(
  plates: readonly Plate[],
  slabs: number,
  gapTo: (room: Room) => number,
  measure: AreaMeasure,
): number {
  const [most] = [...plates].sort((a, b) => b.area - a.area);
  if (most === undefined) return 0;
  if (most.beyond !== null) return Math.max(0, gapTo(most.beyond)) / 2;
  return measure === 'outer' ? slabs : slabs / 2;
}

/** What a room's surfaces are measured by. @param slabs thickness of the slabs under and over the room, metres */
export function measuredBy(
  measure: AreaMeasure,
  room: Room,
  stretches: readonly Stretch[],
  plates: { floor: readonly Plate[]; ceiling: readonly Plate[] },
  slabs: { under: number; over: number },
): Measured {
  if (measure === 'inner') return byInnerFaces;
  const bySide = new Map<number, Stretch[]>();
  for (const stretch of stretches) bySide.set(stretch.side, [...(bySide.get(stretch.side) ?? []), stretch]);
  const shares = new Map<number, number>();
  let side = 0;
  let plan = 0;
  for (const ring of room.rings) {
    const first = side;
    const offsets = ring.map((_, i) => offsetOf(bySide.get(first + i) ?? [], measure));
    const moved = movedOut(ring, offsets);
    ring.forEach((a, i) => {
      const before = distance(a, ring[(i + 1) % ring.length]);
      const after = distance(moved[i], moved[(i + 1) % ring.length]);
      shares.set(first + i, before === 0 ? 1 : after / before);
    });
    plan += area(moved);
    side += ring.length;
  }
  return {
    along: (stretch) => shares.get(stretch.side) ?? 1,
    down: structure(plates.floor, slabs.under, (other) => room.low - other.high, measure),
    up: structure(plates.ceiling, slabs.over, (other) => other.low - room.high, measure),
    plan: plan / room.area,
  };
}
