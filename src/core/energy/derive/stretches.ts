import { BoxIndex } from '@/core/geometry/boxIndex';
import { contains } from '@/core/geometry/polygon';
import { cross, distance, dot, pointAlong, subtract, type Point } from '@/core/geometry/vector';
import type { StandingWall, Subject } from '@/core/proof/subject';
import type { Room } from '@/core/rooms/rooms';

/** A stretch of a side of a room with one wall and one thing beyond it, over one range of heights. */
export interface Stretch {
  /** The side of the room that it is of, counted through its rings. */
  side: number;
  a: Point;
  b: Point;
  /** Metres along it, and its heights. */
  length: number;
  low: number;
  high: number;
  /** Of length one, away from the room. */
  outward: Point;
  wall: StandingWall | null;
  /** The room beyond; null is outside. */
  beyond: Room | null;
}

/** A side lies on a wall's face within this, metres, and within this sine of being parallel to it. */
const [onFace, parallel] = [0.12, 0.05];
/** What lies beyond a wall is asked this far behind its other face, metres. */
const behind = 0.05;
/** Stretches shorter than this are ends of partitions, columns or corners: they go with what is beside them, metres. */
const shortest = 0.65;
/** Ranges of heights lower than this are floors between rooms, metres. */
const lowest = 0.8;
const nothing = 1e-6;

/** Finds what stands along the sides of rooms and what lies beyond. */
export class Surroundings {
  private readonly index: BoxIndex<Room>;

  constructor(
    private readonly subject: Subject,
    rooms: readonly Room[],
  ) {
    this.index = new BoxIndex(rooms, ({ box }) => box);
  }

  /** The stretches of all sides of a room. */
  of(room: Room): Stretch[] {
    let side = -1;
    return room.rings.flatMap((ring) =>
      ring.flatMap((a, i) => {
        const b = ring[(i + 1) % ring.length];
        side += 1;
        return distance(a, b) < nothing ? [] : this.ofSide(room, side, a, b);
      }),
    );
  }

  private ofSide(room: Room, side: number, a: Point, b: Point): Stretch[] {
    const length = distance(a, b);
    const along: Point = [(b[0] - a[0]) / length, (b[1] - a[1]) / length];
    const outward: Point = [along[1], -along[0]];
    const walls = this.wallsAlong(room, a, b, along);
    const cuts = this.cutsAlong(room, a, length, along, outward, walls);
    const parts = cuts.slice(1).map((to, k) => {
      const from = cuts[k];
      const middle = pointAlong(a, b, (from + to) / 2 / length);
      const wall = walls.find((one) => from >= one.from - nothing && to <= one.to + nothing)?.wall ?? null;
      return { from, to, wall, ...this.beyond(room, middle, outward, wall) };
    });
    return joined(parts).flatMap(({ from, to, wall, bands }) =>
      bands.map(({ low, high, beyond }): Stretch => ({
        side,
        a: pointAlong(a, b, from / length),
        b: pointAlong(a, b, to / length),
        length: to - from,
        low,
        high,
        outward,
        wall,
        beyond,
      })),
    );
  }

  /** The walls whose face a side lies on, with the range of the side that each covers; the nearest first. */
  private wallsAlong(room: Room, a: Point, b: Point, along: Point): { wall: StandingWall; from: number; to: number }[] {
    const middle: Point = [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2];
    const stands = ({ base, top }: StandingWall): boolean => base < room.high - nothing && top > room.low + nothing;
    return this.subject
      .wallsNear(middle, distance(a, b) / 2 + onFace)
      .filter(stands)
      .flatMap((wall) =>
        wall.line.slice(1).flatMap((end, i) => {
          const start = wall.line[i];
          const d = subtract(end, start);
          const size = Math.hypot(...d);
          if (size === 0 || Math.abs(cross(d, along)) > parallel * size) return [];
          // From the side to the wall's middle it is half its thickness.
          const off = Math.abs(cross(along, subtract(middleOf(start, end), a))) - wall.wall.thickness / 2;
          if (Math.abs(off) > onFace) return [];
          const ends = [dot(subtract(start, a), along), dot(subtract(end, a), along)];
          return [{ wall, off, from: Math.min(...ends), to: Math.max(...ends) }];
        }),
      )
      .sort((one, other) => Math.abs(one.off) - Math.abs(other.off))
      .map(({ wall, from, to }) => ({ wall, from, to }));
  }

  /** Where along a side something changes: at ends of walls, and at corners of rooms beyond. */
  private cutsAlong(
    room: Room,
    a: Point,
    length: number,
    along: Point,
    outward: Point,
    walls: readonly { wall: StandingWall; from: number; to: number }[],
  ): number[] {
    const thickest = Math.max(onFace, ...walls.map(({ wall }) => wall.wall.thickness));
    const reach = thickest + onFace + behind;
    const [x1, y1] = a;
    const [x2, y2] = [a[0] + along[0] * length, a[1] + along[1] * length];
    const box = [
      Math.min(x1, x2) - reach,
      Math.min(y1, y2) - reach,
      Math.max(x1, x2) + reach,
      Math.max(y1, y2) + reach,
    ] as const;
    const corners = this.index
      .touching(box)
      .filter((other) => other !== room)
      .flatMap(({ rings }) => rings.flat())
      .filter((p) => {
        const off = dot(subtract(p, a), outward);
        return off > -nothing && off <= reach;
      })
      .map((p) => dot(subtract(p, a), along));
    const inside = [...walls.flatMap(({ from, to }) => [from, to]), ...corners].filter(
      (at) => at > nothing && at < length - nothing,
    );
    return [0, ...inside, length]
      .sort((one, other) => one - other)
      .filter((at, i, all) => i === 0 || at - all[i - 1] > nothing);
  }

  /** What lies beyond a place of a side, by heights; whether a room was found at all. */
  private beyond(room: Room, p: Point, outward: Point, wall: StandingWall | null): { bands: Band[]; known: boolean } {
    const far = (wall?.wall.thickness ?? 0) + behind;
    const q: Point = [p[0] + outward[0] * far, p[1] + outward[1] * far];
    const found = this.index
      .around(q)
      .filter((other) => other !== room && other.low < room.high - nothing && other.high > room.low + nothing)
      .filter(({ rings: [outline, ...holes] }) => contains(outline, q) && !holes.some((hole) => contains(hole, q)))
      .sort((one, other) => one.low - other.low);
    return { bands: bandsOf(room, found), known: found.length > 0 };
  }
}

const middleOf = (a: Point, b: Point): Point => [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2];

interface Band {
  low: number;
  high: number;
  beyond: Room | null;
}

/** The heights of a room by what lies beyond; a floor between two rooms goes to the one under it. */
function bandsOf(room: Room, others: readonly Room[]): Band[] {
  const bands: Band[] = [];
  let at = room.low;
  const put = (high: number, beyond: Room | null): void => {
    if (high - at <= nothing) return;
    const last = bands[bands.length - 1];
    if (beyond === null && last !== undefined && high - at <= lowest) last.high = high;
    else bands.push({ low: at, high, beyond });
    at = high;
  };
  for (const other of others) {
    const from = Math.max(other.low, room.low);
    // What lies under the first room, no higher than a floor, belongs to it.
    if (from - at > lowest || bands.length > 0) put(from, null);
    put(Math.min(other.high, room.high), other);
  }
  put(room.high, null);
  return bands;
}

interface Part {
  from: number;
  to: number;
  wall: StandingWall | null;
  bands: Band[];
  known: boolean;
}

const sameBands = (one: readonly Band[], other: readonly Band[]): boolean =>
  one.length === other.length &&
  one.every(({ low, high, beyond }, i) => {
    const twin = other[i];
    return twin.beyond === beyond && Math.abs(twin.low - low) < nothing && Math.abs(twin.high - high) < nothing;
  });

/** Parts with nothing of their own joined to those beside them, and neighbours alike made one. */
function joined(parts: readonly Part[]): Part[] {
  const own = parts.map((part) => ({ ...part }));
  own.forEach((part, i) => {
    if (part.to - part.from > shortest) return;
    const beside = [own[i - 1], own[i + 1]].filter((one) => one !== undefined);
    // An end of a partition beyond the wall is no outside.
    if (!part.known) {
      const room = beside.find(({ known }) => known);
      if (room !== undefined) [part.bands, part.known] = [room.bands, true];
    }
    // A column between two pieces of wall is bridged.
    if (part.wall === null) part.wall = beside.find(({ wall }) => wall !== null)?.wall ?? null;
  });
  const whole: Part[] = [];
  for (const part of own) {
    const last = whole[whole.length - 1];
    if (last !== undefined && last.wall === part.wall && sameBands(last.bands, part.bands)) last.to = part.to;
    else whole.push({ ...part });
  }
  return whole;
}
