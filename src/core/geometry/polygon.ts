import { cross, distance, subtract, type Point } from './vector';

/**
 * Signed area by the shoelace formula, positive where counter-clockwise. Taken about the first point, so that survey
 * coordinates lose nothing.
 */
export function area(points: readonly Point[]): number {
  let sum = 0;
  for (let i = 1; i + 1 < points.length; i += 1)
    sum += cross(subtract(points[i], points[0]), subtract(points[i + 1], points[0]));
  return sum / 2;
}

/** Centre of area. */
export function centroid(points: readonly Point[]): Point {
  let [sx, sy, sum] = [0, 0, 0];
  for (let i = 1; i + 1 < points.length; i += 1) {
    const a = subtract(points[i], points[0]);
    const b = subtract(points[i + 1], points[0]);
    const twice = cross(a, b);
    sx += twice * (a[0] + b[0]);
    sy += twice * (a[1] + b[1]);
    sum += twice;
  }
  if (sum === 0) return points[0];
  return [points[0][0] + sx / (3 * sum), points[0][1] + sy / (3 * sum)];
}

/** Whether a point lies inside, by crossings of a ray (even-odd). */
export function contains(points: readonly Point[], p: Point): boolean {
  let inside = false;
  for (let i = 0, j = points.length - 1; i < points.length; j = i, i += 1) {
    const [a, b] = [points[i], points[j]];
    if (a[1] > p[1] !== b[1] > p[1] && p[0] < ((b[0] - a[0]) * (p[1] - a[1])) / (b[1] - a[1]) + a[0]) inside = !inside;
  }
  return inside;
}

/**
 * A point inside of a polygon and outside of its holes: on the level line through its centre, in the widest part.
 * @param rings the outline, then the holes
 */
export function pointWithin(rings: readonly (readonly Point[])[]): Point {
  const [cx, cy] = centroid(rings[0]);
  const crossings = rings
    .flatMap((ring) =>
      ring.flatMap(([x1, y1], i) => {
        const [x2, y2] = ring[(i + 1) % ring.length];
        return y1 > cy === y2 > cy ? [] : [x1 + ((cy - y1) / (y2 - y1)) * (x2 - x1)];
      }),
    )
    .sort((a, b) => a - b);
  let [widest, at] = [0, cx];
  for (let i = 0; i + 1 < crossings.length; i += 2) {
    const width = crossings[i + 1] - crossings[i];
    if (width > widest) [widest, at] = [width, (crossings[i] + crossings[i + 1]) / 2];
  }
  return [at, cy];
}

/** The outline without doubled points and without points in the middle of straight sides. */
export function simplify(points: readonly Point[], tolerance: number): Point[] {
  const apart = points.filter((p, i) => distance(p, points[(i + 1) % points.length]) > tolerance);
  return apart.filter((p, i) => {
    const before = apart[(i + apart.length - 1) % apart.length];
    const after = apart[(i + 1) % apart.length];
    const base = distance(before, after);
    return base === 0 || Math.abs(cross(subtract(after, before), subtract(p, before))) / base > tolerance;
  });
}

/** Convex hull, counter-clockwise (Andrew's monotone chain, 1979). */
export function convexHull(points: readonly Point[]): Point[] {
  const sorted = [...points].sort((a, b) => a[0] - b[0] || a[1] - b[1]);
  const half = (list: Point[]) => {
    const chain: Point[] = [];
    for (const p of list) {
      while (
        chain.length >= 2 &&
        cross(subtract(chain[chain.length - 1], chain[chain.length - 2]), subtract(p, chain[chain.length - 2])) <= 0
      )
        chain.pop();
      chain.push(p);
    }
    chain.pop();
    return chain;
  };
  return sorted.length < 3 ? sorted : [...half(sorted), ...half(sorted.reverse())];
}

export interface Rectangle {
  centre: Point;
  width: number;
  depth: number;
  rotation: number;
}

/**
 * The rectangle of least area round the points: one side lies on a side of the hull (Freeman and Shapira, 1975).
 * The rotation is in radians, within (-45, 45] degrees, the width along it.
 */
export function leastRectangle(points: readonly Point[]): Rectangle | null {
  const hull = convexHull(points);
  if (hull.length < 3) return null;
  let best: Rectangle | null = null;
  for (let i = 0; i < hull.length; i += 1) {
    const side = subtract(hull[(i + 1) % hull.length], hull[i]);
    const turn = Math.atan2(side[1], side[0]);
    const quarter = Math.PI / 2;
    let rotation = turn - Math.round(turn / quarter) * quarter;
    if (rotation <= -quarter / 2) rotation += quarter;
    const [c, s] = [Math.cos(rotation), Math.sin(rotation)];
    let [minU, maxU, minV, maxV] = [Infinity, -Infinity, Infinity, -Infinity];
    for (const p of hull) {
      const d = subtract(p, hull[0]);
      const [u, v] = [d[0] * c + d[1] * s, d[1] * c - d[0] * s];
      [minU, maxU, minV, maxV] = [Math.min(minU, u), Math.max(maxU, u), Math.min(minV, v), Math.max(maxV, v)];
    }
    if (best && (maxU - minU) * (maxV - minV) >= best.width * best.depth * (1 - 1e-12)) continue;
    const [u, v] = [(minU + maxU) / 2, (minV + maxV) / 2];
    best = {
      centre: [hull[0][0] + u * c - v * s, hull[0][1] + u * s + v * c],
      width: maxU - minU,
      depth: maxV - minV,
      rotation,
    };
  }
  return best;
}

/** An outline turned so that its area counts positive. */
export const counterClockwise = (points: readonly Point[]): Point[] =>
  area(points) < 0 ? [...points].reverse() : [...points];
