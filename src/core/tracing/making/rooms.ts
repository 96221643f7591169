import { area, contains, counterClockwise, simplify } from '@/core/geometry/polygon';
import { distance, type Point } from '@/core/geometry/vector';
import { wallLine } from '@/core/kinds/wall';
import type { Model } from '@/core/model/model';
import { centreOf, regionFinder, type RegionFound } from '@/core/reading/walls/regions';
import { facesOfNetwork, shifted } from '@/core/reading/walls/rooms';
import { networkOf, type Side } from '@/core/reading/walls/sides';

/** The straight pieces of the centre lines of a level's walls. */
function sidesOn(model: Model, levelId: string | null): Side[] {
  if (levelId === null) return [];
  return [...model.index.onLevel(levelId)].flatMap((element) => {
    if (element.kind !== 'wall') return [];
    const points = wallLine(element.shape);
    return points.slice(1).map((b, i) => ({ a: points[i], b, thickness: element.shape.thickness }));
  });
}

/** Finds the region about a point that the walls of a level bound. @param tolerance as of `regionFinder` */
export const regionsOn = (model: Model, levelId: string | null, tolerance: number): ((p: Point) => RegionFound) =>
  regionFinder(sidesOn(model, levelId), tolerance);

/** The region about one point. */
export const regionAt = (model: Model, levelId: string | null, p: Point, tolerance: number): RegionFound =>
  regionsOn(model, levelId, tolerance)(p);

/** The outlines of the buildings on a level, by the outer faces of their walls, the largest first. */
export function buildingOutlines(model: Model, levelId: string | null): Point[][] {
  const faces = facesOfNetwork(networkOf(sidesOn(model, levelId)).edges);
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
