/** A vector or a point of space. */
export type V3 = readonly [x: number, y: number, z: number];

export const zero: V3 = [0, 0, 0];
export const plus = (a: V3, b: V3): V3 => [a[0] + b[0], a[1] + b[1], a[2] + b[2]];
export const minus = (a: V3, b: V3): V3 => [a[0] - b[0], a[1] - b[1], a[2] - b[2]];
export const times = (a: V3, factor: number): V3 => [a[0] * factor, a[1] * factor, a[2] * factor];
export const dot3 = (a: V3, b: V3): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
export const cross3 = (a: V3, b: V3): V3 => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
];
export const size3 = (a: V3): number => Math.hypot(a[0], a[1], a[2]);
export const between = (a: V3, b: V3, share: number): V3 => plus(a, times(minus(b, a), share));

/** The nearest point of a straight piece to a point: how far along it that is, from 0 to 1. */
export function shareNearest(a: V3, b: V3, p: V3): number {
  const d = minus(b, a);
  const size = dot3(d, d);
  return size === 0 ? 0 : Math.max(0, Math.min(1, dot3(minus(p, a), d) / size));
}

/** Where two straight pieces are nearest to one another, from 0 to 1 along each (Eberly, robust for parallel ones). */
export function nearestShares(a: V3, b: V3, c: V3, d: V3): [number, number] {
  const [u, v, w] = [minus(b, a), minus(d, c), minus(a, c)];
  const [uu, uv, vv, uw, vw] = [dot3(u, u), dot3(u, v), dot3(v, v), dot3(u, w), dot3(v, w)];
  const det = uu * vv - uv * uv;
  // Parallel pieces are nearest at an end of one of them.
  const s = det > 1e-12 * uu * vv ? Math.max(0, Math.min(1, (uv * vw - vv * uw) / det)) : 0;
  const t = shareNearest(c, d, between(a, b, s));
  return [shareNearest(a, b, between(c, d, t)), t];
}

/** The axes of a member: x from start to end, z upward in the vertical plane of x, y = z x x. */
export type Axes = readonly [x: V3, y: V3, z: V3];

/** What stands steeper than this has no direction in plan, as a share of its length. */
const upright = 1e-9;

/**
 * The axes of a straight piece. What stands upright has its z along the project's y, as a column's depth has.
 * @param angle radians by which y and z are turned about x
 */
export function axesOf(start: V3, end: V3, angle: number): Axes {
  const d = minus(end, start);
  const x = times(d, 1 / size3(d));
  const across = Math.hypot(x[0], x[1]);
  const z: V3 = across < upright ? [0, 1, 0] : [(-x[2] * x[0]) / across, (-x[2] * x[1]) / across, across];
  return turned(x, cross3(z, x), z, angle);
}

/** Axes with y and z turned about x. */
export function turned(x: V3, y: V3, z: V3, angle: number): Axes {
  if (angle === 0) return [x, y, z];
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  return [x, plus(times(y, c), times(z, s)), plus(times(y, -s), times(z, c))];
}
