import type { Progress } from '@/core/progress';
import { regionArea, regionCentre, type Region } from '@/core/geometry/clipping';
import { counterClockwise } from '@/core/geometry/polygon';
import { degrees, pointAlong, radians, type Point } from '@/core/geometry/vector';
import type { Place } from '@/core/bodies/shell';
import type { ReadModel } from '@/core/handover/model/readModel';
import { areaMeasures, type AreaMeasure } from '@/core/model/siteSettings';
import { alongLine, lengthOfLine } from '@/core/kinds/lines';
import type { Report } from '@/core/proof/report';
import { subjectOf } from '@/core/proof/subject';
import { insideOf, roomsOf, Slabs, type Room } from '@/core/rooms/rooms';
import { measuredBy, type Measured } from './measure';
import { Overhead, type Slope } from './overhead';
import { Plates, type Plate } from './plates';
import { stepsBetween, type CeilingPart, type Step } from './steps';
import { Surroundings, type Stretch } from './stretches';
import type { Enclosed, Surface } from './surface';
import { Terrain, type Standing } from './terrain';

/** Slabs are looked for so far from a floor or a ceiling, metres. */
const slabReach = 0.7;
/** Areas times normals add up to nothing within this share of the area. */
const closes = 1e-6;

/** What rooms are enclosed with: their surroundings, worked out once. */
interface Around {
  measure: AreaMeasure;
  surroundings: Surroundings;
  plates: Plates;
  overhead: Overhead;
  terrain: Terrain;
  slabs: Slabs;
  ground: number;
  north: number;
  report: Report;
}

/** Everything that closes the zones of a model. */
export function enclosedRooms(model: ReadModel, report: Report, progress?: Progress): Enclosed[] {
  const slabs = new Slabs(model);
  const rooms = roomsOf(model, slabs, report);
  const around: Around = {
    measure: areaMeasures.find((one) => one === model.site?.areas) ?? 'inner',
    surroundings: new Surroundings(subjectOf(model), rooms),
    plates: new Plates(rooms),
    overhead: new Overhead(model),
    terrain: new Terrain(model, groundOf(model)),
    slabs,
    ground: groundOf(model),
    north: model.survey?.north ?? 0,
    report,
  };
  report.assume(`Areas are by ${measureWords[around.measure]}`);
  return rooms.map((room, i) => {
    progress?.tell(i / rooms.length);
    return enclosed(room, around);
  });
}

const measureWords: Record<AreaMeasure, string> = {
  inner: 'inner faces',
  centre: 'the middles of walls and floors',
  outer: 'outer faces, and by the middles of what parts rooms',
};

function enclosed(room: Room, around: Around): Enclosed {
  const { measure, surroundings, plates, overhead, terrain, north, report } = around;
  const stretches = surroundings.of(room).flatMap((stretch) => terrain.along(stretch).flatMap(atGround));
  const level = { floor: plates.floor(room), ceiling: plates.ceiling(room) };
  const { slopes, bare } = overhead.slopes(room);
  const inner = stretches.map((stretch) =>
    underRoof(wallSurface(stretch, stretch.high, north), stretch, room, overhead),
  );
  const floors = floorsOf(room, level.floor, around);
  const ceilings = slopes.length === 0 ? ceilingsOf(room, level.ceiling, around) : bareCeilings(room, bare, around);
  const roofs = slopes.map((slope) => slopedSurface(slope, north));
  const flatPart = bare.length === 0 ? [] : [{ roof: null, region: bare, height: () => room.high }];
  const steps = stepsBetween([...slopes, ...flatPart]);
  const risers = steps.map((step) => riser(step, ceilings[0], around));
  tellGaps(room, stretches, [...inner, ...floors, ...ceilings, ...roofs], { slopes, steps }, report);
  const thick = (found: readonly Surface[]): number => found.reduce((most, one) => Math.max(most, one.thickness), 0);
  const slabs = { under: thick(floors), over: thick(ceilings) };
  const measured = measuredBy(measure, room, stretches, level, slabs);
  const walls = inner.map((wall, i) => scaledWall(wall, stretches[i], room, measured));
  const openings = stretches.flatMap((stretch, i) => openingSurfaces(stretch, walls[i], stretches));
  const flat = [...floors, ...ceilings, ...roofs].map((surface) => scaled(surface, measured.plan));
  const under = slopes.reduce((sum, { plan, at }) => sum + plan * (at[2] - room.low), 0);
  const volume =
    slopes.length === 0 ? room.area * (room.high - room.low) : under + regionArea(bare) * (room.high - room.low);
  return { room, volume, surfaces: [...walls, ...openings, ...flat, ...risers], stretches };
}

/** A wall that reaches as high as its room does ends under the roof over it. */
function underRoof(wall: Surface, { a, b, low, high, length }: Stretch, room: Room, overhead: Overhead): Surface {
  if ((room.zone.roofs ?? []).length === 0 || high < room.high - 1e-9) return wall;
  const area = Math.max(0, length * (overhead.meanOver(room, a, b) - low));
  const head = overhead.over(room, a, b).flatMap(({ from, to, ends }): Place[] => [
    [...pointAlong(a, b, from), ends[0]],
    [...pointAlong(a, b, to), ends[1]],
  ]);
  return { ...wall, area, net: area, faces: [[[[...a, low], [...b, low], ...head.reverse()]]] };
}

function floorsOf(room: Room, plates: readonly Plate[], { slabs, ground }: Around): Surface[] {
  return plates.map(({ area, centre, beyond, region }) => {
    const slab = slabs.at(centre, room.low, slabReach) ?? slabs.at(insideOf(room.rings[0]), room.low, slabReach);
    const under = beyond ?? saidBeyond(slab?.slab) ?? (room.low <= ground + nearGround ? 'ground' : 'outside');
    const depth = under === 'ground' ? Math.max(0, ground - room.low) : 0;
    return { ...level('floor', area, [...centre, room.low], under, slab?.slab ?? null, depth), region };
  });
}

function ceilingsOf(room: Room, plates: readonly Plate[], { slabs }: Around): Surface[] {
  return plates.map(({ area, centre, beyond, region }) => {
    const slab = slabs.at(centre, room.high, slabReach);
    const over = beyond ?? saidBeyond(slab?.slab) ?? 'outside';
    const kind = beyond === null ? 'roof' : 'ceiling';
    return { ...level(kind, area, [...centre, room.high], over, slab?.slab ?? null, 0), region };
  });
}

/** What of a room under roof planes lies under none of them, as a level roof. */
function bareCeilings(room: Room, bare: Region, { slabs }: Around): Surface[] {
  const size = regionArea(bare);
  if (size === 0) return [];
  const centre = regionCentre(bare);
  const slab = slabs.at(centre, room.high, slabReach)?.slab ?? null;
  return [{ ...level('roof', size, [...centre, room.high], 'outside', slab, 0), region: bare }];
}

const slopedSurface = ({ roof, area, tilt, falls, at, region, height }: Slope, north: number): Surface => ({
  kind: 'roof',
  elements: [roof.id],
  area,
  net: area,
  beyond: 'outside',
  orientation: tilt === 0 ? 0 : orientationOf(falls, north),
  tilt,
  at,
  depth: 0,
  edge: 0,
  construction: roof.construction,
  thickness: roof.thickness,
  faces: region.map(({ outline, holes }) =>
    [counterClockwise(outline), ...holes].map((ring) => ring.map((p) => [...p, height(p)])),
  ),
});

/** A step between two parts of a roof: closed as the higher of them is. */
function riser(
  { higher, area, outward, at }: Step<CeilingPart & { roof: Slope['roof'] | null }>,
  ceiling: Surface | undefined,
  { north, report }: Around,
): Surface {
  report.assume('Steps between parts of a roof are closed as the higher part is');
  const { roof } = higher;
  const own: Pick<Surface, 'elements' | 'construction' | 'thickness'> =
    roof === null
      ? { elements: [], thickness: 0, ...ceiling }
      : { elements: [roof.id], construction: roof.construction, thickness: roof.thickness };
  return {
    kind: 'roof',
    elements: own.elements,
    construction: own.construction,
    thickness: own.thickness,
    area,
    net: area,
    beyond: 'outside',
    orientation: orientationOf(outward, north),
    tilt: 90,
    at,
    depth: 0,
    edge: 0,
  };
}

/** What somebody has said of what lies beyond a wall or a slab that nothing of the model lies beyond. */
const saidBeyond = (element: { beyond?: string } | undefined): 'adiabatic' | 'neighbour' | null =>
  (['adiabatic', 'neighbour'] as const).find((one) => one === element?.beyond) ?? null;

/** A wall by the measure: longer along its side, higher where it reaches from floor to ceiling. */
function scaledWall(wall: Surface, stretch: Stretch, room: Room, { along, down, up }: Measured): Surface {
  const more = (stretch.low === room.low ? down : 0) + (stretch.high === room.high ? up : 0);
  const height = wall.area / (stretch.length || 1);
  const longer = along(stretch);
  const grown = scaled(wall, longer * (height === 0 ? 1 : (height + more) / height));
  return { ...grown, edge: wall.edge * longer };
}

const scaled = (surface: Surface, share: number): Surface =>
  share === 1 ? surface : { ...surface, area: surface.area * share, net: surface.net * share };

/** A floor so little above the ground lies on it, metres. */
const nearGround = 0.5;

/** The elevation of the ground: of the level that is its, else zero. */
const groundOf = ({ levels }: ReadModel): number => levels.find(({ kind }) => kind === 'ground')?.elevation ?? 0;

/** A stretch to outside that stands partly in the ground, parted where the ground is. */
function atGround(stretch: Standing): Standing[] {
  const { low, high, beyond, ground } = stretch;
  if (beyond !== null || ground - low < leastBuried(stretch) || ground >= high) return [stretch];
  return [
    { ...stretch, high: ground },
    { ...stretch, low: ground },
  ];
}

/** Where the ground is measured, all of a wall that stands in it is buried; else what is more than a plinth. */
const leastBuried = ({ measured }: Standing): number => (measured ? leastMeasured : nearGround);
/** Rounding of heights, metres. */
const leastMeasured = 1e-3;

/** @param head how high it reaches on average */
function wallSurface(stretch: Standing, head: number, north: number): Surface {
  const { a, b, length, low, high, outward, wall, beyond, ground } = stretch;
  const buried = beyond === null && high <= ground + 1e-6 && ground - low >= leastBuried(stretch);
  const area = Math.max(0, length * (head - low));
  return {
    kind: 'wall',
    elements: wall === null ? [] : [wall.wall.id],
    area,
    net: area,
    beyond: beyond ?? saidBeyond(wall?.wall) ?? (buried ? 'ground' : 'outside'),
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
        cut: { stretch: all.indexOf(stretch), width, height: to - from },
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
function tellGaps(
  room: Room,
  stretches: readonly Stretch[],
  surfaces: readonly Surface[],
  { slopes, steps }: { slopes: readonly Slope[]; steps: readonly Step<CeilingPart>[] },
  report: Report,
): void {
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
  // Walls come in the order of their stretches.
  stretches.forEach(({ outward: [x, y] }, i) => {
    const { area: own } = surfaces[i];
    sum[0] += x * own;
    sum[1] += y * own;
    area += own;
  });
  for (const { area: own, tilt, kind } of surfaces.slice(stretches.length)) {
    area += own;
    if (kind !== 'roof' || tilt === 0) sum[2] += tilt === 0 ? own : -own;
  }
  for (const { plan, tilt, falls } of slopes) {
    if (tilt === 0) continue;
    const rise = Math.tan(radians(tilt));
    [sum[0], sum[1], sum[2]] = [sum[0] + plan * rise * falls[0], sum[1] + plan * rise * falls[1], sum[2] + plan];
  }
  for (const { outward, area: own } of steps) [sum[0], sum[1]] = [sum[0] + own * outward[0], sum[1] + own * outward[1]];
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
