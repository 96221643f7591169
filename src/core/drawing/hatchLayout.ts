import type { SplineData } from '@/core/geometry/curves';
import { splineAt } from './splineLayout';

/**
 * A hatch among a row's numbers: `pattern solid loops`, then for each loop `flags edges` and its edges, each
 * a kind and its numbers:
 *
 *   0 side      x1 y1 x2 y2 bulge
 *   1 ellipse   cx cy ax ay bx by start end; circular arcs are bulged sides
 *   2 spline    see `splineLayout.ts`
 */
export const HatchEdge = { side: 0, ellipse: 1, spline: 2 } as const;

export type Edge =
  | { kind: 'side'; numbers: Float64Array }
  | { kind: 'ellipse'; numbers: Float64Array }
  | { kind: 'spline'; spline: SplineData };

/** The loops of a hatch row. */
export function* hatchLoops(numbers: Float64Array, at: number): Generator<Edge[]> {
  const loops = numbers[at + 2];
  let next = at + 3;
  for (let loop = 0; loop < loops; loop += 1) {
    const count = numbers[next + 1];
    next += 2;
    const edges: Edge[] = [];
    for (let i = 0; i < count; i += 1) {
      const kind = numbers[next];
      next += 1;
      if (kind === HatchEdge.spline) {
        const { spline, end } = splineAt(numbers, next);
        edges.push({ kind: 'spline', spline });
        next = end;
      } else {
        const size = kind === HatchEdge.side ? 5 : 8;
        edges.push({
          kind: kind === HatchEdge.side ? 'side' : 'ellipse',
          numbers: numbers.subarray(next, next + size),
        });
        next += size;
      }
    }
    yield edges;
  }
}
