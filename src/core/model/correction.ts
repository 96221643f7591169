import { betweenPlacements, faceOn, place, unplace, type Placement } from '@/core/datum/placement';
import { evenScale } from '@/core/geometry/transform';
import { contains } from '@/core/geometry/polygon';
import { cross, direction, dot, subtract, type Point } from '@/core/geometry/vector';
import { dropsOf } from '@/core/kinds/beam';
import type { ElementRow } from '@/core/kinds/element';
import { anchorOf, moveElement } from '@/core/kinds/kinds';
import { hangsOn } from './levels';
import type { Model } from './model';
import type { DrawingRow, ProjectState } from './state';

/** What hangs on a drawing: what was read or taken from it, and what was drawn by hand where it lies. */
export interface Hanging {
  read: ElementRow[];
  drawn: ElementRow[];
}

/**
 * What would be wrong if a drawing is placed anew and nothing goes along: elements that came from it; openings in their
 * walls; and what was drawn by hand on its levels within its outline, which was held on to its lines.
 * @param outline of the drawing as it lies now, in the project; empty for one that stands upright
 */
export function hangingOn(model: Model, drawing: DrawingRow, outline: readonly Point[]): Hanging {
  const read = [...model.index.fromDrawing(drawing.id)];
  const walls = new Set(read.flatMap(({ kind, id }) => (kind === 'wall' ? [id] : [])));
  const levels = [null, ...Object.keys(model.level).filter((id) => hangsOn(model, drawing, id))];
  const drawn = levels
    .flatMap((level) => [...model.index.onLevel(level)])
    .filter((element) => {
      if (element.source !== null) return false;
      if (element.kind === 'opening' && walls.has(element.shape.wall)) return true;
      const at = outline.length === 0 ? null : anchorOf(element, model.index.hostOf(element));
      return at !== null && contains(outline, at);
    });
  return { read, drawn };
}

/** Elements as they are once their drawing is placed anew; those of a section keep to its plane. */
export function carriedBy(
  model: Pick<ProjectState, 'level'>,
  rows: readonly ElementRow[],
  before: Placement,
  after: Placement,
): ElementRow[] {
  if (before.upright !== null && after.upright !== null)
    return rows.map((row) => carriedUpright(model, row, before, after));
  if (before.upright !== null || after.upright !== null) return [...rows];
  const map = betweenPlacements(before, after);
  const factor = evenScale(map) ?? 1;
  return rows.map((row) => {
    const next = moveElement(row, map);
    // What somebody typed is true already: only its place was wrong.
    return row.source === null && Math.abs(factor - 1) > 1e-9 ? sizedAs(next, row) : next;
  });
}

/** An element with the sizes of another. */
function sizedAs(element: ElementRow, as: ElementRow): ElementRow {
  if (element.kind === 'column' && as.kind === 'column')
    return { ...element, shape: { ...element.shape, section: as.shape.section } };
  if (element.kind === 'beam' && as.kind === 'beam')
    return { ...element, shape: { ...element.shape, section: as.shape.section } };
  if (element.kind === 'wall' && as.kind === 'wall')
    return { ...element, shape: { ...element.shape, thickness: as.shape.thickness } };
  if (element.kind === 'slab' && as.kind === 'slab')
    return { ...element, shape: { ...element.shape, thickness: as.shape.thickness } };
  if (element.kind === 'opening' && as.kind === 'opening')
    return { ...element, shape: { ...element.shape, width: as.shape.width } };
  if (element.kind === 'roof' && as.kind === 'roof')
    return { ...element, shape: { ...element.shape, eaves: as.shape.eaves, thickness: as.shape.thickness } };
  return element;
}

/** A member that was taken from a section, where the section stands now; other kinds stay as they are. */
function carriedUpright(
  model: Pick<ProjectState, 'level'>,
  element: ElementRow,
  before: Placement,
  after: Placement,
): ElementRow {
  const level = element.levelId === null ? undefined : model.level[element.levelId];
  if (element.kind !== 'beam' || level === undefined) return element;
  const top = level.elevation + level.height;
  const [u, v] = [direction(before.turning), direction(after.turning)];
  const carried = (p: Point, drop: number): { at: Point; drop: number } => {
    const d = subtract(p, before.target);
    const [along, off] = [dot(d, u), cross(u, d)];
    const [x, z] = place(faceOn(after), unplace(faceOn(before), [along, top - drop]));
    const at: Point = [after.target[0] + x * v[0] - off * v[1], after.target[1] + x * v[1] + off * v[0]];
    return { at, drop: top - z };
  };
  const [from, to] = dropsOf(element.shape);
  const [a, b] = [carried(element.shape.start, from), carried(element.shape.end, to)];
  return { ...element, shape: { ...element.shape, start: a.at, end: b.at, drop: a.drop, endDrop: b.drop } };
}
