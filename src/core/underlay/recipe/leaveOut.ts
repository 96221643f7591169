import { contains } from '@/core/geometry/polygon';
import type { Point } from '@/core/geometry/vector';
import type { Drawing } from '@/core/drawing/drawing';
import { matches } from '@/core/pattern';
import type { Primitives } from '../primitives';
import { takeOut, type StepResult } from './edit';
import { entityGroups, type EntityGroup } from './steps';

/** Takes out kinds of entities. */
export function leaveOutKinds(p: Primitives, groups: readonly EntityGroup[]): StepResult {
  const gone = new Set<number>(groups.flatMap((group) => [...entityGroups[group].kinds]));
  return takeOut(
    p,
    (path) => gone.has(p.kind[path]),
    (text) => gone.has(p.texts[text].kind),
  );
}

export function leaveOutLayers(p: Primitives, drawing: Drawing, patterns: readonly string[]): StepResult {
  const gone = drawing.layers.map(({ name }) => patterns.some((pattern) => matches(pattern, name)));
  return takeOut(
    p,
    (path) => gone[p.layer[path]],
    (text) => gone[p.texts[text].layer],
  );
}

/** Takes out what stands in blocks, at any depth. */
export function leaveOutBlocks(p: Primitives, drawing: Drawing, patterns: readonly string[]): StepResult {
  const block = drawing.blocks.map(({ name }) => patterns.some((pattern) => matches(pattern, name)));
  const gone: boolean[] = [];
  // A chain's parent comes before it.
  for (const chain of p.chains) gone.push(chain.block >= 0 && (block[chain.block] || gone[chain.parent]));
  return takeOut(
    p,
    (path) => gone[p.chain[path]],
    (text) => gone[p.texts[text].chain],
  );
}

/**
 * Keeps or drops what lies in a region. A path lies where most of its vertices lie.
 * @param polygon in the drawing's coordinates
 */
export function region(p: Primitives, keep: 'inside' | 'outside', polygon: readonly Point[]): StepResult {
  const local = polygon.map(([x, y]): Point => [x - p.origin[0], y - p.origin[1]]);
  const inside = (path: number): boolean => {
    const [first, end] = [p.start[path], p.start[path + 1]];
    let within = 0;
    for (let v = first; v < end; v += 1) if (contains(local, [p.xy[2 * v], p.xy[2 * v + 1]])) within += 1;
    return 2 * within >= end - first && within > 0;
  };
  const drop = keep === 'inside' ? (here: boolean) => !here : (here: boolean) => here;
  return takeOut(
    p,
    (path) => drop(inside(path)),
    (text) => drop(contains(local, [p.texts[text].x, p.texts[text].y])),
  );
}
