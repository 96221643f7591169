import { groupBy } from '@/core/groupBy';
import type { ElementKind, ElementRow } from '@/core/kinds/element';
import { anchorOf } from '@/core/kinds/kinds';
import { withChanges } from '@/core/kinds/putRight';
import { put, type Edit } from '@/core/model/edits';
import { retied } from '@/core/kinds/tie';
import { sourceLevel, tiesAlong } from '@/core/model/levels';
import { madeOf, withEntryKept } from '@/core/model/library';
import type { Model } from '@/core/model/model';
import { fail, type Result } from '@/core/result';
import type { Point } from '@/core/geometry/vector';
import { soundEdit } from './refusals';
import { describeElements } from './words';

const elementsOf = (model: Model, ids: Iterable<string>): ElementRow[] =>
  [...ids].flatMap((id) => model.element[id] ?? []);

/** Elements that can be selected on a level: its own and those of none, without what is held. */
export function selectable(model: Model, levelId: string | null): ElementRow[] {
  const own = levelId === null ? [] : model.index.onLevel(levelId);
  return [...model.index.onLevel(null), ...own].filter(({ held }) => held !== true);
}

/** What makes elements alike: their kind, and their size or what they are used as. */
function likeness(element: ElementRow): string {
  const made = madeOf(element);
  if (made !== null) return `${element.kind} ${JSON.stringify(made)}`;
  if (element.kind === 'opening') return `opening ${element.shape.use} ${element.shape.width.toFixed(3)}`;
  return element.kind;
}

/** The elements on a level that are like one of some: of its kind and its size. */
export function similarTo(model: Model, levelId: string | null, ids: Iterable<string>): string[] {
  const wanted = new Set(elementsOf(model, ids).map(likeness));
  return selectable(model, levelId).flatMap((element) => (wanted.has(likeness(element)) ? [element.id] : []));
}

/** Changes a field of elements, by its label; those that have no such field stay. */
export function changeField(model: Model, ids: Iterable<string>, label: string, value: string | number): Result<Edit> {
  const rows = elementsOf(model, ids).map((element) =>
    withEntryKept(model, {
      ...element,
      shape: withChanges(element, new Map([[label, value]])),
    } as ElementRow),
  );
  return soundEdit(model, `${label} of ${describeElements(rows)}`, rows);
}

/** Puts elements on another level; openings go with their walls, grid lines belong to none. */
export function putOnLevel(model: Model, ids: Iterable<string>, levelId: string): Result<Edit> {
  const level = sourceLevel(model, levelId);
  const standing = elementsOf(model, ids).filter(({ kind }) => kind !== 'grid' && kind !== 'opening');
  const openings = standing.flatMap(({ id }) => [...model.index.openingsOf(id)]);
  const rows = [...standing, ...openings].map((element): ElementRow => ({
    ...retied(element, tiesAlong(model, element.levelId, level)),
    levelId: level,
  }));
  if (rows.length === 0) return fail('Nothing selected belongs to a level: grid lines run through all of them.');
  return soundEdit(model, `Put ${describeElements(standing)} on ${model.level[levelId]?.name ?? ''}`, rows);
}

/** Holds elements that somebody has checked, or lets them go. */
export function holdElements(model: Model, ids: Iterable<string>, hold: boolean): Edit {
  const elements = elementsOf(model, ids).filter(({ held }) => (held === true) !== hold);
  return {
    label: `${hold ? 'Hold' : 'Let go'} ${describeElements(elements)}`,
    changes: elements.map(({ held: _, ...row }) => put('element', hold ? { ...row, held: true } : row)),
  };
}

/** The elements that are held, by kind. */
export const heldByKind = (model: Model): [ElementKind, ElementRow[]][] => [
  ...groupBy(
    Object.values(model.element).filter(({ held }) => held === true),
    ({ kind }) => kind,
  ),
];

/** How marks are given: a pattern in which {n} is a number, and where counting begins. */
export interface MarkRule {
  pattern: string;
  first: number;
  /** Rows from the top down and in them from left to right, or columns from the left and in them from below. */
  order: 'rows' | 'columns';
}

/** Elements within this of one another across the order are in one row, metres. */
const oneRow = 0.5;

/** Points row by row; within a row by the other coordinate. */
function inOrder(at: readonly Point[], order: MarkRule['order']): number[] {
  const [across, along] =
    order === 'rows' ? [(p: Point) => -p[1], (p: Point) => p[0]] : [(p: Point) => p[0], (p: Point) => p[1]];
  const sorted = at.map((_, i) => i).sort((a, b) => across(at[a]) - across(at[b]));
  const rows: number[][] = [];
  for (const i of sorted) {
    const row = rows[rows.length - 1];
    if (row !== undefined && across(at[i]) - across(at[row[0]]) <= oneRow) row.push(i);
    else rows.push([i]);
  }
  return rows.flatMap((row) => row.sort((a, b) => along(at[a]) - along(at[b])));
}

/** Gives columns, beams and zones marks or numbers by a rule, in the order of their places. */
export function giveMarks(model: Model, ids: Iterable<string>, { pattern, first, order }: MarkRule): Result<Edit> {
  if (!pattern.includes('{n}')) return fail('The pattern has no {n} in it, where the number goes: for example C{n}.');
  const marked = elementsOf(model, ids).filter(({ kind }) => kind === 'column' || kind === 'beam' || kind === 'zone');
  if (marked.length === 0) return fail('Marks are given to columns, beams and zones; none of them is selected.');
  const places = marked.map((element): Point => anchorOf(element) ?? [0, 0]);
  const rows = inOrder(places, order).map((i, n): ElementRow => {
    const element = marked[i];
    const mark = pattern.replaceAll('{n}', String(first + n));
    if (element.kind === 'zone') return { ...element, shape: { ...element.shape, number: mark } };
    return element.kind === 'column' || element.kind === 'beam'
      ? ({ ...element, shape: { ...element.shape, mark } } as ElementRow)
      : element;
  });
  return soundEdit(model, `Mark ${describeElements(rows)}`, rows);
}
