import { BoxIndex, boxOf } from '@/core/geometry/boxIndex';
import { area, contains, counterClockwise, simplify } from '@/core/geometry/polygon';
import { distance, type Point } from '@/core/geometry/vector';
import { facesOfNetwork, shifted, type Edge, type NetworkFace } from './rooms';
import { nearestOn, networkOf, type Side, type WallNetwork } from './sides';

/** An outline with what stands free in it, by the inner faces of the walls. */
export interface Region {
  outline: Point[];
  holes: Point[][];
}

/** A region with its square metres by the inner faces, by centre lines and by the outer faces of what bounds it. */
interface Measured {
  region: Region;
  areas: { inner: number; centre: number; outer: number };
}

/**
 * What lies about a point: a region, or, where it is open, the place where it leaks, how wide, and the region that
 * closing it would bound.
 */
export type RegionFound = ({ kind: 'region' } & Measured) | ({ kind: 'leak' } & Gap & Measured) | { kind: 'open' };

/** Gaps wider than this are no leaks: the point is outside, metres. */
const widestLeak = 12;
/** At most this many gaps are closed to look for the leak. */
const mostTried = 60;
/** From a free end to so many others. */
const endsTried = 2;

export const centreOf = ({ sides }: NetworkFace<Edge>): Point[] => sides.map(({ from }) => from);

/** The face of the network about a point, the smallest where one lies in another. */
function faceAbout(
  faces: readonly NetworkFace<Edge>[],
  p: Point,
): { face: NetworkFace<Edge>; islands: NetworkFace<Edge>[] } | null {
  const [face] = faces
    .filter((one) => !one.outer && contains(centreOf(one), p))
    .sort((a, b) => area(centreOf(a)) - area(centreOf(b)));
  if (face === undefined) return null;
  const outline = centreOf(face);
  const own = new Set(face.sides.map(({ segment }) => segment));
  const islands = faces.filter(
    (one) => one.outer && contains(outline, one.sides[0].from) && !one.sides.some(({ segment }) => own.has(segment)),
  );
  return { face, islands };
}

function regionOf(faces: readonly NetworkFace<Edge>[], p: Point): Measured | null {
  const found = faceAbout(faces, p);
  if (found === null) return null;
  const outline = counterClockwise(simplify(shifted(found.face, 1), 1e-6));
  const holes = found.islands
    .map((island) => counterClockwise(simplify(shifted(island, 1), 1e-6)))
    .filter((hole) => hole.length >= 3);
  if (!contains(outline, p) || holes.some((hole) => contains(hole, p))) return null;
  const { face, islands } = found;
  const sum = (outlines: readonly (readonly Point[])[]): number =>
    outlines.reduce((all, one) => all + Math.abs(area(one)), 0);
  const areas = {
    inner: area(outline) - sum(holes),
    centre: area(centreOf(face)) - sum(islands.map(centreOf)),
    outer: Math.abs(area(shifted(face, -1))) - sum(islands.map((island) => shifted(island, -1))),
  };
  return { region: { outline, holes }, areas };
}

interface Gap {
  from: Point;
  to: Point;
  width: number;
}

/** Gaps between free ends of walls and what is nearest to them, other free ends too, the smallest first. */
function gapsOf({ edges, free }: WallNetwork): Gap[] {
  const index = new BoxIndex(edges, ({ start, end }) => boxOf([start, end]));
  const ends = new BoxIndex(free, (end) => boxOf([end]));
  const gaps = free.flatMap((from): Gap[] => {
    const near = nearestOn(index.around(from, widestLeak), from);
    const others = ends
      .around(from, widestLeak)
      .filter((to) => to !== from)
      .map((to) => ({ from, to, width: distance(from, to) }))
      .sort((a, b) => a.width - b.width)
      .slice(0, endsTried);
    return near === null ? others : [{ from, to: near.at, width: near.away }, ...others];
  });
  return gaps
    .filter(({ width }) => width <= widestLeak)
    .sort((a, b) => a.width - b.width)
    .slice(0, mostTried);
}

/**
 * Finds the region about a point that walls bound. Free ends within the tolerance are taken as closed;
 * where a region is open beyond that, the first gap is told whose closing would bound it.
 * @param tolerance widest gap that is closed without a word, metres
 */
export function regionFinder(sides: readonly Side[], tolerance: number): (p: Point) => RegionFound {
  const network = networkOf(sides);
  const gaps = gapsOf(network);
  const closed = gaps.filter(({ width }) => width <= tolerance).length;
  const known = new Map<number, NetworkFace<Edge>[]>();
  /** The faces with so many of the gaps closed. */
  const facesWith = (count: number): NetworkFace<Edge>[] => {
    const before = known.get(count);
    if (before !== undefined) return before;
    const bridges = gaps.slice(0, count).map(({ from, to }): Point[] => [from, to]);
    const faces = facesOfNetwork((count === 0 ? network : networkOf(sides, bridges)).edges);
    known.set(count, faces);
    return faces;
  };
  return (p) => {
    const bounded = regionOf(facesWith(closed), p);
    if (bounded !== null) return { kind: 'region', ...bounded };
    if (regionOf(facesWith(gaps.length), p) === null) return { kind: 'open' };
    // What is bounded stays so when more is closed: the gap is found by halving.
    let [open, enough] = [closed, gaps.length];
    while (enough - open > 1) {
      const middle = (open + enough) >> 1;
      if (regionOf(facesWith(middle), p) === null) open = middle;
      else enough = middle;
    }
    return { kind: 'leak', ...gaps[enough - 1], ...regionOf(facesWith(enough), p)! };
  };
}
