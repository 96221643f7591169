import { kinds } from '@/core/kinds/kinds';
import type { BodyPart } from './bodies';
import type { Place } from './shell';

/** A straight look into space: from a place along a direction, in the same numbers as the bodies. */
export interface Ray {
  from: Place;
  along: Place;
}

/** The boxes round each body of a part, six numbers a body: the least, then the greatest x, y, z. */
export function boxesOf({ triangles, triangleEnds }: BodyPart): Float32Array {
  const boxes = new Float32Array(6 * triangleEnds.length);
  let at = 0;
  triangleEnds.forEach((end, i) => {
    boxes.fill(Infinity, 6 * i, 6 * i + 3);
    boxes.fill(-Infinity, 6 * i + 3, 6 * i + 6);
    for (; at < end; at += 1) {
      const axis = at % 3;
      boxes[6 * i + axis] = Math.min(boxes[6 * i + axis], triangles[at]);
      boxes[6 * i + 3 + axis] = Math.max(boxes[6 * i + 3 + axis], triangles[at]);
    }
  });
  return boxes;
}

/** Whether a ray meets a box (slabs; Kay and Kajiya, 1986). */
function meetsBox({ from, along }: Ray, boxes: Float32Array, i: number): boolean {
  let [near, far] = [-Infinity, Infinity];
  for (let axis = 0; axis < 3; axis += 1) {
    const [low, high] = [boxes[6 * i + axis] - from[axis], boxes[6 * i + 3 + axis] - from[axis]];
    if (along[axis] === 0) {
      if (low > 0 || high < 0) return false;
      continue;
    }
    const [a, b] = [low / along[axis], high / along[axis]];
    near = Math.max(near, Math.min(a, b));
    far = Math.min(far, Math.max(a, b));
  }
  return near <= far;
}

/** A ray through the seam of two triangles meets both: rounding must not let it slip through, shares of a side. */
const seam = 1e-6;

/** How far along a ray it meets the triangle that begins at a number; null where it does not (Möller and Trumbore). */
function meetsTriangle({ from, along }: Ray, t: Float32Array, i: number): number | null {
  const [e1x, e1y, e1z] = [t[i + 3] - t[i], t[i + 4] - t[i + 1], t[i + 5] - t[i + 2]];
  const [e2x, e2y, e2z] = [t[i + 6] - t[i], t[i + 7] - t[i + 1], t[i + 8] - t[i + 2]];
  const [px, py, pz] = [
    along[1] * e2z - along[2] * e2y,
    along[2] * e2x - along[0] * e2z,
    along[0] * e2y - along[1] * e2x,
  ];
  const det = e1x * px + e1y * py + e1z * pz;
  if (det === 0) return null;
  const [sx, sy, sz] = [from[0] - t[i], from[1] - t[i + 1], from[2] - t[i + 2]];
  const u = (sx * px + sy * py + sz * pz) / det;
  const [qx, qy, qz] = [sy * e1z - sz * e1y, sz * e1x - sx * e1z, sx * e1y - sy * e1x];
  const v = (along[0] * qx + along[1] * qy + along[2] * qz) / det;
  if (u < -seam || v < -seam || u + v > 1 + seam) return null;
  return (e2x * qx + e2y * qy + e2z * qz) / det;
}

/** Something that a ray meets: the element, and how far along the ray. */
export interface Met {
  elementId: string;
  kind: BodyPart['kind'];
  at: number;
}

/**
 * The first body of a part that a ray meets below a height.
 * @param boxes of `boxesOf`
 * @param cut nothing above this height is met, about the origin of the bodies
 */
export function firstMet(part: BodyPart, boxes: Float32Array, ray: Ray, cut: number): Met | null {
  let first: Met | null = null;
  for (let i = 0; i < part.elements.length; i += 1) {
    if (!meetsBox(ray, boxes, i)) continue;
    const begin = i === 0 ? 0 : part.triangleEnds[i - 1];
    for (let t = begin; t < part.triangleEnds[i]; t += 9) {
      const at = meetsTriangle(ray, part.triangles, t);
      if (at === null || (first !== null && at >= first.at)) continue;
      if (ray.from[2] + at * ray.along[2] > cut) continue;
      first = { elementId: part.elements[i], kind: part.kind, at };
    }
  }
  return first;
}

/** Faces as near to one another as this lie in one another, metres: a ray meets both at once. */
const flush = 0.002;

/** Whether a click means what was met rather than another: the nearer one, and of two in one place the slighter one. */
export function meansRather(met: Met, other: Met): boolean {
  if (Math.abs(met.at - other.at) > flush) return met.at < other.at;
  return kinds[met.kind].standsBack < kinds[other.kind].standsBack;
}
