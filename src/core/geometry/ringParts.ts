import type { Point } from './vector';

/** A part of a floor: its rings, outlines counter-clockwise and holes clockwise, so that areas add up. */
export type Rings = readonly (readonly Point[])[];

/** Square metres, and where their centre lies. */
export interface Measure {
  area: number;
  centre: Point;
}

/** The rings of a region with an outline and holes. */
export const ringsOf = (outline: readonly Point[], holes: readonly (readonly Point[])[] = []): Rings => [
  turnedTo(outline, 1),
  ...holes.map((hole) => turnedTo(hole, -1)),
];

function turnedTo(ring: readonly Point[], sign: number): readonly Point[] {
  let area = 0;
  ring.forEach(([x, y], i) => {
    const [x2, y2] = ring[(i + 1) % ring.length];
    area += x * y2 - x2 * y;
  });
  return Math.sign(area) === -sign ? [...ring].reverse() : ring;
}

/** What of rings lies where a x + b y is at most c (Sutherland and Hodgman; pieces may hang together by lines). */
export function below(rings: Rings, a: number, b: number, c: number): Rings {
  const kept: Point[][] = [];
  for (const ring of rings) {
    const out: Point[] = [];
    for (let i = 0; i < ring.length; i += 1) {
      const [p, q] = [ring[i], ring[(i + 1) % ring.length]];
      const [u, v] = [a * p[0] + b * p[1] - c, a * q[0] + b * q[1] - c];
      if (u <= 0) out.push(p);
      if ((u < 0 && v > 0) || (u > 0 && v < 0)) {
        const t = u / (u - v);
        out.push([p[0] + (q[0] - p[0]) * t, p[1] + (q[1] - p[1]) * t]);
      }
    }
    if (out.length >= 3) kept.push(out);
  }
  return kept;
}

/** What of rings lies in a box. */
export const inBox = (rings: Rings, x: number, y: number, width: number, height: number): Rings =>
  below(below(below(below(rings, 1, 0, x + width), -1, 0, -x), 0, 1, y + height), 0, -1, -y);

/** The area of rings and its centre, measured about one of their points so that far coordinates cost no digits. */
export function measure(rings: Rings): Measure | null {
  const [ox, oy] = rings[0]?.[0] ?? [0, 0];
  let [area, sx, sy] = [0, 0, 0];
  for (const ring of rings)
    for (let i = 0; i < ring.length; i += 1) {
      const [x1, y1] = [ring[i][0] - ox, ring[i][1] - oy];
      const next = ring[(i + 1) % ring.length];
      const [x2, y2] = [next[0] - ox, next[1] - oy];
      const c = x1 * y2 - x2 * y1;
      area += c / 2;
      sx += ((x1 + x2) * c) / 6;
      sy += ((y1 + y2) * c) / 6;
    }
  if (!(area > 1e-12)) return null;
  return { area, centre: [ox + sx / area, oy + sy / area] };
}
