import earcut from 'earcut';
import { area } from '@/core/geometry/polygon';
import { cross, distance, subtract, type Point } from '@/core/geometry/vector';

/** A point of space: x, y in the plan and the elevation, metres. */
export type Place = readonly [x: number, y: number, z: number];

/** Heights above points of the plan. */
type Heights = (p: Point) => number;

/** Corners that turn by less than this are of a round thing: no edge is drawn at them, radians. */
const roundedBy = 0.35;

/** Faces as triangles, counter-clockwise from outside; edges and axes as pieces: each three numbers a point. */
export class Shell {
  readonly triangles: number[] = [];
  readonly edges: number[] = [];
  readonly axes: number[] = [];

  triangle(a: Place, b: Place, c: Place): void {
    this.triangles.push(a[0], a[1], a[2], b[0], b[1], b[2], c[0], c[1], c[2]);
  }

  /** A face of four corners. */
  quad(a: Place, b: Place, c: Place, d: Place): void {
    this.triangle(a, b, c);
    this.triangle(a, c, d);
  }

  edge(a: Place, b: Place): void {
    this.edges.push(a[0], a[1], a[2], b[0], b[1], b[2]);
  }

  axis(a: Place, b: Place): void {
    this.axes.push(a[0], a[1], a[2], b[0], b[1], b[2]);
  }

  /** A ring as pieces of the axis. */
  axisRing(ring: readonly Place[]): void {
    ring.forEach((p, i) => this.axis(p, ring[(i + 1) % ring.length]));
  }

  /**
   * What fills outlines (the outer one first, then holes) between two surfaces.
   * @param top above the plan's points, metres; so `bottom`
   */
  prism(outlines: readonly (readonly Point[])[], bottom: Heights, top: Heights): void {
    this.sweep(
      outlines,
      (p) => [p[0], p[1], bottom(p)],
      (p) => [p[0], p[1], top(p)],
    );
  }

  /** A flat area at a height, seen from both sides. */
  sheet(outlines: readonly (readonly Point[])[], height: number): void {
    const rings = oriented(outlines);
    for (const triangle of trianglesOf(rings)) {
      const [a, b, c] = triangle.map(([x, y]): Place => [x, y, height]);
      this.triangle(a, b, c);
      this.triangle(a, c, b);
    }
    for (const ring of rings)
      ring.forEach(([x, y], i) => {
        const [nx, ny] = ring[(i + 1) % ring.length];
        this.edge([x, y, height], [nx, ny, height]);
      });
  }

  /**
   * What outlines sweep from one plane to another.
   * @param near where points of the outlines lie at the start: counter-clockwise outlines are seen so from the far end
   * @param far where they lie at the end
   */
  sweep(outlines: readonly (readonly Point[])[], near: (p: Point) => Place, far: (p: Point) => Place): void {
    const rings = oriented(outlines);
    for (const [a, b, c] of trianglesOf(rings)) {
      this.triangle(far(a), far(b), far(c));
      this.triangle(near(a), near(c), near(b));
    }
    for (const ring of rings)
      ring.forEach((p, i) => {
        const next = ring[(i + 1) % ring.length];
        this.quad(near(p), near(next), far(next), far(p));
        this.edge(near(p), near(next));
        this.edge(far(p), far(next));
        if (isCorner(ring, i)) this.edge(near(p), far(p));
      });
  }
}

/** Outer outlines counter-clockwise, holes clockwise. */
const oriented = (outlines: readonly (readonly Point[])[]): Point[][] =>
  outlines.map((ring, i) => (area(ring) > 0 === (i === 0) ? [...ring] : [...ring].reverse()));

/** The triangles that fill outlines, counter-clockwise (ear clipping, as its library has it). */
function trianglesOf(rings: readonly Point[][]): [Point, Point, Point][] {
  const points = rings.flat();
  const holes = rings.slice(0, -1).map((_, i) => rings.slice(0, i + 1).reduce((sum, ring) => sum + ring.length, 0));
  const [x, y] = points[0] ?? [0, 0];
  // About the first point, so that survey coordinates lose nothing.
  const corners = earcut(
    points.flatMap((p) => [p[0] - x, p[1] - y]),
    holes,
  );
  return Array.from({ length: corners.length / 3 }, (_, i) => {
    const [a, b, c] = [points[corners[3 * i]], points[corners[3 * i + 1]], points[corners[3 * i + 2]]];
    return cross(subtract(b, a), subtract(c, a)) < 0 ? [a, c, b] : [a, b, c];
  });
}

function isCorner(ring: readonly Point[], i: number): boolean {
  const [before, p, after] = [ring[(i + ring.length - 1) % ring.length], ring[i], ring[(i + 1) % ring.length]];
  const [a, b] = [subtract(p, before), subtract(after, p)];
  const size = distance(before, p) * distance(p, after);
  return size > 0 && Math.abs(Math.atan2(cross(a, b), a[0] * b[0] + a[1] * b[1])) > roundedBy;
}
