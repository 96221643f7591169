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
