import { Kind } from '@/core/drawing/drawing';
import { eachSide } from '@/core/underlay/pieces';
import type { Primitives } from '@/core/underlay/primitives';

/** A straight side of the drawing, about the primitives' origin. */
export interface Side {
  x1: number;
  y1: number;
  x2: number;
  y2: number;
  length: number;
  angle: number;
  path: number;
}

/** At most this many sides are looked at; a share of a larger drawing says as much. */
const mostSides = 30_000;

/** Kinds that annotate: their lines are no building. */
const annotation = new Set<number>([
  Kind.dimension,
  Kind.leader,
  Kind.multiLeader,
  Kind.table,
  Kind.hatch,
  Kind.solid,
  Kind.trace,
  Kind.image,
  Kind.wipeout,
  Kind.construction,
  Kind.ray,
]);

export const isBuilding = (primitives: Primitives, path: number): boolean => !annotation.has(primitives.kind[path]);

/** The straight sides of what may be building, directions in [0, 180) degrees as radians. */
export function buildingSides(p: Primitives): Side[] {
  const sides: Side[] = [];
  const step = Math.max(1, Math.ceil(p.bulge.length / mostSides));
  let n = 0;
  eachSide(p, (path, v, w) => {
    n += 1;
    if (n % step !== 0 || v === w || p.bulge[v] !== 0 || !isBuilding(p, path)) return;
    const [x1, y1, x2, y2] = [p.xy[2 * v], p.xy[2 * v + 1], p.xy[2 * w], p.xy[2 * w + 1]];
    const length = Math.hypot(x2 - x1, y2 - y1);
    if (length === 0) return;
    let angle = Math.atan2(y2 - y1, x2 - x1);
    if (angle < 0) angle += Math.PI;
    if (angle > Math.PI - 1e-3) angle -= Math.PI;
    sides.push({ x1, y1, x2, y2, length, angle, path });
  });
  return sides;
}

/** A side in the coordinates of its family of parallels: along from `from` to `to`, at `offset` across. */
export interface Strip {
  from: number;
  to: number;
  offset: number;
  side: Side;
}

/** Parallel sides, sorted by offset. */
export interface Parallels {
  strips: Strip[];
  angle: number;
}

/** Families of parallel sides. */
export function parallelFamilies(sides: readonly Side[]): Parallels[] {
  const sorted = [...sides].sort((a, b) => a.angle - b.angle);
  const families: Parallels[] = [];
  for (let first = 0; first < sorted.length;) {
    let end = first + 1;
    while (
      end < sorted.length &&
      sorted[end].angle - sorted[end - 1].angle < 1e-3 &&
      sorted[end].angle - sorted[first].angle < 5e-3
    )
      end += 1;
    const angle = sorted[(first + end) >> 1].angle;
    const [c, s] = [Math.cos(angle), Math.sin(angle)];
    if (end - first > 1) {
      const strips = sorted.slice(first, end).map((side): Strip => {
        const [a, b] = [side.x1 * c + side.y1 * s, side.x2 * c + side.y2 * s];
        return {
          from: Math.min(a, b),
          to: Math.max(a, b),
          offset: ((side.y1 + side.y2) * c - (side.x1 + side.x2) * s) / 2,
          side,
        };
      });
      families.push({ strips: strips.sort((a, b) => a.offset - b.offset), angle });
    }
    first = end;
  }
  return families;
}
