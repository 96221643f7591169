import { common, regionArea, regionCentre, without, type Region } from '@/core/geometry/clipping';
import { contains } from '@/core/geometry/polygon';
import { cross, distance, pointAlong, subtract, type Point } from '@/core/geometry/vector';
import { awayFromLine } from '@/core/kinds/lines';
import { roofHeightAt } from '@/core/kinds/roof';
import { wallLine, type Wall } from '@/core/kinds/wall';
import { defaultTolerance } from '@/core/tolerance';
import type { PlacedRoof } from './building';

/** How high the underside of a roof plane lies at a point in plan, metres above the project's zero. */
export const undersideAt = ({ base, shape }: PlacedRoof, p: Point): number => base + roofHeightAt(shape, p);

/** Whether a plane lies over a point: inside its outline, or on it, as a wall whose roof is drawn along its axis. */
const covers = ({ shape: { outline } }: PlacedRoof, p: Point): boolean =>
  contains(outline, p) || awayFromLine([...outline, outline[0]], p) <= defaultTolerance.coincidence;

/** The lowest plane over a point that lies above a height; null where there is none. */
export function roofOver(roofs: readonly PlacedRoof[], p: Point, above: number): PlacedRoof | null {
  let lowest: { roof: PlacedRoof; height: number } | null = null;
  for (const roof of roofs) {
    if (!covers(roof, p)) continue;
    const height = undersideAt(roof, p);
    if (height > above && (lowest === null || height < lowest.height)) lowest = { roof, height };
  }
  return lowest?.roof ?? null;
}

/** Shares of a straight piece closer than this are one. */
const sameShare = 1e-9;

/** Where a straight piece crosses the sides of an outline, as shares of it. */
function crossings(a: Point, b: Point, outline: readonly Point[]): number[] {
  const along = subtract(b, a);
  return outline.flatMap((from, i) => {
    const to = outline[(i + 1) % outline.length];
    const side = subtract(to, from);
    const turn = cross(along, side);
    if (turn === 0) return [];
    const t = cross(subtract(from, a), side) / turn;
    const u = cross(subtract(from, a), along) / turn;
    return t > 0 && t < 1 && u >= 0 && u <= 1 ? [t] : [];
  });
}

/** Where two planes are equally high over a straight piece, as a share of it. */
function equalAt(a: Point, b: Point, p: PlacedRoof, q: PlacedRoof): number[] {
  const [from, to] = [undersideAt(p, a) - undersideAt(q, a), undersideAt(p, b) - undersideAt(q, b)];
  const t = from / (from - to);
  return t > 0 && t < 1 ? [t] : [];
}

/** A height above a wall's centre line, by how far along it, metres. */
export type Profile = [along: number, height: number][];

/** The heights of one straight piece between the places at which another plane is the lowest. */
function profileOfPiece(a: Point, b: Point, roofs: readonly PlacedRoof[], base: number, plain: number): Profile {
  const cuts = roofs.flatMap((roof, i) => [
    ...crossings(a, b, roof.shape.outline),
    ...roofs.slice(i + 1).flatMap((other) => equalAt(a, b, roof, other)),
  ]);
  const shares = [0, ...cuts.sort((x, y) => x - y), 1].filter((t, i, all) => i === 0 || t - all[i - 1] > sameShare);
  const length = distance(a, b);
  return shares.slice(1).flatMap((to, i): Profile => {
    const from = shares[i];
    const roof = roofOver(roofs, pointAlong(a, b, (from + to) / 2), base);
    const height = (t: number): number => (roof === null ? plain : undersideAt(roof, pointAlong(a, b, t)));
    return [
      [from * length, height(from)],
      [to * length, height(to)],
    ];
  });
}

/**
 * The top of a wall that ends under the roof planes above it, along its centre line: straight between its points,
 * upright where two lie at one place. Exact over straight walls; a bent one is followed along its chords.
 * @param plain the height where no plane covers it
 */
export function wallProfile(wall: Wall, roofs: readonly PlacedRoof[], base: number, plain: number): Profile {
  const line = wallLine(wall);
  let before = 0;
  const all = line.slice(1).flatMap((to, i): Profile => {
    const piece = profileOfPiece(line[i], to, roofs, base, plain).map(([t, z]): [number, number] => [before + t, z]);
    before += distance(line[i], to);
    return piece;
  });
  return withoutRepeats(all);
}

/** A profile without points that say nothing new: the same again, or halfway along a straight. */
function withoutRepeats(profile: Profile): Profile {
  const kept: Profile = [];
  for (const point of profile) {
    const last = kept[kept.length - 1];
    if (last && Math.abs(last[0] - point[0]) < sameShare && Math.abs(last[1] - point[1]) < sameShare) continue;
    kept.push(point);
    const [a, b, c] = kept.slice(-3);
    if (c === undefined || b[0] - a[0] < sameShare || c[0] - b[0] < sameShare) continue;
    const between = a[1] + ((c[1] - a[1]) * (b[0] - a[0])) / (c[0] - a[0]);
    if (Math.abs(between - b[1]) < sameShare) kept.splice(-2, 1);
  }
  return kept;
}

/** The volume over an area between its floor and the planes above it, cubic metres, and how much of it they cover. */
export interface UnderRoofs {
  volume: number;
  /** Square metres that a plane covers. */
  covered: number;
  /** Ids of the placed planes over it. */
  roofs: string[];
}

/**
 * What lies between an area and the roof planes over it. Of planes over one another the one that is lower about its
 * middle counts where both are. The volume under a plane is the area times the height over its centre.
 */
export function volumeUnder(area: Region, planes: readonly PlacedRoof[], base: number): UnderRoofs {
  let open = area;
  const found: UnderRoofs = { volume: 0, covered: 0, roofs: [] };
  const byHeight = planes
    .map((roof) => ({ roof, part: common(area, [{ outline: roof.shape.outline, holes: [] }]) }))
    .filter(({ part }) => regionArea(part) > 0)
    .map((one) => ({ ...one, height: undersideAt(one.roof, regionCentre(one.part)) - base }))
    .filter(({ height }) => height > 0)
    .sort((p, q) => p.height - q.height);
  for (const { roof, part } of byHeight) {
    const free = common(part, open);
    const size = regionArea(free);
    if (size === 0) continue;
    found.volume += size * (undersideAt(roof, regionCentre(free)) - base);
    found.covered += size;
    found.roofs.push(roof.id);
    open = without(open, part);
  }
  return found;
}
