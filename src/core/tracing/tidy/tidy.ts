import type { ElementRow } from '@/core/kinds/element';
import type { Change, Edit } from '@/core/model/edits';
import type { Model } from '@/core/model/model';
import { fail, type Result } from '@/core/result';
import { Removal } from '@/core/decisions/decide';
import { mergedInto } from '../parts';
import { newRefusals, soundEdit } from '../refusals';
import { closeOutlines, cutAtCrossings, extendToMeet, mergeDoubles, mergeOverlaps, removeSlivers } from './joins';
import { alignToGrid, pullEnds, straighten } from './nodes';
import { tidySteps, Workpiece, type TidyOrder, type TidyStep } from './workpiece';

/** What tidying would change, and how much each step did. */
export interface Tidied {
  changed: ElementRow[];
  /** What becomes part of another element, and what goes. */
  merged: [gone: string, whole: string][];
  gone: string[];
  counts: Partial<Record<TidyStep, number>>;
}

const acts: Record<TidyStep, (piece: Workpiece, order: TidyOrder) => number> = {
  doubles: mergeDoubles,
  straighten,
  grid: alignToGrid,
  ends: pullEnds,
  extend: extendToMeet,
  overlaps: mergeOverlaps,
  cut: cutAtCrossings,
  outlines: closeOutlines,
  slivers: removeSlivers,
};

/** One step makes work for another: so often they are gone through, until none finds anything. */
const mostRounds = 16;

/** Tidies the elements of a level; what is held stays, and applied again it changes nothing more. */
export function tidy(rows: readonly ElementRow[], order: TidyOrder): Tidied {
  const piece = new Workpiece(rows);
  const counts: Tidied['counts'] = {};
  for (let round = 0; round < mostRounds; round += 1) {
    let found = 0;
    for (const step of tidySteps) {
      if (!order.steps.includes(step)) continue;
      const count = acts[step](piece, order);
      if (count > 0) counts[step] = (counts[step] ?? 0) + count;
      found += count;
    }
    if (found === 0) break;
  }
  return { changed: piece.changed(), merged: [...piece.merged], gone: [...piece.gone], counts };
}

/** The wall of an opening that would be broken: it is the wall that was changed. */
function hostOf(model: Model, rows: readonly ElementRow[], id: string): string[] {
  const element = rows.find((row) => row.id === id) ?? model.element[id];
  return element?.kind === 'opening' ? [element.shape.wall] : [];
}

/** Openings that are in another wall now than one that goes. */
const movedOpenings = (changed: readonly ElementRow[], gone: readonly string[]): string[] =>
  changed.flatMap((row) => (row.kind === 'opening' && !gone.includes(row.shape.wall) ? [row.id] : []));

/** Walls that would go although an opening, which was to be moved from them, stays. */
function strandedWalls(
  model: Model,
  moved: readonly string[],
  rows: readonly ElementRow[],
  gone: readonly string[],
): Set<string> {
  const done = new Set(rows.map(({ id }) => id));
  const hosts = moved.flatMap((id) => {
    const opening = model.element[id];
    return done.has(id) || opening?.kind !== 'opening' ? [] : [opening.shape.wall];
  });
  return new Set(hosts.filter((wall) => gone.includes(wall)));
}

/** What is merged step by step ends in one whole. */
function wholeOf(merged: ReadonlyMap<string, string>, id: string): string {
  let whole = id;
  while (merged.has(whole)) whole = merged.get(whole)!;
  return whole;
}

/**
 * The edit of a tidy-up. Elements that it would break, such as a wall too short for its door, stay as they are; how
 * many those are is told.
 */
export function tidyEdit(
  model: Model,
  { changed, merged, gone }: Pick<Tidied, 'changed' | 'merged' | 'gone'>,
): Result<{ edit: Edit; left: number }> {
  const wholes = new Map(merged);
  const moved = movedOpenings(changed, gone);
  const removal = new Removal(model, new Set(), new Set(moved));
  for (const id of gone) removal.element(id);
  const more: Change[] = [...removal.changes, ...merged.flatMap(([id]) => mergedInto(model, id, wholeOf(wholes, id)))];
  const removed = new Set(more.flatMap(({ table, id, row }) => (table === 'element' && row === null ? [id] : [])));
  let rows = changed.filter(({ id }) => !removed.has(id));
  const before = rows.length;
  let why = '';
  for (;;) {
    const refusals = newRefusals(model, rows, removed);
    why = refusals[0]?.message ?? why;
    const bad = new Set(refusals.flatMap(({ id }) => [id, ...hostOf(model, rows, id)]));
    const kept = rows.filter(({ id }) => !bad.has(id));
    if (kept.length === rows.length || bad.size === 0) break;
    rows = kept;
  }
  const stranded = strandedWalls(model, moved, rows, gone);
  if (stranded.size > 0) {
    // A door that cannot be moved keeps its wall.
    const rest = tidyEdit(model, { changed: rows, merged, gone: gone.filter((id) => !stranded.has(id)) });
    return rest.ok ? { ok: true, value: { ...rest.value, left: rest.value.left + before - rows.length } } : rest;
  }
  if (rows.length === 0 && more.length === 0)
    return fail(why === '' ? 'There is nothing to tidy up.' : `Nothing can be tidied up without breaking it. ${why}`);
  const edit = soundEdit(model, 'Tidy up', rows, more);
  return edit.ok ? { ok: true, value: { edit: edit.value, left: before - rows.length } } : edit;
}
