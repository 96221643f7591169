import type { Place } from '@/core/bodies/shell';
import { area, contains } from '@/core/geometry/polygon';
import { cross, subtract, type Point } from '@/core/geometry/vector';
import type { ReadModel } from '@/core/handover/model/readModel';
import { lengthOfLine } from '@/core/kinds/lines';
import { outdoorTarget, outdoorUseOf } from '@/core/kinds/outdoorUse';
import type { Finding } from '@/core/proof/finding';
import type { Progress } from '@/core/progress';
import { Report } from '@/core/proof/report';
import { subjectOf, type StandingWall } from '@/core/proof/subject';
import { insideOf, roomsOf, Slabs, type Room } from '@/core/rooms/rooms';
import { gridOf, type Lattice } from './grid';
import { directAt, lampsOf, type Lamp } from './luminaires';
import { exchanges, reflectedAt } from './radiosity';
import { panesOf, paneReflectance } from './panes';
import { litRoomOf, roomParts, type LitRoom, type RoomPart } from './room';
import { lightAgrees, lightOf } from './roomLight';

/** What is left of the first light, where nobody says it; the height of a work plane above its floor, metres. */
export const plain = { maintenance: 0.8, workPlane: 0.8 } as const;
export const upward: Place = [0, 0, 1];
/** A luminaire this far above a ceiling is mounted on it, metres. */
const onCeiling = 0.05;

/** A calculation area with its values, lux. */
export interface LitArea {
  id: string;
  /** Null is outdoors. */
  zone: string | null;
  outline: Point[];
  holes: Point[][];
  points: Place[];
  lattice: Lattice;
  direct: number[];
  total: number[];
  mean: number;
  least: number;
  greatest: number;
  /** The least over the mean. */
  uniformity: number;
}

/** A room with its light: lumens in and absorbed, and the mean illuminance of its parts, lux. */
export interface LitZone {
  zone: string;
  name: string;
  area: number;
  flux: number;
  absorbed: number;
  /** Watts of its luminaires. */
  power: number;
  ceiling: number;
  walls: number;
  floor: number;
}

export interface LightTrial {
  areas: LitArea[];
  rooms: LitZone[];
  assumed: string[];
  findings: Finding[];
}

/** The light of all rooms and of areas outdoors. */
export function tryLight(model: ReadModel, progress?: Progress): LightTrial {
  const report = new Report();
  const maintenance = model.site?.maintenanceFactor ?? plain.maintenance;
  if (model.site?.maintenanceFactor === undefined)
    report.assume(`Of the first light ${plain.maintenance} is left with dirt and age`);
  const lamps = lampsOf(model, maintenance, report);
  const subject = subjectOf(model);
  const rooms = roomsOf(model, new Slabs(model), report);
  const own = housed(lamps, rooms, report);
  const columns = subject.columns.map(({ outline }) => outline);
  const panes = panesOf(subject.walls);
  if (panes.length > 0) report.assume(`Windows throw back ${paneReflectance} of the light: it is night`);
  const trial: LightTrial = { areas: [], rooms: [], assumed: [], findings: report.findings };
  const areas = areasOf(model, rooms, report);
  rooms.forEach((room, i) => {
    const wanted = areas.filter(({ zone }) => zone === room.id);
    const inside = own.get(room) ?? [];
    const lit = litRoomOf(room, columns, panes);
    if (room.zone.reflectances === undefined)
      report.assume('Where no reflectances are said, ceilings have 0.7, walls 0.5, floors 0.2');
    const { zone, total } = inRoom(lit, inside, report);
    trial.rooms.push(zone);
    for (const area of wanted)
      trial.areas.push(
        valuesOf(
          area,
          (p) => {
            const direct = inside.reduce((sum, lamp) => sum + directAt(lamp, p, upward, lit.sees), 0);
            return [direct, inside.length === 0 ? 0 : reflectedAt(lit, total, p, upward)];
          },
          report,
        ),
      );
    progress?.tell((i + 1) / rooms.length);
  });
  const outside = own.get(null) ?? [];
  const clear = outdoorSight([...subject.walls, ...fencesOf(model, report)]);
  for (const area of areas.filter(({ zone }) => zone === null))
    trial.areas.push(
      valuesOf(area, (p) => [outside.reduce((sum, lamp) => sum + directAt(lamp, p, upward, clear), 0), 0], report),
    );
  tellStrays(
    outside,
    areas.some(({ zone }) => zone === null),
    report,
  );
  return { ...trial, assumed: report.assumed() };
}

/** The luminaires of each room; those of none stand outdoors. */
function housed(lamps: readonly Lamp[], rooms: readonly Room[], report: Report): Map<Room | null, Lamp[]> {
  const own = new Map<Room | null, Lamp[]>();
  for (const lamp of lamps) {
    const [x, y, z] = lamp.position;
    const about = rooms.filter(({ rings: [outline, ...holes] }) => {
      return contains(outline, [x, y]) && !holes.some((hole) => contains(hole, [x, y]));
    });
    const room = about.find(({ low, high }) => z >= low - onCeiling && z <= high + onCeiling) ?? null;
    const under = about.filter(({ low, high }) => z > high && z < high + thickest && low < z);
    if (room === null && under.length > 0) {
      const [{ name, high }] = under;
      report.find('luminaire', 'error', [lamp.id], lamp.position, [
        `It hangs ${(z - high).toFixed(2)} m above the ceiling of ${name}, which is at ${high.toFixed(2)} m: its light reaches nothing.`,
        'Hang it below the ceiling, or say the clear height of the room.',
      ]);
      continue;
    }
    own.set(room, [...(own.get(room) ?? []), lamp]);
  }
  if (lamps.length > 0)
    tellDark(
      rooms.filter((room) => !own.has(room)),
      report,
    );
  return own;
}

/** So many rooms are named where more have no luminaire. */
const mostNamed = 3;

/** Rooms without a luminaire, told together: a building is lit room by room. */
function tellDark(dark: readonly Room[], report: Report): void {
  const [first] = dark;
  if (first === undefined) return;
  const names = dark.slice(0, mostNamed).map(({ name }) => name);
  const words =
    dark.length === 1
      ? `${first.name} has no luminaire.`
      : `${dark.length} rooms have no luminaire: ${names.join(', ')}${dark.length > mostNamed ? ' and others' : ''}.`;
  report.find(
    'no luminaire',
    'warning',
    dark.map(({ id }) => id),
    [...insideOf(first.rings[0]), first.low],
    [words, 'Place some at Tracing, or take those of the plan.'],
  );
}
/** Structure over a ceiling is at most so thick, metres. */
const thickest = 1.5;

/** The light of a room's surfaces: what its luminaires give, and all that is thrown to and fro. */
function inRoom(lit: LitRoom, lamps: readonly Lamp[], report: Report): { zone: LitZone; total: Float64Array } {
  const { room, patches } = lit;
  const power = lamps.reduce((sum, lamp) => sum + lamp.power, 0);
  const { flux, reached, total } = lightOf(lit, lamps, () => exchanges(lit));
  const told = { zone: room.id, name: room.name, area: room.area, flux, power };
  if (flux === 0) return { zone: { ...told, absorbed: 0, ceiling: 0, walls: 0, floor: 0 }, total };
  if (Math.abs(reached / flux - 1) > lightAgrees)
    report.find(
      'flux',
      'warning',
      lamps.map(({ id }) => id),
      lamps[0].position,
      [
        `${reached.toFixed(0)} of ${flux.toFixed(0)} lm of the luminaires of ${room.name} reach its surfaces.`,
        'Look whether a luminaire stands in a wall, or shines above the ceiling.',
      ],
    );
  const absorbed = patches.reduce((sum, { area, reflectance }, i) => sum + area * (1 - reflectance) * total[i], 0);
  const [ceiling, walls, floor] = roomParts.map((part) => meanOf(lit, total, part));
  return { zone: { ...told, absorbed, ceiling, walls, floor }, total };
}

function meanOf({ patches }: LitRoom, total: Float64Array, part: RoomPart): number {
  let [light, area] = [0, 0];
  patches.forEach((patch, i) => {
    if (patch.part === part) [light, area] = [light + patch.area * total[i], area + patch.area];
  });
  return area === 0 ? 0 : light / area;
}

/** An area that is asked for: where, and in which zone. */
interface Wanted {
  id: string;
  zone: string | null;
  outline: Point[];
  holes: Point[][];
  z: number;
  spacing: number | null;
}

/** The areas that the model says; a room without one has one over all of it. */
function areasOf(model: ReadModel, rooms: readonly Room[], report: Report): Wanted[] {
  const said = (model.calculationAreas ?? []).map(({ id, zone, outline, holes = [], z, spacing }): Wanted => {
    const middle = outline.length >= 3 ? insideOf(outline) : (outline[0] ?? [0, 0]);
    const about = rooms.find(({ rings, low, high }) => z >= low && z <= high && contains(rings[0], middle));
    return { id, zone: zone ?? about?.id ?? null, outline, holes, z, spacing: spacing ?? null };
  });
  const has = new Set(said.map(({ zone }) => zone));
  const made = rooms
    .filter(({ id }) => !has.has(id))
    .map(({ id, zone, low }): Wanted => {
      report.assumeOfEach(
        `A room without a calculation area has one over all of it, ${plain.workPlane} m above its floor`,
      );
      return { id, zone: id, outline: zone.outline, holes: zone.holes, z: low + plain.workPlane, spacing: null };
    });
  return [...said, ...made, ...outdoorAreas(model, said, report)];
}

/** Surfaces outside that ask for light have an area each, where none is drawn on them. */
function outdoorAreas(model: ReadModel, said: readonly Wanted[], report: Report): Wanted[] {
  return model.outdoor.flatMap((surface): Wanted[] => {
    const { id, level, outline, height } = surface;
    const lies = said.some((area) => area.zone === null && area.outline.some((p) => contains(outline, p)));
    if (outdoorTarget(surface) === null || outline.length < 3 || lies) return [];
    report.assumeOfEach('A surface outside that asks for light has a calculation area over all of it, at its height');
    const elevation = model.levels.find((one) => one.id === level)?.elevation ?? 0;
    return [{ id, zone: null, outline, holes: [], z: elevation + height, spacing: null }];
  });
}

function valuesOf(area: Wanted, at: (p: Place) => [direct: number, reflected: number], report: Report): LitArea {
  const { id, zone, outline, holes, z, spacing } = area;
  const { points: plan, lattice } = gridOf(outline, holes, spacing !== null && spacing > 0 ? spacing : null);
  if (plan.length === 0)
    report.find(
      'no points',
      'warning',
      [id],
      [...(outline[0] ?? [0, 0]), z],
      [
        'No point of its grid lies in this calculation area, or there would be far too many.',
        'Give it an outline and a spacing that suit one another.',
      ],
    );
  const points = plan.map(([x, y]): Place => [x, y, z]);
  const values = points.map(at);
  const direct = values.map(([own]) => own);
  const total = values.map(([own, reflected]) => own + reflected);
  const mean = total.length === 0 ? 0 : total.reduce((sum, value) => sum + value, 0) / total.length;
  const least = total.reduce((best, value) => Math.min(best, value), total.length === 0 ? 0 : Infinity);
  const greatest = total.reduce((best, value) => Math.max(best, value), 0);
  const told = { id, zone, outline, holes, points, lattice };
  return { ...told, direct, total, mean, least, greatest, uniformity: mean === 0 ? 0 : least / mean };
}

/** What stands upright outdoors. */
type Standing = Pick<StandingWall, 'base' | 'top'> & { outline: readonly Point[] };

/** A fence thinner than this is a mesh or of bars: light goes through, metres. */
const closedFence = 0.05;

/** The fences that light does not go through. */
function fencesOf({ outdoor, levels }: ReadModel, report: Report): Standing[] {
  const elevations = new Map(levels.map(({ id, elevation }) => [id, elevation]));
  return outdoor.flatMap(({ use, outline, level, height }) => {
    if (outdoorUseOf(use) !== 'fence' || outline.length < 3) return [];
    const base = elevations.get(level) ?? 0;
    // A fence runs there and back: its area is half its way round times its thickness.
    const thickness = (2 * Math.abs(area(outline))) / lengthOfLine([...outline, outline[0]]);
    report.assume(`Light goes through fences thinner than ${closedFence * 1000} mm, not through others`);
    return thickness < closedFence ? [] : [{ outline, base, top: base + height }];
  });
}

/** Outdoors walls and fences stand in the way as high as they are. */
function outdoorSight(walls: readonly Standing[]): (a: Place, b: Place) => boolean {
  const sides = walls.flatMap(({ outline, base, top }) =>
    outline.map((p, i) => ({ p, q: outline[(i + 1) % outline.length], base, top })),
  );
  return (a, b) =>
    !sides.some(({ p, q, base, top }) => {
      const [u, d] = [subtract([b[0], b[1]], [a[0], a[1]]), subtract(q, p)];
      const det = cross(u, d);
      if (det === 0) return false;
      const away = subtract(p, [a[0], a[1]]);
      const [t, s] = [cross(away, d) / det, cross(away, u) / det];
      const z = a[2] + t * (b[2] - a[2]);
      return t > 0 && t < 1 && s >= 0 && s <= 1 && z >= base && z <= top;
    });
}

/** Luminaires outside every room light the outdoors; where nothing is asked there, they are strays. */
function tellStrays(outside: readonly Lamp[], asked: boolean, report: Report): void {
  if (asked) return;
  for (const { id, position } of outside)
    report.find('luminaire', 'warning', [id], position, [
      'It stands in no room, and no area outdoors is asked for: its light is not counted.',
      'Move it into its room, or draw a calculation area outdoors.',
    ]);
}
