import { common, regionArea, regionCentre, together, without, type Region } from '@/core/geometry/clipping';
import { BoxIndex } from '@/core/geometry/boxIndex';
import { bandOutline } from '@/core/kinds/lines';
import type { Point } from '@/core/geometry/vector';
import { sameHeight, thickestFloor, type Room } from '@/core/rooms/rooms';

/** A part of a room's floor or ceiling with one thing beyond it. */
export interface Plate {
  region: Region;
  area: number;
  centre: Point;
  /** The room beyond; null is outside, or the ground. */
  beyond: Room | null;
}

/** Walls between rooms are at most twice so thick, metres: what of a floor lies over one goes to the room beside it. */
const halfWall = 0.35;
/** Smaller parts are rounding, square metres. */
const leastPart = 0.02;

const regionOf = ({ rings: [outline, ...holes] }: Room): Region => [{ outline, holes }];

/** Tells what lies under the floors and over the ceilings of rooms. */
export class Plates {
  private readonly index: BoxIndex<Room>;
  private readonly grownRooms = new Map<Room, Region>();

  constructor(rooms: readonly Room[]) {
    this.index = new BoxIndex(rooms, ({ box }) => box);
  }

  floor = (room: Room): Plate[] =>
    this.divided(room, (other) => {
      const gap = room.low - other.high;
      return gap > -sameHeight && gap <= thickestFloor;
    });

  ceiling = (room: Room): Plate[] =>
    this.divided(room, (other) => {
      const gap = other.low - room.high;
      return gap > -sameHeight && gap <= thickestFloor;
    });

  private divided(room: Room, meets: (other: Room) => boolean): Plate[] {
    const others = this.index.touching(room.box).filter((other) => other !== room && meets(other));
    let rest = regionOf(room);
    const parts = new Map<Room, Region[]>();
    // First what lies over the rooms themselves, then what lies over the walls about them.
    for (const shape of [regionOf, this.grown])
      for (const other of others) {
        const shared = common(rest, shape(other));
        if (regionArea(shared) === 0) continue;
        parts.set(other, [...(parts.get(other) ?? []), shared]);
        rest = without(rest, shared);
      }
    const plates = [...parts].map(([beyond, regions]): Plate => plateOf(together(regions), beyond));
    if (regionArea(rest) > 0) plates.push(plateOf(rest, null));
    return withoutRounding(plates, room.area);
  }

  /** A room with half the thickest wall about it. */
  private grown = (room: Room): Region => {
    const known = this.grownRooms.get(room);
    if (known !== undefined) return known;
    const sides = room.rings.flatMap((ring) =>
      ring.map((a, i) => bandOutline(lengthened(a, ring[(i + 1) % ring.length]), 2 * halfWall)),
    );
    const made = together([regionOf(room), ...sides.map((outline): Region => [{ outline, holes: [] }])]);
    this.grownRooms.set(room, made);
    return made;
  };
}

/** A side made longer at both ends, so that corners are covered. */
function lengthened([x1, y1]: Point, [x2, y2]: Point): [Point, Point] {
  const size = Math.hypot(x2 - x1, y2 - y1) || 1;
  const [dx, dy] = [((x2 - x1) / size) * halfWall, ((y2 - y1) / size) * halfWall];
  return [
    [x1 - dx, y1 - dy],
    [x2 + dx, y2 + dy],
  ];
}

const plateOf = (region: Region, beyond: Room | null): Plate => ({
  region,
  area: regionArea(region),
  centre: regionCentre(region),
  beyond,
});

/** Parts that are no more than rounding go to the largest, and the parts add up to the room. */
function withoutRounding(plates: readonly Plate[], area: number): Plate[] {
  const large = plates.filter((plate) => plate.area > leastPart).sort((a, b) => b.area - a.area);
  const kept = large.length > 0 ? large : [...plates];
  if (kept.length === 0) return [];
  const [first, ...others] = kept;
  return [{ ...first, area: area - others.reduce((sum, plate) => sum + plate.area, 0) }, ...others];
}
