import { enclosedRooms } from '@/core/energy/derive/envelope';
import type { Enclosed, Surface } from '@/core/energy/derive/surface';
import type { Stretch } from '@/core/energy/derive/stretches';
import type { Region } from '@/core/geometry/clipping';
import type { Point } from '@/core/geometry/vector';
import type { ReadModel } from '@/core/handover/model/readModel';
import { Report } from '@/core/proof/report';
import type { Frame } from './context';
import { globalId } from './globalId';
import { word, type Ref } from './step';

type Space = readonly [number, number, number];

/** A boundary of a space, before it is written. */
interface Boundary {
  room: string;
  surface: Surface;
  /** Its place among the surfaces of its room, and of its part of that. */
  index: number;
  part: number;
  /** Where it lies: its plane and its outline in it; null where only its element is told. */
  plane: { at: Space; normal: Space; along: Space; outline: Point[]; holes: Point[][] } | null;
  /** Of a window or a door, the boundary of the wall that it is in. */
  parent: Boundary | null;
  ref: Ref;
}

/**
 * Writes the second-level boundaries of spaces, those that the trial of heat closes rooms with: each with its element,
 * where it lies, what is beyond, and for two spaces beside one another its other side.
 * @param products what elements and zones became, by their ids
 */
export function addBoundaries(frame: Frame, model: ReadModel, products: ReadonlyMap<string, Ref>): void {
  if (model.zones.length === 0) return;
  const all = enclosedRooms(model, new Report()).flatMap((one) => boundariesOf(one, frame, products));
  const others = otherSides(all);
  for (const boundary of all) write(boundary, others.get(boundary) ?? null, { frame, products });
}

const elementOf = ({ elements }: Surface, products: ReadonlyMap<string, Ref>): Ref | undefined =>
  elements.flatMap((id) => products.get(id) ?? [])[0];

/** The boundaries of a room whose elements are in the file. */
function boundariesOf({ room, surfaces, stretches }: Enclosed, { file }: Frame, products: ReadonlyMap<string, Ref>) {
  if (!products.has(room.id)) return [];
  const walls = new Map<number, Boundary>();
  return surfaces.flatMap((surface, index): Boundary[] => {
    if (elementOf(surface, products) === undefined || surface.area <= 0) return [];
    const parent = surface.cut === undefined ? null : (walls.get(surface.cut.stretch) ?? null);
    const planes = planesOf(surface, index, stretches);
    const made = planes.map((plane, part): Boundary => {
      const ref = file.hold();
      return { room: room.id, surface, index, part, plane, parent, ref };
    });
    if (index < stretches.length && made.length > 0) walls.set(index, made[0]);
    return made;
  });
}

/** Where a surface lies: a rectangle in its side, parts of a level region, or faces under a slope. */
function planesOf(surface: Surface, index: number, stretches: readonly Stretch[]): Boundary['plane'][] {
  const stretch = stretches[surface.cut?.stretch ?? index];
  if (surface.cut !== undefined && stretch !== undefined) {
    const { width, height } = surface.cut;
    // An opening is told at the middle of its wall: here it lies on the side of the room.
    const { a, outward } = stretch;
    const [x, y, z] = surface.at;
    const off = (x - a[0]) * outward[0] + (y - a[1]) * outward[1];
    return [upright(stretch, [x - off * outward[0], y - off * outward[1], z], width, height)];
  }
  if (surface.faces !== undefined) return surface.faces.map(inSpace);
  if (index < stretches.length && stretch !== undefined) {
    const { a, b, low, high, length } = stretch;
    return [upright(stretch, [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2, (low + high) / 2], length, high - low)];
  }
  return surface.region === undefined ? [null] : level(surface.region, surface.at[2], surface.tilt);
}

/** A rectangle about a middle in the plane of a side, seen from the room. */
function upright({ a, b, length, outward }: Stretch, at: Space, width: number, height: number): Boundary['plane'] {
  const along: Space = [(b[0] - a[0]) / length, (b[1] - a[1]) / length, 0];
  const [w, h] = [width / 2, height / 2];
  const outline: Point[] = [
    [-w, -h],
    [w, -h],
    [w, h],
    [-w, h],
  ];
  return { at, normal: [outward[0], outward[1], 0], along, outline, holes: [] };
}

/** A face in space that looks away from its room: counter-clockwise, seen from there. */
function inSpace(rings: readonly (readonly Space[])[]): Boundary['plane'] {
  const [outline, ...holes] = rings;
  const [at] = outline;
  // Twice the area seen along each axis, which together are its normal (Newell).
  const twice = [0, 1, 2].map((k) =>
    outline.reduce((sum, p, i) => {
      const q = outline[(i + 1) % outline.length];
      const [u, w] = [(k + 1) % 3, (k + 2) % 3];
      return sum + (p[u] - at[u]) * (q[w] - at[w]) - (q[u] - at[u]) * (p[w] - at[w]);
    }, 0),
  );
  const size = Math.hypot(...twice);
  if (size === 0) return null;
  const [x, y, z] = twice.map((value) => value / size);
  const flat = Math.hypot(x, y);
  const along: Space = flat < 1e-9 ? [1, 0, 0] : [-y / flat, x / flat, 0];
  const up: Space = [y * along[2] - z * along[1], z * along[0] - x * along[2], x * along[1] - y * along[0]];
  const over = (axis: Space, p: Space): number => axis.reduce((sum, value, k) => sum + value * (p[k] - at[k]), 0);
  const within = (p: Space): Point => [over(along, p), over(up, p)];
  return { at, normal: [x, y, z], along, outline: outline.map(within), holes: holes.map((hole) => hole.map(within)) };
}

/** The parts of a floor or a ceiling, each in a plane at its height that looks away from the room. */
function level(region: Region, z: number, tilt: number): Boundary['plane'][] {
  // Seen from below, what runs to the left runs to the right.
  const down = tilt > 90;
  const flipped = ([x, y]: Point): Point => (down ? [x, -y] : [x, y]);
  return region.map(({ outline, holes }) => ({
    at: [0, 0, z],
    normal: [0, 0, down ? -1 : 1],
    along: [1, 0, 0],
    outline: outline.map(flipped),
    holes: holes.map((hole) => hole.map(flipped)),
  }));
}

/** Boundaries farther apart than this are not two sides of one thing, metres. */
const farthest = 2;

/** What two rooms have between them, one side for the other: the nearest of one element. */
function otherSides(all: readonly Boundary[]): Map<Boundary, Boundary> {
  const key = (from: string, to: string, { surface }: Boundary): string => `${from} ${to} ${surface.elements[0]}`;
  const waiting = new Map<string, Boundary[]>();
  const found = new Map<Boundary, Boundary>();
  for (const one of all) {
    const { beyond } = one.surface;
    if (typeof beyond === 'string') continue;
    const there = waiting.get(key(beyond.id, one.room, one)) ?? [];
    const [nearest] = there
      .filter((other) => apart(one, other) < farthest)
      .sort((a, b) => apart(one, a) - apart(one, b));
    if (nearest === undefined) {
      const own = key(one.room, beyond.id, one);
      waiting.set(own, [...(waiting.get(own) ?? []), one]);
      continue;
    }
    there.splice(there.indexOf(nearest), 1);
    found.set(one, nearest).set(nearest, one);
  }
  return found;
}

const apart = ({ surface: { at: a } }: Boundary, { surface: { at: b } }: Boundary): number =>
  Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]);

/** What lies beyond a boundary, as the standard says it. */
function side({ beyond }: Surface): string {
  if (typeof beyond !== 'string' || beyond === 'adiabatic') return 'INTERNAL';
  return beyond === 'ground' ? 'EXTERNAL_EARTH' : 'EXTERNAL';
}

function write(
  boundary: Boundary,
  other: Boundary | null,
  { frame, products }: { frame: Frame; products: ReadonlyMap<string, Ref> },
): void {
  const { room, surface, index, part, parent, ref } = boundary;
  const space = products.get(room);
  const element = elementOf(surface, products);
  if (space === undefined || element === undefined) return;
  frame.file.fill(
    ref,
    'IFCRELSPACEBOUNDARY2NDLEVEL',
    globalId(`boundary of ${room} ${index} ${part}`),
    null,
    '2ndLevel',
    '2a',
    space,
    element,
    geometryOf(boundary, frame),
    word('PHYSICAL'),
    word(side(surface)),
    parent?.ref ?? null,
    other?.ref ?? null,
  );
}

function geometryOf({ plane }: Boundary, { file, shapes }: Frame): Ref | null {
  if (plane === null) return null;
  const { at, normal, along, outline, holes } = plane;
  const basis = file.add('IFCPLANE', shapes.place(at, along, normal));
  const ring = (points: readonly Point[]): Ref => shapes.polyline([...points, points[0]]);
  const bounded = file.add('IFCCURVEBOUNDEDPLANE', basis, ring(outline), holes.map(ring));
  return file.add('IFCCONNECTIONSURFACEGEOMETRY', bounded, null);
}
