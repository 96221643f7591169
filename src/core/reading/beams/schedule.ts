import { handleOf, type Drawing } from '@/core/drawing/drawing';
import { groupBy } from '@/core/groupBy';
import { BoxIndex, boxOf } from '@/core/geometry/boxIndex';
import { cross, dot, subtract, type Point } from '@/core/geometry/vector';
import type { PlacedText } from '@/core/placed/placed';
import type { Primitives } from '@/core/underlay/primitives';
import { centreOfText } from '@/core/underlay/textBox';
import { sizeOf } from './marks';

/** What stands to the right of a mark, a type or a section's letter, as it is written, the nearest first. */
type Cells = readonly string[];

/** The rows of schedules by their keys. */
export type ScheduleRows = ReadonlyMap<string, readonly Cells[]>;

/** The schedules of one sheet, and its name where it is another than the plan. */
export interface ScheduleSheet {
  sheet: string | null;
  rows: ScheduleRows;
}

/** A size found by way of schedules: as it is written, and the rows that lead to it, in words. */
export interface Scheduled {
  words: string;
  hops: string[];
}

/** A cell of a row is at most so many text heights to the right of its key. */
const farthest = 40;
/** A row goes on through at most so many cells: what stands further to the right belongs to something else. */
const mostCells = 8;
/** From row to row a size is followed this many times: mark, type, section, detail. */
const mostHops = 4;

const named =
  /^(?:(?:type|typ|tipo|section|schnitt|coupe|sezione|detail)\s+([A-Z]{0,3}\d{0,4})(?:\s*-\s*\1)?|([A-Z])\s*-\s*\2)$/i;
const mark = /^([A-Z]{1,3}[-.]?\d{0,4}[a-z]?)$/i;

/** What a row is found by: a mark, letters that begin marks, a type or a section ("Type B", "B-B" are B). */
export function keyOfRow(words: string): string | null {
  const text = words.trim();
  const name = named.exec(text);
  const key = name?.[1] ?? name?.[2] ?? mark.exec(text)?.[1] ?? '';
  return key === '' ? null : key.toUpperCase();
}

/** A row with where its key stands, and the direction that it runs in. */
export interface KeyedRow {
  key: string;
  cells: Cells;
  at: Point;
  height: number;
  u: Point;
}

/** Rows under one another lie further apart than this share of a height. */
const underOneAnother = 0.5;
/** A row has another one above or below it within so many heights. */
const nextRow = 6;

/**
 * The rows of schedules among texts, however they are turned: a key, and on its line to the right what is written of
 * it. A row whose cells say neither a size nor another key is none.
 * @param alone whether rows count that have no other above or below them: in another plan a size on a mark's line may
 * be that of another beam
 */
export function scheduleRows(texts: readonly PlacedText[], alone = true): ScheduleRows {
  const rows = keyedRows(texts);
  return groupCells(alone ? rows : inTables(rows));
}

/** Rows by their keys. */
export function groupCells(rows: readonly KeyedRow[]): ScheduleRows {
  const byKey = groupBy(rows, ({ key }) => key);
  return new Map([...byKey].map(([key, own]) => [key, own.map(({ cells }) => cells)]));
}

/** Rows with others that begin above or below them. */
function inTables(rows: readonly KeyedRow[]): KeyedRow[] {
  const index = new BoxIndex(rows, ({ at }) => boxOf([at]));
  return rows.filter((row) =>
    index.around(row.at, nextRow * row.height).some((other) => {
      const [dx, dy] = subtract(other.at, row.at);
      const [along, across] = [dx * row.u[0] + dy * row.u[1], dy * row.u[0] - dx * row.u[1]];
      return other !== row && Math.abs(along) < row.height && Math.abs(across) > underOneAnother * row.height;
    }),
  );
}

/** Whether a place lies on a row, at its key or to the right of it. */
export function liesInRow({ at, u, height }: Pick<KeyedRow, 'at' | 'u' | 'height'>, p: Point): boolean {
  const d = subtract(p, at);
  return Math.abs(cross(u, d)) < 0.7 * height && dot(d, u) >= 0 && dot(d, u) < farthest * height;
}

function keyedRows(texts: readonly PlacedText[]): KeyedRow[] {
  const keyed = texts.flatMap((text) => {
    const key = keyOfRow(text.text);
    return key === null ? [] : [{ ...text, key }];
  });
  if (keyed.length === 0) return [];
  const index = new BoxIndex(texts, ({ at }) => boxOf([at]));
  return keyed.flatMap(({ key, at, height, angle }): KeyedRow[] => {
    const u: Point = [Math.cos(angle), Math.sin(angle)];
    const away = (other: PlacedText): number => dot(subtract(other.at, at), u);
    const cells = index
      .around(at, farthest * height)
      .filter((other) => away(other) > 0 && liesInRow({ at, u, height }, other.at))
      .sort((p, q) => away(p) - away(q))
      .slice(0, mostCells)
      .map(({ text }) => text.trim());
    return cells.some((cell, place) => isSize(cell) || leadsTo(cell, place) !== null)
      ? [{ key, cells, at, height, u }]
      : [];
  });
}

/** A cell that says a size, and nothing before it that is a mark of its own. */
export const isSize = (cell: string): boolean =>
  sizeOf(cell) !== null && !/^[A-Z]{1,3}[-.]?\d{1,4}[a-z]?\b/i.test(cell);

/**
 * What a row leads on to: a type or a section that is called so, or letters beside the key. Marks in one line are no
 * row of a schedule, and lead nowhere.
 */
export const leadsTo = (cell: string, place: number): string | null =>
  named.test(cell.trim()) || (place === 0 && /^[A-Z]{1,2}$/i.test(cell.trim())) ? keyOfRow(cell) : null;

/**
 * The sizes that schedules give to a mark, or to the letters that begin it: on its own row, or on the row of what its
 * row names, from sheet to sheet. The plan's own sheet comes first.
 * @returns one for each sheet that says one; they may contradict one another
 */
export function scheduled(name: string, sheets: readonly ScheduleSheet[]): Scheduled[] {
  const [whole, letters] = [name.toUpperCase(), name.replace(/\d+[a-z]?$/i, '').toUpperCase()];
  for (const key of new Set([whole, letters])) {
    const found = sheets.flatMap((sheet) => follow({ key, beside: key !== whole }, sheet, sheets, new Set()) ?? []);
    if (found.length > 0) return found;
  }
  return [];
}

/** What is looked for: a row's key, and whether its size has to be the first thing beside it. */
interface Wanted {
  key: string;
  /** Letters alone may be those of grid lines or of sections in a line: that is no schedule. */
  beside: boolean;
}

/** Follows a key from its row on one sheet to a size, on that sheet first. */
function follow(
  { key, beside }: Wanted,
  at: ScheduleSheet,
  sheets: readonly ScheduleSheet[],
  seen: ReadonlySet<string>,
): Scheduled | null {
  if (key === '' || seen.has(key) || seen.size === mostHops) return null;
  const where = at.sheet === null ? 'the schedule' : at.sheet;
  for (const cells of at.rows.get(key) ?? []) {
    const size = (beside ? cells.slice(0, 1) : cells).find(isSize);
    if (size !== undefined) return { words: size, hops: [`${key} in ${where}: ${size}`] };
    for (const [place, cell] of cells.entries()) {
      // From letters only what is called a type or a section leads on.
      const next = leadsTo(cell, beside ? 1 : place);
      if (next === null) continue;
      for (const sheet of [at, ...sheets.filter((other) => other !== at)]) {
        const found = follow({ key: next, beside: true }, sheet, sheets, new Set([...seen, key]));
        if (found !== null) return { words: found.words, hops: [`${key} in ${where}: ${cell}`, ...found.hops] };
      }
    }
  }
  return null;
}

/** The rows of the tables of a drawing as it was drawn, wherever and in whatever unit, for the marks of others. */
export const tableRowsOf = (drawing: Drawing, { texts }: Primitives): KeyedRow[] =>
  inTables(
    keyedRows(
      texts.map((text) => ({
        text: text.text.trim(),
        at: centreOfText(text),
        height: text.height,
        angle: text.angle,
        handle: handleOf(drawing, text.top),
        entity: text.entity,
        layer: text.layer,
      })),
    ),
  );
