import { area, contains, simplify } from '@/core/geometry/polygon';
import { distance, type Point } from '@/core/geometry/vector';
import type { Model } from '@/core/model/model';
import { facesOfNetwork, shifted, type Edge, type NetworkFace } from '@/core/reading/walls/rooms';
import { nearestOn, wallNetwork, type WallNetwork } from './network';

/** An outline with what stands free in it, by the inner faces of the walls. */
export interface Region {
  outline: Point[];
  holes: Point[][];
}

/** What lies about a point: a region, or, where it is open, the place where it leaks and how wide. */
export type RegionFound =
  { kind: 'region'; region: Region } | { kind: 'leak'; from: Point; to: Point; width: number } | { kind: 'open' };

/** Gaps wider than this are no leaks: the point is outside, metres. */
const widestLeak = 12;
/** At most this many gaps are closed to look for the leak. */
const mostTried = 40;

const counterClockwise = (points: readonly Point[]): Point[] =>
  area(points) < 0 ? [...points].reverse() : [...points];

const centreOf = ({ sides }: NetworkFace<Edge>): Point[] => sides.map(({ from }) => from);

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

function regionOf(faces: readonly NetworkFace<Edge>[], p: Point): Region | null {
  const found = faceAbout(faces, p);
  if (found === null) return null;
  const outline = counterClockwise(simplify(shifted(found.face, 1), 1e-6));
  const holes = found.islands
    .map((island) => counterClockwise(simplify(shifted(island, 1), 1e-6)))
    .filter((hole) => hole.length >= 3);
  return contains(outline, p) && !holes.some((hole) => contains(hole, p)) ? { outline, holes } : null;
}

/** Gaps between free ends of walls and what is nearest to them, the smallest first. */
function gapsOf({ edges, free }: WallNetwork): { from: Point; to: Point; width: number }[] {
  return free
    .flatMap((from) => {
      const near = nearestOn(edges, from);
      return near === null || near.away > widestLeak ? [] : [{ from, to: near.at, width: near.away }];
    })
    .sort((a, b) => a.width - b.width)
    .slice(0, mostTried);
}

/**
 * Finds the region about a point that the walls of a level bound. Free ends within the tolerance are taken as closed;
 * where a region is open beyond that, the first gap is told whose closing would bound it.
 * @param tolerance widest gap that is closed without a word, metres
 */
export function regionFinder(model: Model, levelId: string | null, tolerance: number): (p: Point) => RegionFound {
  const network = wallNetwork(model, levelId);
  const gaps = gapsOf(network);
  const closed = gaps.filter(({ width }) => width <= tolerance).length;
  const known = new Map<number, NetworkFace<Edge>[]>();
  /** The faces with so many of the gaps closed. */
  const facesWith = (count: number): NetworkFace<Edge>[] => {
    const before = known.get(count);
    if (before !== undefined) return before;
    const bridges = gaps.slice(0, count).map(({ from, to }): Point[] => [from, to]);
    const faces = facesOfNetwork((count === 0 ? network : wallNetwork(model, levelId, bridges)).edges);
    known.set(count, faces);
    return faces;
  };
  return (p) => {
    const region = regionOf(facesWith(closed), p);
    if (region !== null) return { kind: 'region', region };
    if (regionOf(facesWith(gaps.length), p) === null) return { kind: 'open' };
    // What is bounded stays so when more is closed: the gap is found by halving.
    let [open, enough] = [closed, gaps.length];
    while (enough - open > 1) {
      const middle = (open + enough) >> 1;
      if (regionOf(facesWith(middle), p) === null) open = middle;
      else enough = middle;
    }
    return { kind: 'leak', ...gaps[enough - 1] };
  };
}

/** The region about one point. */
export const regionAt = (model: Model, levelId: string | null, p: Point, tolerance: number): RegionFound =>
  regionFinder(model, levelId, tolerance)(p);

/** The outlines of the buildings on a level, by the outer faces of their walls, the largest first. */
export function buildingOutlines(model: Model, levelId: string | null): Point[][] {
  const faces = facesOfNetwork(wallNetwork(model, levelId).edges);
  const inner = faces.filter(({ outer }) => !outer);
  return faces
    .filter(({ outer }) => outer)
    .filter((face) => {
      const own = new Set(face.sides.map(({ segment }) => segment));
      return !inner.some(
        (other) =>
          !other.sides.some(({ segment }) => own.has(segment)) && contains(centreOf(other), face.sides[0].from),
      );
    })
    .map((face) => counterClockwise(simplify(shifted(face, 1), 1e-6)))
    .filter((outline) => outline.length >= 3)
    .sort((a, b) => Math.abs(area(b)) - Math.abs(area(a)));
}

/** How far a line must come over an outline to part it, metres. */
const over = 1e-6;

/** Where a straight line crosses an outline, in its order along the line. */
function crossingsWith(outline: readonly Point[], a: Point, b: Point): { at: Point; t: number; edge: number }[] {
  return outline
    .flatMap((p, edge) => {
      const q = outline[(edge + 1) % outline.length];
      const d: Point = [b[0] - a[0], b[1] - a[1]];
      const e: Point = [q[0] - p[0], q[1] - p[1]];
      const denominator = d[0] * e[1] - d[1] * e[0];
      if (denominator === 0) return [];
      const t = ((p[0] - a[0]) * e[1] - (p[1] - a[1]) * e[0]) / denominator;
      const u = ((p[0] - a[0]) * d[1] - (p[1] - a[1]) * d[0]) / denominator;
      const at: Point = [p[0] + u * e[0], p[1] + u * e[1]];
      return u >= 0 && u < 1 && t >= -over && t <= 1 + over ? [{ at, t, edge }] : [];
    })
    .sort((p, q) => p.t - q.t);
}

/**
 * An outline parted by a straight line that enters and leaves it once; null where it does not. The first part lies to
 * the left of the line.
 */
export function dividedBy(outline: readonly Point[], a: Point, b: Point): [Point[], Point[]] | null {
  const ring = counterClockwise(outline);
  const cuts = crossingsWith(ring, a, b);
  if (cuts.length !== 2 || distance(cuts[0].at, cuts[1].at) < over) return null;
  const walk = (from: (typeof cuts)[0], to: (typeof cuts)[0]): Point[] => {
    const points: Point[] = [from.at];
    for (let i = (from.edge + 1) % ring.length; ; i = (i + 1) % ring.length) {
      if (i === (to.edge + 1) % ring.length && points.length > 1) break;
      points.push(ring[i]);
      if (i === to.edge) break;
    }
    return simplify([...points, to.at], over);
  };
  const [enter, leave] = cuts;
  // Counter-clockwise from where the line leaves, round to where it enters, lies the left of it.
  const parts: [Point[], Point[]] = [walk(leave, enter), walk(enter, leave)];
  return parts.every((part) => part.length >= 3 && Math.abs(area(part)) > over) ? parts : null;
}
