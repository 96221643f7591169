import { Delaunay } from 'd3';
import { BoxIndex, boxOf } from './boxIndex';
import { cross, lineCrossing, subtract, type Point } from './vector';

export type GroundPoint = readonly [x: number, y: number, z: number];
type Triangle = readonly [GroundPoint, GroundPoint, GroundPoint];

const flat = ([x, y]: GroundPoint): Point => [x, y];
const twiceArea = (a: Point, b: Point, c: Point): number => cross(subtract(b, a), subtract(c, a));

/** Triangles flatter than this hold no ground, square metres. */
const least = 1e-9;
/** A point on an edge belongs to both sides, shares of the triangle. */
const onEdge = -1e-9;

/** A surface through measured points: flat between three of them (Delaunay 1934), nowhere outside their hull. */
export class GroundSurface {
  readonly triangles: readonly Triangle[];
  private readonly index: BoxIndex<Triangle>;

  constructor(points: readonly GroundPoint[]) {
    const { triangles } = Delaunay.from(
      points,
      ([x]) => x,
      ([, y]) => y,
    );
    this.triangles = Array.from({ length: triangles.length / 3 }, (_, t): Triangle => {
      const [a, b, c] = triangles.slice(3 * t, 3 * t + 3);
      return [points[a], points[b], points[c]];
    }).filter(([a, b, c]) => Math.abs(twiceArea(flat(a), flat(b), flat(c))) > least);
    this.index = new BoxIndex(this.triangles, (corners) => boxOf(corners.map(flat)));
  }

  /** The height of the ground at a place; null outside of what was measured. */
  at(p: Point): number | null {
    for (const [a, b, c] of this.index.around(p)) {
      const whole = twiceArea(flat(a), flat(b), flat(c));
      const [u, v] = [twiceArea(flat(b), flat(c), p) / whole, twiceArea(flat(c), flat(a), p) / whole];
      const w = 1 - u - v;
      if (Math.min(u, v, w) >= onEdge) return u * a[2] + v * b[2] + w * c[2];
    }
    return null;
  }

  /** Where the ground bends under a line, as shares of it. */
  bends(from: Point, to: Point): number[] {
    return this.index.touching(boxOf([from, to])).flatMap((corners) =>
      corners.flatMap((a, i) => {
        const met = lineCrossing(from, to, flat(a), flat(corners[(i + 1) % corners.length]));
        return met !== null && met.t > 0 && met.t < 1 && met.u >= 0 && met.u <= 1 ? [met.t] : [];
      }),
    );
  }
}
