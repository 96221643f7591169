import { BoxIndex, boxOf } from '@/core/geometry/boxIndex';
import { distance, lineCrossing, nearestOnPiece, pointAlong, shareAlong, type Point } from '@/core/geometry/vector';
import { defaultTolerance } from '@/core/tolerance';
import type { Edge } from './rooms';

/** Nodes closer than this are one, metres. */
const oneNode = defaultTolerance.coincidence;

/** Centre lines of walls, parted where they meet and cross; shared nodes are the same objects. */
export interface WallNetwork {
  edges: Edge[];
  /** Ends of walls that touch no other. */
  free: Point[];
}

/** A straight piece of a wall's centre line. */
export interface Side {
  a: Point;
  b: Point;
  thickness: number;
}

/** Nodes by their place; a place near a known one is that one. */
class Nodes {
  private readonly cells = new Map<string, Point>();

  at(p: Point): Point {
    const [x, y] = [Math.round(p[0] / oneNode), Math.round(p[1] / oneNode)];
    const same = this.cells.get(`${x} ${y}`);
    if (same !== undefined && distance(same, p) <= oneNode) return same;
    for (let dx = -1; dx <= 1; dx += 1)
      for (let dy = -1; dy <= 1; dy += 1) {
        const known = this.cells.get(`${x + dx} ${y + dy}`);
        if (known !== undefined && distance(known, p) <= oneNode) return known;
      }
    this.cells.set(`${x} ${y}`, p);
    return p;
  }
}

/** Where along a side, as a share of it, another meets it: at a crossing, or at an end of the other. */
function cutsOf(side: Side, other: Side): number[] {
  const cuts = [other.a, other.b]
    .map((p) => ({ p, t: shareAlong(side.a, side.b, p) }))
    .filter(({ p, t }) => t > 0 && t < 1 && distance(pointAlong(side.a, side.b, t), p) <= oneNode)
    .map(({ t }) => t);
  const hit = lineCrossing(side.a, side.b, other.a, other.b);
  if (hit !== null && hit.t > 0 && hit.t < 1 && hit.u > 0 && hit.u < 1) cuts.push(hit.t);
  return cuts;
}

/** Sides as a network. @param more lines without thickness that bound as well */
export function networkOf(walls: readonly Side[], more: readonly (readonly Point[])[] = []): WallNetwork {
  const drawn = more.flatMap((points) => points.slice(1).map((b, i) => ({ a: points[i], b, thickness: 0 })));
  const sides = [...walls, ...drawn].filter(({ a, b }) => distance(a, b) > oneNode);
  const index = new BoxIndex(sides, ({ a, b }) => boxOf([a, b], oneNode));
  const nodes = new Nodes();
  const degree = new Map<Point, number>();
  const known = new Set<string>();
  const edges = sides.flatMap((side, i) => {
    const cuts = index
      .indices(boxOf([side.a, side.b], oneNode))
      .filter((j) => j !== i)
      .flatMap((j) => cutsOf(side, sides[j]))
      .sort((p, q) => p - q);
    const at = (t: number): Point => (t === 1 ? side.b : pointAlong(side.a, side.b, t));
    const stops = [0, ...cuts, 1].map((t) => nodes.at(at(t)));
    return stops.slice(1).flatMap((end, k): Edge[] => {
      if (end === stops[k]) return [];
      const key = [stops[k], end]
        .map(([px, py]) => `${px} ${py}`)
        .sort()
        .join('/');
      // What is there twice bounds once.
      if (known.has(key)) return [];
      known.add(key);
      for (const node of [stops[k], end]) degree.set(node, (degree.get(node) ?? 0) + 1);
      return [{ start: stops[k], end, thickness: side.thickness }];
    });
  });
  return { edges, free: [...degree].filter(([, count]) => count === 1).map(([node]) => node) };
}

/** The place on the network that a point is nearest to, on edges that do not end in it. */
export function nearestOn(edges: readonly Edge[], p: Point): { at: Point; away: number } | null {
  let best: { at: Point; away: number } | null = null;
  for (const { start, end } of edges) {
    if (start === p || end === p) continue;
    const at = nearestOnPiece(start, end, p);
    const away = distance(at, p);
    if (best === null || away < best.away) best = { at, away };
  }
  return best;
}
