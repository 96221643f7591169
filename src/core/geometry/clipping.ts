import { difference, intersection, union, type Geom } from 'polyclip-ts';
import { area, centroid } from './polygon';
import type { Point } from './vector';

/** A region in plan: outlines without order or overlap, each with its holes. */
export type Region = { outline: Point[]; holes: Point[][] }[];

/** Robust polygon clipping by sweep line (Martinez, Rueda and Feito, 2009), as its library has it. */
const geometryOf = (region: Region): Geom =>
  region.map(({ outline, holes }) => [outline, ...holes].map((ring) => ring.map(([x, y]): [number, number] => [x, y])));

/** A ring without the library's repeated last point. */
const open = (ring: readonly [number, number][]): Point[] => ring.slice(0, -1);

const regionOf = (geometry: readonly (readonly [number, number][])[][]): Region =>
  geometry.map(([outline, ...holes]) => ({ outline: open(outline), holes: holes.map(open) }));

/** What lies in both regions. */
export const common = (a: Region, b: Region): Region =>
  a.length === 0 || b.length === 0 ? [] : regionOf(intersection(geometryOf(a), geometryOf(b)));

/** What lies in the first region and not in the second. */
export const without = (a: Region, b: Region): Region =>
  a.length === 0 || b.length === 0 ? a : regionOf(difference(geometryOf(a), geometryOf(b)));

/** What lies in one region or the other. */
export const together = (regions: readonly Region[]): Region => {
  const [first, ...rest] = regions.filter((region) => region.length > 0).map(geometryOf);
  return first === undefined ? [] : regionOf(union(first, ...rest));
};

/** Square metres of a region. */
export const regionArea = (region: Region): number =>
  region.reduce(
    (sum, { outline, holes }) =>
      sum + Math.abs(area(outline)) - holes.reduce((less, hole) => less + Math.abs(area(hole)), 0),
    0,
  );

/** The centre of area of a region; of one without area the first point, or zero. */
export function regionCentre(region: Region): Point {
  let [sum, x, y] = [0, 0, 0];
  const add = (ring: readonly Point[], sign: number): void => {
    const size = sign * Math.abs(area(ring));
    const [cx, cy] = centroid(ring);
    [sum, x, y] = [sum + size, x + size * cx, y + size * cy];
  };
  for (const { outline, holes } of region) {
    add(outline, 1);
    for (const hole of holes) add(hole, -1);
  }
  return sum === 0 ? (region[0]?.outline[0] ?? [0, 0]) : [x / sum, y / sum];
}
