import { apply, type Transform } from '@/core/geometry/transform';
import type { Point } from '@/core/geometry/vector';
import type { ElementOf, ElementRow } from '@/core/kinds/element';
import { anchorOf, endsOf, kinds, moveElement, withShape } from '@/core/kinds/kinds';
import type { Model } from '@/core/model/model';
import { lineOf, restrung, withLine } from './restrung';

/** Whether what shares a node with what is carried goes along with that end, or is torn off. */
export type Joints = 'joined' | 'torn';

const samePoint = ([a, b]: Point, [c, d]: Point): boolean => a === c && b === d;

/**
 * Elements carried by a map that turns, shifts or mirrors. Openings go with their walls; one without its wall slides
 * along it. Ends of walls and beams that share a node with what is carried go with the node, and openings in such walls
 * stay where they are in plan; a column is carried by itself only, as what others rest on.
 */
export function carried(model: Model, ids: Iterable<string>, map: Transform, joints: Joints): ElementRow[] {
  const chosen = new Set(ids);
  const own = [...chosen].flatMap((id): ElementRow[] => {
    const element = model.element[id];
    if (element === undefined) return [];
    if (element.kind === 'opening') return slid(model, element, chosen, map);
    return [moveElement(element, map)];
  });
  return joints === 'torn' ? own : [...own, ...draggedAlong(model, chosen, map)];
}

/** An opening without its wall slides along it, as far as the wall goes. */
function slid(model: Model, opening: ElementOf<'opening'>, chosen: ReadonlySet<string>, map: Transform): ElementRow[] {
  const host = model.index.hostOf(opening);
  const at = anchorOf(opening, host);
  if (host === null || at === null || chosen.has(opening.shape.wall)) return [];
  return [{ ...opening, shape: kinds.opening.drag(opening.shape, 'middle', apply(map, at), host) }];
}

/**
 * Walls, beams and line loads that are not carried, with those ends elsewhere that they share with what is; supports
 * and point loads at its nodes go along.
 */
function draggedAlong(model: Model, chosen: ReadonlySet<string>, map: Transform): ElementRow[] {
  const along = new Map<string, ElementRow>();
  for (const id of chosen) {
    const element = model.element[id];
    if (element === undefined) continue;
    for (const end of endsOf(element)) {
      const to = apply(map, end);
      for (const other of model.index.endingAt(element.levelId, end)) {
        if (chosen.has(other.id) || other.kind === 'column') continue;
        if (other.kind === 'support' || other.kind === 'pointLoad') {
          along.set(other.id, withShape(other, { ...other.shape, position: to }));
          continue;
        }
        const now = along.get(other.id) ?? other;
        const line = lineOf(now);
        const was = lineOf(other);
        if (line === null || was === null) continue;
        along.set(
          other.id,
          withLine(now, {
            start: samePoint(was.start, end) ? to : line.start,
            end: samePoint(was.end, end) ? to : line.end,
          }),
        );
      }
    }
  }
  return [...along.values()].flatMap((after) => [after, ...openingsAlong(model, after)]);
}

/** The openings of a wall that is dragged by one end, where they were. */
function openingsAlong(model: Model, after: ElementRow): ElementRow[] {
  const before = model.element[after.id];
  return after.kind === 'wall' && before.kind === 'wall' ? restrung(model, before, after) : [];
}
