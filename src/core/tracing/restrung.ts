import type { Point } from '@/core/geometry/vector';
import type { ElementOf, ElementRow } from '@/core/kinds/element';
import { anchorOf } from '@/core/kinds/kinds';
import { alongWall, type Opening } from '@/core/kinds/opening';
import type { Wall } from '@/core/kinds/wall';
import type { Model } from '@/core/model/model';

/** An element that runs from a start to an end. */
export type Linear = ElementOf<'wall'> | ElementOf<'beam'> | ElementOf<'lineLoad'> | ElementOf<'grid'>;

/** The straight or bent line of an element; null for kinds and shapes that have none. */
export function lineOf(element: ElementRow): { start: Point; end: Point; bulge: number } | null {
  if (element.kind === 'wall') return element.shape;
  if (element.kind === 'beam' || element.kind === 'lineLoad') return { ...element.shape, bulge: 0 };
  return element.kind === 'grid' && element.shape.kind === 'line' ? { ...element.shape, bulge: 0 } : null;
}

/** An element with another line; a kind without one stays as it is. */
export function withLine<E extends ElementRow>(element: E, line: { start: Point; end: Point; bulge?: number }): E {
  const { start, end, bulge } = line;
  if (element.kind === 'wall')
    return { ...element, shape: { ...element.shape, start, end, bulge: bulge ?? element.shape.bulge } };
  if (element.kind === 'beam') return { ...element, shape: { ...element.shape, start, end } };
  if (element.kind === 'lineLoad') return { ...element, shape: { ...element.shape, start, end } };
  return element.kind === 'grid' && element.shape.kind === 'line'
    ? { ...element, shape: { ...element.shape, start, end } }
    : element;
}

/** An opening where it was in plan, in a wall whose line is another. */
export function openingIn(opening: Opening, before: Wall, after: Wall): Opening {
  const at = anchorOf({ kind: 'opening', shape: opening }, before);
  return at === null ? opening : { ...opening, offset: Math.max(0, alongWall(after, at) - opening.width / 2) };
}

/** The openings of a wall, where they were in plan, once the wall has another line; none where they lie as before. */
export function restrung(model: Model, before: ElementOf<'wall'>, after: ElementOf<'wall'>): ElementRow[] {
  return Array.from(model.index.openingsOf(before.id), (opening) => ({
    ...opening,
    shape: openingIn(opening.shape, before.shape, after.shape),
  })).filter((opening) => {
    const was = model.element[opening.id];
    return was.kind === 'opening' && Math.abs(was.shape.offset - opening.shape.offset) > 1e-12;
  });
}
