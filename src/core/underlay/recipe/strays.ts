import type { Primitives } from '../primitives';
import { findClusters, sortClusters } from './clusters';
import { takeOut, type StepResult } from './edit';

/** Takes out small pieces far from the main content. `away` is the distance of the furthest, in drawing units. */
export function dropStrays(p: Primitives): StepResult & { pieces: number; away: number } {
  const { strays } = sortClusters(findClusters(p));
  const paths = new Set(strays.flatMap(({ cluster }) => cluster.paths));
  const texts = new Set(strays.flatMap(({ cluster }) => cluster.texts));
  return {
    ...takeOut(
      p,
      (path) => paths.has(path),
      (text) => texts.has(text),
    ),
    pieces: strays.length,
    away: Math.max(0, ...strays.map(({ away }) => away)),
  };
}
