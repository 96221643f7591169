import earcut from 'earcut';
import { area } from '@/core/geometry/polygon';
import { cross, distance, subtract, type Point } from '@/core/geometry/vector';

/** A point of space: x, y in the plan and the elevation, metres. */
export type Place = readonly [x: number, y: number, z: number];

/** Heights above points of the plan. */
type Heights = (p: Point) => number;

/** Corners that turn by less than this are of a round thing: no edge is drawn at them, radians. */
const roundedBy = 0.35;

/** Points one after another about an origin, three numbers of 32 bits each; the list grows as it is filled. */
class Points {
  length = 0;
  private numbers = new Float32Array(3072);

  constructor(private readonly origin: Place) {}

  /** 64-bit numbers are shifted before they become 32 bits. */
  add([x, y, z]: Place): void {
    if (this.length + 3 > this.numbers.length) this.grow();
    const { numbers, length, origin } = this;
    numbers[length] = x - origin[0];
    numbers[length + 1] = y - origin[1];
    numbers[length + 2] = z - origin[2];
    this.length = length + 3;
  }

  private grow(): void {
    const larger = new Float32Array(2 * this.numbers.length);
    larger.set(this.numbers);
    this.numbers = larger;
  }

  done(): Float32Array {
    return this.numbers.slice(0, this.length);
  }
}

/** Faces as triangles, counter-clockwise from outside; edges and axes as pieces. */
export class Shell {
  readonly triangles: Points;
  readonly edges: Points;
  readonly axes: Points;

  /** @param origin what all numbers are about */
  constructor(origin: Place) {
    this.triangles = new Points(origin);
    this.edges = new Points(origin);
    this.axes = new Points(origin);
  }

  triangle(a: Place, b: Place, c: Place): void {
    this.triangles.add(a);
    this.triangles.add(b);
    this.triangles.add(c);
  }

  /** A face of four corners. */
  quad(a: Place, b: Place, c: Place, d: Place): void {
    this.triangle(a, b, c);
    this.triangle(a, c, d);
  }

  edge(a: Place, b: Place): void {
    this.edges.add(a);
    this.edges.add(b);
  }

  axis(a: Place, b: Place): void {
    this.axes.add(a);
    this.axes.add(b);
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

/** Whether four corners turn to the left at each of them. */
function isConvex(a: Point, b: Point, c: Point, d: Point): boolean {
  const left = (p: Point, q: Point, r: Point): boolean => cross(subtract(q, p), subtract(r, q)) > 0;
  return left(a, b, c) && left(b, c, d) && left(c, d, a) && left(d, a, b);
}

/** The triangles that fill outlines, counter-clockwise (ear clipping, as its library has it). */
function trianglesOf(rings: readonly Point[][]): [Point, Point, Point][] {
  const [a, b, c, d] = rings[0];
  // Most things are rectangles: they need no search for ears.
  if (rings.length === 1 && rings[0].length === 4 && isConvex(a, b, c, d))
    return [
      [a, b, c],
      [a, c, d],
    ];
  const points = rings.flat();
  const holes = rings.slice(0, -1).map((_, i) => rings.slice(0, i + 1).reduce((sum, ring) => sum + ring.length, 0));
  const [x, y] = points[0] ?? [0, 0];
  // About the first point, so that survey coordinates lose nothing.
  const corners = earcut(
    points.flatMap((p) => [p[0] - x, p[1] - y]),
    holes,
  );
  return Array.from({ length: corners.length / 3 }, (_, i) => {
    const [p, q, r] = [points[corners[3 * i]], points[corners[3 * i + 1]], points[corners[3 * i + 2]]];
    return cross(subtract(q, p), subtract(r, p)) < 0 ? [p, r, q] : [p, q, r];
  });
}

function isCorner(ring: readonly Point[], i: number): boolean {
  const [before, p, after] = [ring[(i + ring.length - 1) % ring.length], ring[i], ring[(i + 1) % ring.length]];
  const [a, b] = [subtract(p, before), subtract(after, p)];
  const size = distance(before, p) * distance(p, after);
  return size > 0 && Math.abs(Math.atan2(cross(a, b), a[0] * b[0] + a[1] * b[1])) > roundedBy;
}
