import type { RigidFit } from '@/core/datum/fit';
import { unplace, type Placement } from '@/core/datum/placement';
import { distance, type Point } from '@/core/geometry/vector';

/** The longest arrow is drawn at most this long, metres. */
const longestArrow = 2;

/** A miss below this is no miss, metres. */
export const unseen = 5e-6;

/** A power of ten that makes the misses visible on a plan. */
export const exaggeration = (worst: number): number =>
  worst < unseen ? 1 : Math.max(1, 10 ** Math.floor(Math.log10(longestArrow / worst)));

/** Arrows from where points come to lie to where they belong, in the drawing's coordinates; a cross where they meet. */
export function residualArrows({ residuals }: RigidFit, placement: Placement, factor: number) {
  const origin = unplace(placement, residuals[0].to);
  const lines: number[] = [];
  const add = (a: Point, b: Point) => {
    const [p, q] = [unplace(placement, a), unplace(placement, b)];
    lines.push(p[0] - origin[0], p[1] - origin[1], q[0] - origin[0], q[1] - origin[1]);
  };
  for (const { fitted, to } of residuals) {
    const head: Point = [fitted[0] + (to[0] - fitted[0]) * factor, fitted[1] + (to[1] - fitted[1]) * factor];
    const length = distance(fitted, head);
    add([fitted[0] - 0.15, fitted[1]], [fitted[0] + 0.15, fitted[1]]);
    add([fitted[0], fitted[1] - 0.15], [fitted[0], fitted[1] + 0.15]);
    if (length < 0.05) continue;
    const [ux, uy] = [(head[0] - fitted[0]) / length, (head[1] - fitted[1]) / length];
    const barb = Math.min(0.4, length / 2);
    add(fitted, head);
    for (const side of [0.5, -0.5]) add(head, [head[0] - barb * (ux + side * uy), head[1] - barb * (uy - side * ux)]);
  }
  return {
    origin: [origin[0], origin[1]] as [number, number],
    parts: [{ tone: 'evidence' as const, lines: Float32Array.from(lines) }],
  };
}
