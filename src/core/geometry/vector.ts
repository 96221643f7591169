/** A point or vector in the plane. */
export type Point = readonly [x: number, y: number];

export const add = (a: Point, b: Point): Point => [a[0] + b[0], a[1] + b[1]];
export const subtract = (a: Point, b: Point): Point => [a[0] - b[0], a[1] - b[1]];
export const scale = (a: Point, factor: number): Point => [a[0] * factor, a[1] * factor];
export const dot = (a: Point, b: Point): number => a[0] * b[0] + a[1] * b[1];
/** The z of the cross product: positive where b lies counter-clockwise of a. */
export const cross = (a: Point, b: Point): number => a[0] * b[1] - a[1] * b[0];
/**
 * Plain squares and a root: coordinates of plans neither overflow nor vanish, and this is many times faster than the
 * function that minds both.
 */
export const distance = (a: Point, b: Point): number => {
  const [dx, dy] = [a[0] - b[0], a[1] - b[1]];
  return Math.sqrt(dx * dx + dy * dy);
};
export const middle = (a: Point, b: Point): Point => [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2];
/** Unit vector at an angle in radians. */
export const direction = (angle: number): Point => [Math.cos(angle), Math.sin(angle)];
export const degrees = (radians: number): number => (radians * 180) / Math.PI;
export const radians = (angleInDegrees: number): number => (angleInDegrees * Math.PI) / 180;

/** Where on the line from a to b the foot of a point lies, as a share of it: 0 at a, 1 at b. */
export function shareAlong(a: Point, b: Point, p: Point): number {
  const along = subtract(b, a);
  return dot(subtract(p, a), along) / (dot(along, along) || 1);
}

/** The point of the line from a to b at a share of it. */
export const pointAlong = (a: Point, b: Point, share: number): Point => [
  a[0] + share * (b[0] - a[0]),
  a[1] + share * (b[1] - a[1]),
];

/** The foot of a point on the endless line through a and b. */
export const footOnLine = (a: Point, b: Point, p: Point): Point => pointAlong(a, b, shareAlong(a, b, p));

/** The point of the piece from a to b that is nearest to another. */
export const nearestOnPiece = (a: Point, b: Point, p: Point): Point =>
  pointAlong(a, b, Math.min(1, Math.max(0, shareAlong(a, b, p))));

/** Where the lines through a-b and c-d cross, with the parameter along a-b; null where they are parallel. */
export function lineCrossing(a: Point, b: Point, c: Point, d: Point): { point: Point; t: number; u: number } | null {
  const ab = subtract(b, a);
  const cd = subtract(d, c);
  const denominator = cross(ab, cd);
  const size = Math.hypot(...ab) * Math.hypot(...cd);
  if (size === 0 || Math.abs(denominator) < 1e-12 * size) return null;
  const ac = subtract(c, a);
  const t = cross(ac, cd) / denominator;
  return { point: [a[0] + t * ab[0], a[1] + t * ab[1]], t, u: cross(ac, ab) / denominator };
}
