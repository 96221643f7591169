import { offsetPath } from '@/core/geometry/offsetPath';
import { area } from '@/core/geometry/polygon';
import { sidesCross } from '@/core/geometry/sidesCross';
import type { Point } from '@/core/geometry/vector';
import type { ElementRow } from '@/core/kinds/element';
import { withShape } from '@/core/kinds/kinds';
import type { Edit } from '@/core/model/edits';
import type { Model } from '@/core/model/model';
import { fail, ok, type Result } from '@/core/result';
import { labelsTaken, withOwnLabel } from './labels';
import { soundEdit } from './refusals';
import { lineOf, withLine } from './restrung';
import { describeElements } from './words';

const tooFar = 'It would vanish or turn round at that distance. Type a smaller one.';

/**
 * An outline with its edges set off.
 * @param by metres outwards, one for all edges or one an edge; inwards where negative
 */
export function offsetOutline(outline: readonly Point[], by: number | readonly number[]): Result<Point[]> {
  // The left of a counter-clockwise outline is its inside.
  const inwards = area(outline) > 0 ? -1 : 1;
  const signed = typeof by === 'number' ? by * inwards : by.map((one) => one * inwards);
  const off = offsetPath({ points: [...outline], bulges: outline.map(() => 0) }, signed, true);
  return off === null || sidesCross(off.points) ? fail(tooFar) : ok(off.points);
}

/** An element set off by a distance: lines to their left, outlines outwards. */
function setOffOne(element: ElementRow, by: number): Result<ElementRow | null> {
  if ('outline' in element.shape) {
    const outline = offsetOutline(element.shape.outline, by);
    return outline.ok
      ? ok(withShape(element, { ...element.shape, outline: outline.value } as ElementRow['shape']))
      : outline;
  }
  if (element.kind === 'grid' && element.shape.kind === 'arc') {
    const radius = element.shape.radius + by;
    return radius > 0 ? ok({ ...element, shape: { ...element.shape, radius } }) : fail(tooFar);
  }
  const line = lineOf(element);
  if (line === null) return ok(null);
  const off = offsetPath({ points: [line.start, line.end], bulges: [line.bulge] }, by, false);
  if (off === null) return fail(tooFar);
  return ok(withLine(element, { start: off.points[0], end: off.points[1], bulge: off.bulges[0] }));
}

/**
 * Copies of lines beside them, and outlines made larger or smaller.
 * @param by metres: of lines to the left, seen from start to end, of arcs of the grid and outlines outwards
 */
export function setOffElements(model: Model, ids: Iterable<string>, by: number, newId: () => string): Result<Edit> {
  const rows: ElementRow[] = [];
  const labels = labelsTaken(model);
  for (const id of ids) {
    const element = model.element[id];
    if (element === undefined) continue;
    const off = setOffOne(element, by);
    if (!off.ok) return off;
    if (off.value === null) continue;
    rows.push(
      'outline' in element.shape ? off.value : withOwnLabel({ ...off.value, id: newId(), source: null }, labels),
    );
  }
  if (rows.length === 0)
    return fail('Nothing selected can be set off: lines, walls, beams, grid lines and outlines can.');
  return soundEdit(model, `Set off ${describeElements(rows)}`, rows);
}

/** An area with its edges set off, each by its own distance; zero leaves an edge where it is. */
export function setOffEdges(model: Model, id: string, by: readonly number[]): Result<Edit> {
  const element = model.element[id];
  if (element === undefined || !('outline' in element.shape)) return fail('That has no edges that could be set off.');
  const outline = offsetOutline(element.shape.outline, by);
  if (!outline.ok) return outline;
  const row = withShape(element, { ...element.shape, outline: outline.value } as ElementRow['shape']);
  return soundEdit(model, `Set off edges of ${describeElements([row])}`, [row]);
}
