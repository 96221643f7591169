import * as v from 'valibot';
import type { Point } from './geometry/vector';
import { label, point, textUpTo, uuid } from './kinds/limits';

/** Others see so many of somebody's selected elements outlined at most; what is told is to fit one notice. */
export const mostShown = 60;
/** Points of all that somebody drags or draws, that others see of it at most. */
export const mostDraftPoints = 150;

/** What a window tells the others of the same project: where it is, and what it has in hand. */
export const hereSchema = v.strictObject({
  /** The window: another id each time that a project is opened. */
  window: uuid,
  /** The station that it is at. */
  station: textUpTo(40),
  /** The level that it looks at; null where there is none. */
  levelId: v.nullable(uuid),
  /** The upright drawing that it sees face on; null in a plan. */
  faceOn: v.nullable(uuid),
  /** The first of the elements that are selected, by their ids. */
  selected: v.pipe(v.array(label), v.maxLength(mostShown)),
  /** How many are selected in all. */
  count: v.pipe(v.number(), v.integer(), v.minValue(0), v.maxValue(1e7)),
  /** Outlines of what it has in the middle of a gesture, metres of the project. */
  draft: v.pipe(
    v.array(v.array(point)),
    v.check(
      (lines) => lines.reduce((sum, line) => sum + line.length, 0) <= mostDraftPoints,
      `A draft has more than ${mostDraftPoints} points.`,
    ),
  ),
});

/** Another window: what it told, and whose it is; null where nobody signs in. */
export interface Here extends Omit<v.InferOutput<typeof hereSchema>, 'draft'> {
  draft: readonly (readonly Point[])[];
  name: string | null;
}
