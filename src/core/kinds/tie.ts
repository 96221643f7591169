import * as v from 'valibot';
import type { ElementKind, ElementRow } from './element';
import { rise, uuid } from './limits';

/** An end tied to a level: it lies `offset` metres above it, and follows when the level changes. */
export interface LevelTie {
  level: string;
  offset: number;
}

/** An end tied to a level, or that ends under the roof planes above it. */
export type Tie = LevelTie | 'roof';

const levelTie = v.strictObject({ level: uuid, offset: rise });
const tie = v.union([levelTie, v.literal('roof')]);

/** The ends of what stands, and of what runs from one end to another; what is not tied is as its level has it. */
export type StandingTies = { base?: LevelTie; top?: Tie };
export type TopTie = { top?: Tie };
export type EndTies = { start?: LevelTie; end?: LevelTie };

export const standingTies = v.optional(v.strictObject({ base: v.optional(levelTie), top: v.optional(tie) }));
export const topTie = v.optional(v.strictObject({ top: v.optional(tie) }));
export const endTies = v.optional(v.strictObject({ start: v.optional(levelTie), end: v.optional(levelTie) }));

export type TiedEnd = 'base' | 'top' | 'start' | 'end';
/** Ties by the ends that have some. */
export type Ties = Partial<Record<TiedEnd, Tie>>;

/** The ends of each kind that can be tied. */
export const tiedEnds: Partial<Record<ElementKind, readonly TiedEnd[]>> = {
  column: ['base', 'top'],
  wall: ['base', 'top'],
  zone: ['top'],
  beam: ['start', 'end'],
};

/** The ends that may lie under a roof. */
export const underRoof = (kind: ElementKind, end: TiedEnd): boolean => end === 'top' && tiedEnds[kind] !== undefined;

/** How an element's ends are tied. */
export const tiesOf = ({ shape }: Pick<ElementRow, 'shape'>): Ties => ('ties' in shape && shape.ties) || {};

/** The levels that an element's ends are tied to. */
export const levelsTied = (element: Pick<ElementRow, 'shape'>): string[] =>
  Object.values(tiesOf(element)).flatMap((one) => (typeof one === 'object' ? [one.level] : []));

/** An element with other ties; a kind that has none stays as it is. */
export function withTies(element: ElementRow, ties: Ties): ElementRow {
  const ends = tiedEnds[element.kind];
  if (ends === undefined) return element;
  const kept = Object.fromEntries(ends.flatMap((end) => (ties[end] === undefined ? [] : [[end, ties[end]]])));
  const { ties: _, ...rest } = element.shape as ElementRow['shape'] & { ties?: Ties };
  const shape = Object.keys(kept).length === 0 ? rest : { ...rest, ties: kept };
  return { ...element, shape } as ElementRow;
}

/** An element whose ties to levels are others; null unties an end. */
export function retied(element: ElementRow, to: (level: string) => string | null): ElementRow {
  if (levelsTied(element).length === 0) return element;
  const ties: Ties = { ...tiesOf(element) };
  for (const end of tiedEnds[element.kind] ?? []) {
    const tied = ties[end];
    if (typeof tied !== 'object') continue;
    const level = to(tied.level);
    ties[end] = level === null ? undefined : { ...tied, level };
  }
  return withTies(element, ties);
}
