import { degrees, type Point } from '@/core/geometry/vector';
import type { Place } from '@/core/bodies/shell';
import type { ReadModel } from '@/core/handover/model/readModel';
import { lengthOfLine } from '@/core/kinds/lines';
import { alongLine } from '@/core/proof/rule';
import type { Report } from '@/core/proof/report';
import { subjectOf } from '@/core/proof/subject';
import { insideOf, roomsOf, Slabs, type Room } from '@/core/rooms/rooms';
import { Plates } from './plates';
import { Surroundings, type Stretch } from './stretches';

export const surfaceKinds = ['wall', 'floor', 'ceiling', 'roof', 'window', 'door'] as const;
export type SurfaceKind = (typeof surfaceKinds)[number];

/** A surface of a room: what it is, how large, which way it looks, and what lies beyond it. */
export interface Surface {
  kind: SurfaceKind;
  /** Walls, openings and slabs that it is made of. */
  elements: string[];
  /** Square metres by inner faces; of walls with and without what is cut out of them. */
  area: number;
  net: number;
  beyond: 'outside' | 'ground' | Room;
  /** Degrees clockwise from north; zero of what lies level. */
  orientation: number;
  /** Degrees: 0 looks up, 90 stands, 180 looks down. */
  tilt: number;
  /** Its middle. */
  at: Place;
  /** Metres below the ground, of what lies in it. */
  depth: number;
  /** Of what stands along the edge of a floor on the ground: its length, metres. */
  edge: number;
  construction?: string;
  material?: string;
  thickness: number;
}

/** A room with all that closes it. */
export interface Enclosed {
  room: Room;
  volume: number;
  surfaces: Surface[];
}

/** Slabs are looked for so far from a floor or a ceiling, metres. */
const slabReach = 0.7;
/** Areas times normals add up to nothing within this share of the area. */
const closes = 1e-6;

/** Everything that closes the zones of a model. */
export function enclosedRooms(model: ReadModel, report: Report): Enclosed[] {
  const subject = subjectOf(model);
  const slabs = new Slabs(model);
  const rooms = roomsOf(model, slabs, report);
  const [surroundings, plates] = [new Surroundings(subject, rooms), new Plates(rooms)];
  const ground = groundOf(model);
  const north = model.survey?.north ?? 0;
  return rooms.map((room) => {
    const stretches = surroundings.of(room).flatMap((stretch) => atGround(stretch, ground));
    const walls = stretches.map((stretch) => wallSurface(stretch, ground, north));
    const openings = stretches.flatMap((stretch, i) => openingSurfaces(stretch, walls[i], stretches));
    const floors = plates.floor(room).map(({ area, centre, beyond }): Surface => {
      const under = beyond ?? (room.low <= ground + nearGround ? 'ground' : 'outside');
      const slab = slabs.at(centre, room.low, slabReach) ?? slabs.at(insideOf(room.rings[0]), room.low, slabReach);
      const depth = under === 'ground' ? Math.max(0, ground - room.low) : 0;
      return level('floor', area, [...centre, room.low], under, slab?.slab ?? null, depth);
    });
    const ceilings = plates.ceiling(room).map(({ area, centre, beyond }): Surface => {
      const kind = beyond === null ? 'roof' : 'ceiling';
      const slab = slabs.at(centre, room.high, slabReach);
      return level(kind, area, [...centre, room.high], beyond ?? 'outside', slab?.slab ?? null, 0);
    });
    const surfaces = [...walls, ...openings, ...floors, ...ceilings];
    tellGaps(room, stretches, surfaces, report);
    return { room, volume: room.area * (room.high - room.low), surfaces };
  });
}

/** A floor so little above the ground lies on it, metres. */
const nearGround = 0.5;

/** The elevation of the ground: of the level that is its, else zero. */
const groundOf = ({ levels }: ReadModel): number => levels.find(({ kind }) => kind === 'ground')?.elevation ?? 0;

/** A stretch to outside that stands partly in the ground, parted where the ground is. */
function atGround(stretch: Stretch, ground: number): Stretch[] {
  const { low, high, beyond } = stretch;
  if (beyond !== null || ground - low < nearGround || ground >= high) return [stretch];
  return [
    { ...stretch, high: ground },
    { ...stretch, low: ground },
  ];
}

function wallSurface(stretch: Stretch, ground: number, north: number): Surface {
  const { a, b, length, low, high, outward, wall, beyond } = stretch;
  const buried = beyond === null && high <= ground + 1e-6 && ground - low >= nearGround;
  const area = length * (high - low);
  return {
    kind: 'wall',
    elements: wall === null ? [] : [wall.wall.id],
    area,
    net: area,
    beyond: beyond ?? (buried ? 'ground' : 'outside'),
    orientation: orientationOf(outward, north),
    tilt: 90,
    at: [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2, (low + high) / 2],
    depth: buried ? ground - low : 0,
    edge: beyond === null ? length : 0,
    construction: wall?.wall.construction,
    material: wall?.wall.material,
    thickness: wall?.wall.thickness ?? 0,
  };
}

/** Degrees clockwise from north. @param north of the survey, degrees clockwise from the project's y */
const orientationOf = ([x, y]: Point, north: number): number =>
  (((degrees(Math.atan2(x, y)) - north) % 360) + 360) % 360;

/** The doors and windows of a wall that lie in a stretch of it: surfaces of their own, cut out of its. */
function openingSurfaces(stretch: Stretch, wall: Surface, all: readonly Stretch[]): Surface[] {
  if (stretch.wall === null) return [];
  const { line, base, openings } = stretch.wall;
  return openings.flatMap((opening): Surface[] => {
    const { offset, width, height, sill, kind, id } = opening;
    const middle = alongLine(line, Math.min(lengthOfLine(line), offset + width / 2)).point;
    const [from, to] = [Math.max(stretch.low, base + sill), Math.min(stretch.high, base + sill + height)];
    if (to <= from || nearestOf(all, stretch, middle) !== stretch) return [];
    const area = Math.min(width * (to - from), wall.net);
    wall.net -= area;
    return [
      {
        ...wall,
        kind,
        elements: [id, ...wall.elements],
        area,
        net: area,
        edge: 0,
        at: [middle[0], middle[1], (from + to) / 2],
        construction: opening.construction,
        material: undefined,
        thickness: 0,
      },
    ];
  });
}

/** Of the stretches of one wall over the same heights the one that a place of the wall is nearest to. */
function nearestOf(all: readonly Stretch[], like: Stretch, p: Point): Stretch {
  const away = ({ a, b, length }: Stretch): number => {
    const t = ((p[0] - a[0]) * (b[0] - a[0]) + (p[1] - a[1]) * (b[1] - a[1])) / length ** 2;
    const share = Math.max(0, Math.min(1, t));
    return Math.hypot(p[0] - a[0] - share * (b[0] - a[0]), p[1] - a[1] - share * (b[1] - a[1]));
  };
  return all
    .filter(({ wall, low, high }) => wall === like.wall && low === like.low && high === like.high)
    .reduce((best, one) => (away(one) < away(best) - 1e-9 ? one : best), like);
}

type Slab = ReadModel['slabs'][number];

function level(
  kind: 'floor' | 'ceiling' | 'roof',
  area: number,
  at: Place,
  beyond: Surface['beyond'],
  slab: Slab | null,
  depth: number,
): Surface {
  return {
    kind,
    elements: slab === null ? [] : [slab.id],
    area,
    net: area,
    beyond,
    orientation: 0,
    tilt: kind === 'floor' ? 180 : 0,
    at,
    depth,
    edge: 0,
    construction: slab?.construction,
    material: slab?.material,
    thickness: slab?.thickness ?? 0,
  };
}

/** Tells where a room does not close: sides without a wall, and areas whose normals do not cancel. */
function tellGaps(room: Room, stretches: readonly Stretch[], surfaces: readonly Surface[], report: Report): void {
  const open = stretches.filter(({ wall }) => wall === null);
  const length = open.reduce((sum, stretch) => sum + stretch.length, 0);
  if (open.length > 0)
    report.find(
      'does not close',
      'error',
      [room.id],
      [...open[0].a, room.low],
      [
        `${room.name} has no wall along ${length.toFixed(2)} m of its sides, first at ` +
          `${open[0].a.map((value) => value.toFixed(2)).join(', ')}: no heat is counted there.`,
        'Draw the wall there, or take the zone to the walls at Tracing.',
      ],
    );
  const sum: [number, number, number] = [0, 0, 0];
  let area = 0;
  for (const stretch of stretches) {
    const own = stretch.length * (stretch.high - stretch.low);
    sum[0] += stretch.outward[0] * own;
    sum[1] += stretch.outward[1] * own;
    area += own;
  }
  for (const { kind, area: own, tilt } of surfaces) {
    if (tilt === 90 || kind === 'window' || kind === 'door') continue;
    sum[2] += tilt === 0 ? own : -own;
    area += own;
  }
  const gap = Math.hypot(...sum);
  if (gap > closes * area)
    report.find(
      'does not close',
      'error',
      [room.id],
      [...room.rings[0][0], room.low],
      [
        `The surfaces of ${room.name} do not close: ${gap.toFixed(4)} m2 of ${area.toFixed(1)} m2 are missing.`,
        'Look whether its outline crosses itself, or its storey is not there.',
      ],
    );
}
