import type { Transform } from '@/core/geometry/transform';
import { subtract, type Point } from '@/core/geometry/vector';
import type { ElementRow } from '@/core/kinds/element';
import { anchorOf, moveElement } from '@/core/kinds/kinds';
import { retied } from '@/core/kinds/tie';
import type { Edit } from '@/core/model/edits';
import { tiesAlong } from '@/core/model/levels';
import type { Model } from '@/core/model/model';
import { fail, type Result } from '@/core/result';
import { labelsTaken, withOwnLabel } from './labels';
import { shelved } from './making/made';
import { shift } from './moved';
import { soundEdit } from './refusals';
import { describeElements } from './words';

/** Elements to be put somewhere else, with the openings in their walls. */
export interface Clip {
  elements: ElementRow[];
  /** The point that comes to lie where the clip is put. */
  base: Point;
}

/** What is selected and the openings that belong to it; an opening goes with its wall only. */
export function clipOf(model: Model, ids: Iterable<string>, base?: Point): Clip {
  const chosen = [...ids].flatMap((id) => model.element[id] ?? []).filter(({ kind }) => kind !== 'opening');
  const openings = chosen.flatMap(({ id }) => [...model.index.openingsOf(id)]);
  const elements = [...chosen, ...openings];
  const first = chosen.map((element) => anchorOf(element)).find((at) => at !== null) ?? [0, 0];
  return { elements, base: base ?? first };
}

/** Copies of elements, carried by a map, with ids of their own; openings are in the copies of their walls. */
export function copiesOf(
  elements: readonly ElementRow[],
  map: Transform,
  newId: () => string,
  level: (own: string | null) => string | null = (own) => own,
): ElementRow[] {
  const ids = new Map(elements.map(({ id }) => [id, newId()]));
  return elements.flatMap((element): ElementRow[] => {
    const moved = moveElement(element, map);
    const common = { id: ids.get(element.id)!, source: null, levelId: level(element.levelId) };
    if (moved.kind !== 'opening') return [{ ...moved, ...common }];
    const wall = ids.get(moved.shape.wall);
    return wall === undefined ? [] : [{ ...moved, ...common, shape: { ...moved.shape, wall } }];
  });
}

/** Puts copies of elements at a shift, or at several of them, in one edit. */
export function repeatElements(
  model: Model,
  ids: Iterable<string>,
  shifts: readonly Point[],
  newId: () => string,
): Result<Edit> {
  const { elements } = clipOf(model, ids);
  if (elements.length === 0)
    return fail('Nothing is selected that can be copied. An opening is copied together with its wall.');
  const copies = shifts.flatMap((by) => copiesOf(elements, shift(by), newId));
  return soundEdit(model, `Copy ${describeElements(elements)}`, withLabels(model, copies));
}

/** Copies with labels of their own, where they are grid lines. */
function withLabels(model: Model, rows: readonly ElementRow[]): ElementRow[] {
  const taken = labelsTaken(model);
  return rows.map((row) => withOwnLabel(row, taken));
}

/** Shifts of so many copies in a row, each by the same. */
export const inARow = ([dx, dy]: Point, count: number): Point[] =>
  Array.from({ length: count }, (_, i) => [dx * (i + 1), dy * (i + 1)]);

/** Shifts that carry a point to others. */
export const toPoints = (from: Point, points: readonly Point[]): Point[] =>
  points.map((p) => subtract(p, from)).filter(([dx, dy]) => dx !== 0 || dy !== 0);

/**
 * Puts a clip onto levels, its base at a point. What it is made of is found in the library by its size, since the
 * clip may come from another project.
 * @param levels ids of the levels; grid lines belong to none and come once
 */
export function pasteClip(
  model: Model,
  clip: Clip,
  at: Point,
  levels: readonly string[],
  newId: () => string,
): Result<Edit> {
  if (clip.elements.length === 0) return fail('Nothing has been copied yet. Select elements and copy them first.');
  if (levels.length === 0) return fail('No level was chosen to paste to.');
  const map = shift(subtract(at, clip.base));
  const rows = levels.flatMap((levelId, i) => {
    const elements = (i === 0 ? clip.elements : clip.elements.filter(({ kind }) => kind !== 'grid')).map((element) =>
      retied(element, tiesAlong(model, element.levelId, levelId)),
    );
    return copiesOf(elements, map, newId, (own) => (own === null ? null : levelId));
  });
  const foreign = (row: ElementRow) =>
    row.libraryId && !model.library[row.libraryId] ? { ...row, libraryId: null } : row;
  const { elements, entries } = shelved(model, rows.map(foreign), newId);
  const where = levels.length === 1 ? (model.level[levels[0]]?.name ?? '') : `${levels.length} levels`;
  return soundEdit(model, `Paste ${describeElements(clip.elements)} to ${where}`, withLabels(model, elements), entries);
}
