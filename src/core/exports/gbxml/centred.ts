import { common, without, type Region } from '@/core/geometry/clipping';
import { distance, dot, subtract, type Point } from '@/core/geometry/vector';
import type { Enclosed, Surface } from '@/core/energy/derive/surface';
import { movedOut, offsetOf } from '@/core/energy/derive/measure';
import type { Stretch } from '@/core/energy/derive/stretches';
import type { Room } from '@/core/rooms/rooms';

/** A room with its sides moved to the middles of its walls, and its floor and ceiling to those of its slabs. */
export interface Centred {
  enclosed: Enclosed;
  /** The outline counter-clockwise, holes clockwise. */
  rings: Point[][];
  low: number;
  high: number;
  /** Where a stretch of its sides comes to lie, from below at its start to above at its end. */
  stretch: (stretch: Stretch) => { a: Point; b: Point; low: number; high: number };
  /** What of its floor or of its ceiling lies on one thing beyond it; together they are all of it. */
  plate: (surface: Surface) => Region;
}

/** Half of the structure between a room and what lies beyond its floor or its ceiling, metres. */
function halfStructure(surfaces: readonly Surface[], gapTo: (room: Room) => number): number {
  const [most] = [...surfaces].sort((a, b) => b.area - a.area);
  if (most === undefined) return 0;
  return typeof most.beyond === 'string' ? most.thickness / 2 : Math.max(0, gapTo(most.beyond)) / 2;
}

const isFloor = ({ kind }: Surface): boolean => kind === 'floor';
/** A level part of the ceiling. */
export const isCeiling = ({ kind, tilt }: Surface): boolean => (kind === 'ceiling' || kind === 'roof') && tilt === 0;

/** A room on centre planes. */
export function centred(enclosed: Enclosed): Centred {
  const { room, stretches, surfaces } = enclosed;
  const sides: { from: Point; to: Point; movedFrom: Point; movedTo: Point }[] = [];
  const rings = room.rings.map((ring) => {
    const first = sides.length;
    const offsets = ring.map((_, i) =>
      offsetOf(
        stretches.filter(({ side }) => side === first + i),
        'centre',
      ),
    );
    const moved = movedOut(ring, offsets);
    ring.forEach((from, i) => {
      const next = (i + 1) % ring.length;
      sides.push({ from, to: ring[next], movedFrom: moved[i], movedTo: moved[next] });
    });
    return moved;
  });
  const low = room.low - halfStructure(surfaces.filter(isFloor), (other) => room.low - other.high);
  const high = room.high + halfStructure(surfaces.filter(isCeiling), (other) => other.low - room.high);
  return {
    enclosed,
    rings,
    low,
    high,
    stretch: ({ a, b, side, low: from, high: to }) => ({
      ...movedAlong(sides[side], a, b),
      low: from === room.low ? low : from,
      high: to === room.high ? high : to,
    }),
    plate: (surface) => plateOf(surface, surfaces.filter(isFloor(surface) ? isFloor : isCeiling), rings),
  };
}

/** A piece of a side where the side comes to lie: its ends with the side's ends, the others square to them. */
function movedAlong(
  side: { from: Point; to: Point; movedFrom: Point; movedTo: Point },
  a: Point,
  b: Point,
): { a: Point; b: Point } {
  const { from, to, movedFrom, movedTo } = side;
  const length = distance(from, to);
  const d = subtract(to, from);
  const at = (p: Point): Point => {
    const share = dot(subtract(p, from), d) / (length * length);
    if (share < atEnd) return movedFrom;
    if (share > 1 - atEnd) return movedTo;
    // The moved side is parallel: the same way along it from where the side's start lies on it.
    const along = dot(subtract(from, movedFrom), d) / (length * length) + share;
    return [movedFrom[0] + along * d[0], movedFrom[1] + along * d[1]];
  };
  return { a: at(a), b: at(b) };
}
/** What ends so near the end of its side ends with it, shares of the side. */
const atEnd = 1e-6;

/** The largest part takes what the others leave of the whole floor. */
function plateOf(surface: Surface, all: readonly Surface[], [outline, ...holes]: readonly Point[][]): Region {
  const whole: Region = [{ outline: [...outline], holes: holes.map((hole) => [...hole]) }];
  const [most, ...others] = [...all].sort((one, other) => other.area - one.area);
  if (surface !== most) return common(whole, surface.region ?? []);
  return others.reduce((rest, { region = [] }) => without(rest, region), whole);
}
