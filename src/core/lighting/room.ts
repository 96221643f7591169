import { boxOf } from '@/core/geometry/boxIndex';
import { area, contains } from '@/core/geometry/polygon';
import { inBox, measure } from '@/core/geometry/ringParts';
import { cross, distance, subtract, type Point } from '@/core/geometry/vector';
import type { Place } from '@/core/bodies/shell';
import type { Room } from '@/core/rooms/rooms';
import { paneOnSide, paneReflectance, type Pane } from './panes';

/** The parts of a room that its light is told of. */
export const roomParts = ['ceiling', 'walls', 'floor'] as const;
export type RoomPart = (typeof roomParts)[number];

/** A piece of a room's surface: small enough that its light is even. */
export interface Patch {
  part: RoomPart;
  centre: Place;
  /** Points of it that light is asked at; each stands for the same share of it. */
  samples: Place[];
  normal: Place;
  area: number;
  reflectance: number;
}

/** A room as light sees it: its patches, and what stands between. */
export interface LitRoom {
  room: Room;
  patches: Patch[];
  /** Whether one place sees another. */
  sees: (a: Place, b: Place) => boolean;
}

/** From so many times its size on a patch is seen from its middle alone. */
const farFrom = 5;

/** Whether a place is so far from a patch that the patch's middle stands for all of it. */
export function isFar([x, y, z]: Place, { centre: [cx, cy, cz], area }: Patch): boolean {
  const [dx, dy, dz] = [x - cx, y - cy, z - cz];
  return dx * dx + dy * dy + dz * dz > farFrom * farFrom * area;
}

/** Reflectances where nobody says them (EN 12464-1, 4.2.2). */
export const plainReflectances = { ceiling: 0.7, wall: 0.5, floor: 0.2 } as const;

/** A room has about so many patches, none smaller and none larger than this, metres. */
const aboutPatches = 300;
const [smallest, largest] = [0.15, 2];

/** Divides a room's surfaces into patches. @param columns outlines of what stands in it @param panes its windows */
export function litRoomOf(room: Room, columns: readonly (readonly Point[])[], panes: readonly Pane[] = []): LitRoom {
  const { low, high, rings } = room;
  const said = room.zone.reflectances ?? {};
  const height = high - low;
  const around = rings.reduce(
    (sum, ring) => sum + ring.reduce((all, p, i) => all + distance(p, ring[(i + 1) % ring.length]), 0),
    0,
  );
  const size = Math.max(smallest, Math.min(largest, Math.sqrt((2 * room.area + around * height) / aboutPatches)));
  const own = columns.filter((outline) => outline.some((p) => contains(rings[0], p)));
  const free = ({ centre: [x, y] }: Patch): boolean => !own.some((outline) => contains(outline, [x, y]));
  const wall = said.wall ?? plainReflectances.wall;
  const patches = [
    ...flat(rings, size, high, 'ceiling', said.ceiling ?? plainReflectances.ceiling).filter(free),
    ...flat(rings, size, low, 'floor', said.floor ?? plainReflectances.floor).filter(free),
    ...rings.flatMap((ring) =>
      ring.flatMap((a, i) => {
        const b = ring[(i + 1) % ring.length];
        const dark = panes.flatMap((pane) => paneOnSide(pane, a, b) ?? []);
        return upright(a, b, [low, high], size, wall).map((patch) => withPanes(patch, a, dark));
      }),
    ),
    ...own.flatMap((outline) => columnSides(outline, rings, [low, high], size, wall)),
  ];
  return { room, patches, sees: sight(rings, own) };
}

/** A ceiling or a floor in cells, those at its edge cut by it. */
function flat(rings: Point[][], size: number, z: number, part: 'ceiling' | 'floor', reflectance: number): Patch[] {
  const [x1, y1, x2, y2] = boxOf(rings[0]);
  const [columns, rows] = [Math.max(1, Math.ceil((x2 - x1) / size)), Math.max(1, Math.ceil((y2 - y1) / size))];
  const [w, d] = [(x2 - x1) / columns, (y2 - y1) / rows];
  const normal: Place = [0, 0, part === 'ceiling' ? -1 : 1];
  return Array.from({ length: columns * rows }, (_, k) => k).flatMap((k): Patch[] => {
    const [x, y] = [x1 + (k % columns) * w, y1 + Math.floor(k / columns) * d];
    const found = measure(inBox(rings, x, y, w, d));
    if (found === null || found.area < 1e-9) return [];
    const { area: own, centre } = found;
    const whole = own > 0.999 * w * d;
    const samples: Place[] = whole
      ? halves.flatMap((i) => halves.map((j): Place => [x + i * w, y + j * d, z]))
      : [[centre[0], centre[1], z]];
    return [{ part, centre: [centre[0], centre[1], z], samples, normal, area: own, reflectance }];
  });
}
const halves = [0.25, 0.75];

/** The sides of a column that look into the room. */
function columnSides(
  outline: readonly Point[],
  [outer, ...holes]: readonly Point[][],
  heights: readonly [number, number],
  size: number,
  reflectance: number,
): Patch[] {
  // Outside lies to the right of a line: a column is the outside of the room.
  const ring = area(outline) > 0 ? [...outline].reverse() : outline;
  const looksIn = ({ centre: [x, y], normal: [u, v] }: Patch): boolean => {
    const before: Point = [x + u * justBefore, y + v * justBefore];
    return contains(outer, before) && !holes.some((hole) => contains(hole, before));
  };
  return ring
    .flatMap((a, i) => upright(a, ring[(i + 1) % ring.length], heights, size, reflectance))
    .filter(looksIn)
    .map(({ width: _, height: __, ...patch }) => patch);
}
/** Metres before a side that still lie before what touches it. */
const justBefore = 0.01;

/** A piece of a wall, so wide and so high. */
type WallPatch = Patch & { width: number; height: number };

/** A wall in cells; outside lies to the right of its line, so that it looks to the left. */
function upright(
  a: Point,
  b: Point,
  [low, high]: readonly [number, number],
  size: number,
  reflectance: number,
): WallPatch[] {
  const length = distance(a, b);
  if (length < 1e-6) return [];
  const [columns, rows] = [Math.max(1, Math.ceil(length / size)), Math.max(1, Math.ceil((high - low) / size))];
  const normal: Place = [-(b[1] - a[1]) / length, (b[0] - a[0]) / length, 0];
  const at = (u: number, v: number): Place => [
    a[0] + (b[0] - a[0]) * u,
    a[1] + (b[1] - a[1]) * u,
    low + (high - low) * v,
  ];
  return Array.from({ length: columns * rows }, (_, k) => {
    const [i, j] = [k % columns, Math.floor(k / columns)];
    return {
      part: 'walls' as const,
      centre: at((i + 0.5) / columns, (j + 0.5) / rows),
      samples: halves.flatMap((u) => halves.map((v) => at((i + u) / columns, (j + v) / rows))),
      normal,
      area: (length * (high - low)) / columns / rows,
      width: length / columns,
      height: (high - low) / rows,
      reflectance,
    };
  });
}

/** A patch of a wall that windows take a part of throws back less. @param dark along the side from a, and in height */
function withPanes(patch: WallPatch, a: Point, dark: readonly NonNullable<ReturnType<typeof paneOnSide>>[]): Patch {
  const { width, height, ...own } = patch;
  const along = distance(a, [own.centre[0], own.centre[1]]);
  const covered = dark.reduce((sum, { from, to, low, high }) => {
    const wide = Math.min(to, along + width / 2) - Math.max(from, along - width / 2);
    const tall = Math.min(high, own.centre[2] + height / 2) - Math.max(low, own.centre[2] - height / 2);
    return sum + Math.max(0, wide) * Math.max(0, tall);
  }, 0);
  const share = Math.min(1, covered / own.area);
  return { ...own, reflectance: own.reflectance + share * (paneReflectance - own.reflectance) };
}

/** Whether one side of a plan is crossed by another, ends aside. */
function crosses(p: Point, q: Point, a: Point, b: Point): boolean {
  const [u, d] = [subtract(q, p), subtract(b, a)];
  const det = cross(u, d);
  if (Math.abs(det) < 1e-12) return false;
  const away = subtract(a, p);
  const [t, s] = [cross(away, d) / det, cross(away, u) / det];
  return t > inside && t < 1 - inside && s > -1e-9 && s < 1 + 1e-9;
}
/** Places on a wall see from a little before it, shares of the look. */
const inside = 1e-4;

const isConvex = (ring: readonly Point[]): boolean =>
  ring.every((p, i) => {
    const [q, r] = [ring[(i + 1) % ring.length], ring[(i + 2) % ring.length]];
    return cross(subtract(q, p), subtract(r, q)) > -1e-9;
  });

/** What stands in a prism is seen in its plan: walls of a room that is not convex, holes and columns are in the way. */
function sight(rings: readonly Point[][], own: readonly (readonly Point[])[]): LitRoom['sees'] {
  if (rings.length === 1 && own.length === 0 && isConvex(rings[0])) return () => true;
  const sides = [...rings, ...own].flatMap((ring) =>
    ring.map((a, i): [Point, Point] => [a, ring[(i + 1) % ring.length]]),
  );
  return (a, b) => !sides.some(([p, q]) => crosses([a[0], a[1]], [b[0], b[1]], p, q));
}
