import type { Transform } from './transform';

/** Affine map of space, by rows: x' = m[0] x + m[1] y + m[2] z + m[3], y' from m[4], z' from m[8]. */
export type Space = readonly number[];

export type Vector3 = readonly [number, number, number];

const cross3 = (a: Vector3, b: Vector3): Vector3 => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
];
const unit = (a: Vector3): Vector3 => {
  const size = Math.hypot(...a);
  return [a[0] / size, a[1] / size, a[2] / size];
};

/**
 * From a plane's own coordinates to the world's, by its unit normal N: the x axis is (world y) x N where N is within
 * 1/64 of the
 * world's z axis, else (world z) x N; the y axis is N x (x axis). Source: DXF reference, arbitrary axis algorithm.
 */
export function planeSpace(normal: Vector3): Space {
  const steep = Math.abs(normal[0]) < 1 / 64 && Math.abs(normal[1]) < 1 / 64;
  const x = unit(cross3(steep ? [0, 1, 0] : [0, 0, 1], normal));
  const y = unit(cross3(normal, x));
  return [x[0], y[0], normal[0], 0, x[1], y[1], normal[1], 0, x[2], y[2], normal[2], 0];
}

/** The map of space that does in the plan what a map of the plane does, and leaves heights. */
export const spaceOf = (t: Transform): Space => [t[0], t[2], 0, t[4], t[1], t[3], 0, t[5], 0, 0, 1, 0];

/** The map that applies `inner` first and `outer` after it. */
export function composeSpace(outer: Space, inner: Space): Space {
  const out: number[] = [];
  for (let row = 0; row < 3; row += 1) {
    for (let column = 0; column < 4; column += 1) {
      out.push(
        outer[4 * row] * inner[column] +
          outer[4 * row + 1] * inner[4 + column] +
          outer[4 * row + 2] * inner[8 + column] +
          (column === 3 ? outer[4 * row + 3] : 0),
      );
    }
  }
  return out;
}

/** Where the plan sees what lies at a height: the map's upper rows with z put in. */
export const seenFromAbove = (m: Space, z: number): Transform => [
  m[0],
  m[4],
  m[1],
  m[5],
  m[2] * z + m[3],
  m[6] * z + m[7],
];
