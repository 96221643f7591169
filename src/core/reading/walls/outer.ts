import type { Segment } from './network';
import { facesOfNetwork } from './rooms';

/** Marks the walls that have the outside on one side. */
export function markOuter(segments: readonly Segment[]): Segment[] {
  const outside = new Set(
    facesOfNetwork(segments)
      .filter(({ outer }) => outer)
      .flatMap(({ sides }) => sides.map(({ segment }) => segment)),
  );
  return segments.map((segment) => ({ ...segment, outer: outside.has(segment) }));
}
