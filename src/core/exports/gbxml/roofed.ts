import { common, regionArea, without, type Region } from '@/core/geometry/clipping';
import { contains } from '@/core/geometry/polygon';
import { cross, distance, dot, pointAlong, subtract, type Point } from '@/core/geometry/vector';
import type { Surface } from '@/core/energy/derive/surface';
import type { Overhead } from '@/core/energy/derive/overhead';
import { stepsBetween, type Step } from '@/core/energy/derive/steps';
import { isCeiling, type Centred } from './centred';

type V3 = [number, number, number];

/** A part of a ceiling on centre planes: of a roof plane, or level. */
export interface RoofedPart {
  surface: Surface;
  region: Region;
  height: (p: Point) => number;
}

/** A room under sloped roofs: the parts of its ceiling, and the steps between them. */
export interface Roofed {
  parts: RoofedPart[];
  steps: { surface: Surface; corners: V3[] }[];
}

/** Smaller parts are rounding, square metres. */
const leastPart = 1e-6;
const sound = (region: Region): Region => region.filter((piece) => regionArea([piece]) > leastPart);

/**
 * The ceiling of a room that reaches up to roof planes, moved to their middles; null where it is level all over. The
 * largest part takes what no other covers, as the room is larger by the middles of its walls.
 */
export function roofedBy(room: Centred, overhead: Overhead): Roofed | null {
  const { enclosed, rings, high } = room;
  const roofs = enclosed.surfaces.flatMap((surface) => {
    const plane = surface.kind === 'roof' && surface.tilt !== 90 ? overhead.plane(surface.elements[0] ?? '') : null;
    return plane === null ? [] : [{ surface, plane }];
  });
  if (roofs.length === 0) return null;
  const level = enclosed.surfaces.filter(
    (surface) => isCeiling(surface) && overhead.plane(surface.elements[0] ?? '') === null,
  );
  const [largest, ...others] = [...roofs].sort((a, b) => b.surface.area - a.surface.area);
  let rest: Region = [{ outline: rings[0], holes: rings.slice(1) }];
  const take = (outline: readonly Point[]): Region => {
    const own = sound(common(rest, [{ outline: [...outline], holes: [] }]));
    rest = without(rest, own);
    return own;
  };
  const sloped = ({ surface, plane }: (typeof roofs)[number], region: Region): RoofedPart => {
    // Half of its thickness, square to it, is so much upward.
    const up = plane.thickness / 2 / Math.cos((surface.tilt * Math.PI) / 180);
    return { surface, region, height: (p) => plane.height(p) + up };
  };
  const parts = others.map((one) => sloped(one, take(one.plane.outline)));
  const most = sloped(largest, take(largest.plane.outline));
  if (level.length === 0) most.region = [...most.region, ...sound(rest)];
  else parts.push({ surface: level[0], region: sound(rest), height: () => high });
  const all = [most, ...parts].filter(({ region }) => region.length > 0);
  return { parts: all, steps: closing(stepsBetween(all), enclosed.surfaces) };
}

/** Each step with the surface that is nearest to it among those that stand in the ceiling. */
function closing(steps: readonly Step<RoofedPart>[], surfaces: readonly Surface[]): Roofed['steps'] {
  const standing = surfaces.filter(({ kind, tilt }) => kind === 'roof' && tilt === 90);
  return steps.map(({ at, corners, higher, area }) => {
    const away = (surface: Surface): number => Math.hypot(...at.map((value, i) => value - surface.at[i]));
    const [nearest = higher.surface] = [...standing].sort((a, b) => away(a) - away(b));
    return { surface: { ...nearest, area, net: area }, corners };
  });
}

/** A border of a part lies on a side of the room within this, metres. */
const onSide = 1e-4;

/**
 * The top of a wall of a room under roofs, from its end back to its start: as high as the part of the ceiling that it
 * borders, with an upright where two parts meet at different heights.
 */
export function topOf(a: Point, b: Point, { parts }: Roofed, least: number): V3[] {
  const length = distance(a, b);
  const along = subtract(b, a);
  const share = (p: Point): number => dot(subtract(p, a), along) / length ** 2;
  const lies = (p: Point): boolean => Math.abs(cross(along, subtract(p, a))) / length < onSide;
  const corners = parts.flatMap(({ region }) => region.flatMap(({ outline, holes }) => [outline, ...holes].flat()));
  const cuts = [
    0,
    ...corners
      .filter(lies)
      .map(share)
      .filter((t) => t > 1e-6 && t < 1 - 1e-6),
    1,
  ]
    .sort((one, other) => other - one)
    .filter((t, i, all) => i === 0 || all[i - 1] - t > 1e-6);
  // The room lies to the left of its sides.
  const inward: Point = [(-along[1] / length) * 2 * onSide, (along[0] / length) * 2 * onSide];
  const top = cuts.slice(1).flatMap((to, i): V3[] => {
    const middle = pointAlong(a, b, (cuts[i] + to) / 2);
    const inside: Point = [middle[0] + inward[0], middle[1] + inward[1]];
    const part = parts.find(({ region }) =>
      region.some(({ outline, holes }) => contains(outline, inside) && !holes.some((hole) => contains(hole, inside))),
    );
    return [cuts[i], to].map((t) => {
      const p = pointAlong(a, b, t);
      return [...p, Math.max(least, part?.height(p) ?? least)] as V3;
    });
  });
  return top.filter((p, i) => i === 0 || p.some((value, k) => Math.abs(value - top[i - 1][k]) > 1e-9));
}
