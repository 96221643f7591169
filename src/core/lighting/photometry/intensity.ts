import { degrees, radians } from '@/core/geometry/vector';
import type { Photometry } from './readIes';

/** A direction of length one, in a luminaire's own axes: x along its 0 degree half-plane, z upward. */
export type Direction = readonly [x: number, y: number, z: number];

/** The place of an angle among rising ones: between which two, and how far along; null where it lies outside. */
function placeOf(angles: readonly number[], angle: number): { i: number; share: number } | null {
  const last = angles.length - 1;
  if (angle < angles[0] - within || angle > angles[last] + within) return null;
  if (last === 0) return { i: 0, share: 0 };
  let [low, high] = [0, last];
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    if (angles[middle] <= angle) low = middle;
    else high = middle;
  }
  return { i: low, share: Math.max(0, Math.min(1, (angle - angles[low]) / (angles[high] - angles[low]))) };
}
/** Angles are written rounded, degrees. */
const within = 1e-3;

/** A horizontal angle of type C brought into the range that the file tells, by its symmetry. */
function folded(angles: readonly number[], angle: number): number {
  const last = angles[angles.length - 1];
  const first = angles[0];
  const around = ((angle % 360) + 360) % 360;
  if (angles.length === 1 || last - first < within) return first;
  // From 90 to 270 it is alike on both sides of the plane through 90 and 270.
  if (first > 45 && last - first <= 180 + within) {
    if (around < 90) return 180 - around;
    return around > 270 ? 540 - around : around;
  }
  if (last <= 90 + within) {
    const half = around > 180 ? 360 - around : around;
    return half > 90 ? 180 - half : half;
  }
  if (last <= 180 + within) return around > 180 ? 360 - around : around;
  return around;
}

/** The two angles of a direction in the file's own planes, degrees. */
function anglesOf({ type, horizontal }: Photometry, [x, y, z]: Direction): [vertical: number, horizontal: number] {
  if (type === 'C') {
    const down = degrees(Math.acos(Math.max(-1, Math.min(1, -z))));
    return [down, folded(horizontal, degrees(Math.atan2(y, x)))];
  }
  // Type B: the beam goes down, the horizontal angle to the side, the vertical one about that side's axis.
  const aside = degrees(Math.asin(Math.max(-1, Math.min(1, y))));
  const up = degrees(Math.atan2(x, -z));
  const symmetric = horizontal[0] >= -within;
  return [up, symmetric ? Math.abs(aside) : aside];
}

/** The intensity in a direction, candela: between the angles of the file by straight lines; outside them nothing. */
export function intensityAt(photometry: Photometry, direction: Direction): number {
  const { vertical, horizontal, intensity } = photometry;
  const [v, h] = anglesOf(photometry, direction);
  const own = photometry.type === 'B' && vertical[0] >= -within ? Math.abs(v) : v;
  const [at, plane] = [placeOf(vertical, own), placeOf(horizontal, h)];
  if (at === null || plane === null) return 0;
  // Asked a million times: no function is made here.
  const n = vertical.length;
  const [first, second] = [plane.i * n, Math.min(plane.i + 1, horizontal.length - 1) * n];
  const [low, high] = [at.i, Math.min(at.i + 1, n - 1)];
  const one = intensity[first + low] + at.share * (intensity[first + high] - intensity[first + low]);
  const other = intensity[second + low] + at.share * (intensity[second + high] - intensity[second + low]);
  return one + plane.share * (other - one);
}

/** Steps of the integration over the sphere, degrees. */
const step = 1;

/** All the light of a luminaire, lumens: its intensity over the sphere, in bands of one degree. */
export function fluxOf(photometry: Photometry): number {
  let sum = 0;
  for (let gamma = step / 2; gamma < 180; gamma += step) {
    const ring = Math.cos(radians(gamma - step / 2)) - Math.cos(radians(gamma + step / 2));
    const [up, out] = [-Math.cos(radians(gamma)), Math.sin(radians(gamma))];
    let around = 0;
    for (let c = step / 2; c < 360; c += step)
      around += intensityAt(photometry, [out * Math.cos(radians(c)), out * Math.sin(radians(c)), up]);
    sum += around * ring * radians(step);
  }
  return sum;
}

/** A luminaire's own axes in the building: turned from x, then its beam lifted towards its 0 degree half-plane. */
export function ownDirection(rotation: number, tilt: number, [dx, dy, dz]: Direction): Direction {
  const [c, s] = [Math.cos(radians(rotation)), Math.sin(radians(rotation))];
  const [x, y] = [c * dx + s * dy, c * dy - s * dx];
  const [ct, st] = [Math.cos(radians(tilt)), Math.sin(radians(tilt))];
  return [ct * x + st * dz, y, ct * dz - st * x];
}
