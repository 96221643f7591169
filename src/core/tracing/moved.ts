import type { Point } from '@/core/geometry/vector';
import type { Transform } from '@/core/geometry/transform';
import type { ElementRow } from '@/core/kinds/element';
import { anchorOf, kinds, moveElement } from '@/core/kinds/kinds';
import { put, type Edit } from '@/core/model/edits';
import type { Model } from '@/core/model/model';
import { describeElements } from './words';

/** A shift as a map. */
const shift = ([dx, dy]: Point): Transform => [1, 0, 0, 1, dx, dy];

/**
 * Elements carried by a shift in plan, metres. An opening goes with its wall; one that is moved without its wall slides
 * along it, as far as the wall goes.
 */
export function movedElements(model: Model, ids: Iterable<string>, by: Point): ElementRow[] {
  const chosen = new Set(ids);
  const map = shift(by);
  return [...chosen].flatMap((id): ElementRow[] => {
    const element = model.element[id];
    if (element === undefined) return [];
    if (element.kind !== 'opening') return [moveElement(element, map)];
    const host = model.index.hostOf(element);
    const at = anchorOf(element, host);
    if (host === null || at === null || chosen.has(element.shape.wall)) return [];
    const shape = kinds.opening.drag(element.shape, 'middle', [at[0] + by[0], at[1] + by[1]], host);
    return [{ ...element, shape }];
  });
}

/** Moves elements by a shift in plan, metres. */
export function moveElements(model: Model, ids: Iterable<string>, by: Point): Edit {
  const moved = movedElements(model, ids, by);
  return { label: `Move ${describeElements(moved)}`, changes: moved.map((element) => put('element', element)) };
}
