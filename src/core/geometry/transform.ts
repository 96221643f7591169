import type { Point } from './vector';

/** Affine map of the plane: x' = a x + c y + e, y' = b x + d y + f. */
export type Transform = readonly [a: number, b: number, c: number, d: number, e: number, f: number];

export const identity: Transform = [1, 0, 0, 1, 0, 0];

export const apply = (t: Transform, p: Point): Point => [
  t[0] * p[0] + t[2] * p[1] + t[4],
  t[1] * p[0] + t[3] * p[1] + t[5],
];

/** The map that applies `inner` first and `outer` after it. */
export function compose(outer: Transform, inner: Transform): Transform {
  const [a, b, c, d, e, f] = outer;
  const [g, h, i, j, k, l] = inner;
  return [a * g + c * h, b * g + d * h, a * i + c * j, b * i + d * j, a * k + c * l + e, b * k + d * l + f];
}

export function invert(t: Transform): Transform {
  const [a, b, c, d, e, f] = t;
  const det = a * d - b * c;
  return [d / det, -b / det, -c / det, a / det, (c * f - d * e) / det, (b * e - a * f) / det];
}

/** The signed area factor; negative where the map mirrors. */
export const determinant = (t: Transform): number => t[0] * t[3] - t[1] * t[2];

/** The length factor where the map keeps angles (turning, mirroring, even scaling), else null. */
export function evenScale(t: Transform): number | null {
  const sx = Math.hypot(t[0], t[1]);
  const sy = Math.hypot(t[2], t[3]);
  const skew = t[0] * t[2] + t[1] * t[3];
  const size = Math.max(sx, sy);
  return Math.abs(sx - sy) <= 1e-9 * size && Math.abs(skew) <= 1e-9 * size * size ? sx : null;
}

/** The angle that a direction has after a map, in radians. */
export function turnDirection(t: Transform, angle: number): number {
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  return Math.atan2(t[1] * c + t[3] * s, t[0] * c + t[2] * s);
}
