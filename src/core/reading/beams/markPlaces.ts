import type { Point } from '@/core/geometry/vector';
import type { TextPrimitive } from '@/core/underlay/primitives';
import { centreOfText } from '@/core/underlay/textBox';
import { isSize, keyOfRow, leadsTo, liesInRow, type KeyedRow } from './schedule';

/** A place of a drawing where something of a mark stands; coordinates about the drawing's origin, in its units. */
export interface MarkPlace {
  drawingId: string;
  /** A row of a schedule, the title of a type, a section or a detail, or the mark itself in a plan. */
  what: 'row' | 'title' | 'mark';
  /** What stands there, as it is written. */
  words: string;
  /** The size that a row says; null where it says none. */
  size: string | null;
  at: Point;
  height: number;
}

/** A drawing in which marks are looked for. */
export interface MarkSheet {
  drawingId: string;
  texts: readonly TextPrimitive[];
  rows: readonly KeyedRow[];
}

/** Rows lead on so many times: mark, type, section, detail. */
const mostHops = 4;

/**
 * Where a mark stands: its rows in schedules, the rows and titles that these lead to, hop by hop, and last the mark in
 * plans.
 */
export function placesOfMark(mark: string, sheets: readonly MarkSheet[]): MarkPlace[] {
  const first = mark.trim().toUpperCase();
  if (first === '') return [];
  const found: MarkPlace[] = [];
  const seen = new Set<string>();
  let keys = [first];
  for (let hop = 0; hop < mostHops && keys.length > 0; hop += 1) {
    for (const key of keys) seen.add(key);
    const rows = keys.flatMap((key) => rowsOf(key, sheets));
    found.push(...rows.map(({ place }) => place));
    if (hop > 0) found.push(...keys.flatMap((key) => titlesOf(key, sheets)));
    const further = rows.flatMap(({ leads }) => leads);
    keys = [...new Set(further)].filter((key) => !seen.has(key));
  }
  return [...found, ...marksOf(first, sheets)];
}

function rowsOf(key: string, sheets: readonly MarkSheet[]): { place: MarkPlace; leads: string[] }[] {
  return sheets.flatMap(({ drawingId, rows }) =>
    rows
      .filter((row) => row.key === key)
      .map(({ cells, at, height }) => ({
        place: {
          drawingId,
          what: 'row' as const,
          words: [key, ...cells].join('  '),
          size: cells.find(isSize) ?? null,
          at,
          height,
        },
        leads: cells.flatMap((cell, place) => leadsTo(cell, place) ?? []),
      })),
  );
}

/** Texts that call something by a key in more than the key: "Section C-C", "Type R", "Detail 4". */
const titlesOf = (key: string, sheets: readonly MarkSheet[]): MarkPlace[] =>
  textsOf(sheets, 'title', (text) => text.length > key.length && keyOfRow(text) === key);

const marksOf = (mark: string, sheets: readonly MarkSheet[]): MarkPlace[] =>
  textsOf(sheets, 'mark', (text) => text.toUpperCase() === mark);

function textsOf(sheets: readonly MarkSheet[], what: 'title' | 'mark', wanted: (text: string) => boolean): MarkPlace[] {
  return sheets.flatMap(({ drawingId, texts, rows }) => {
    return texts.flatMap((one): MarkPlace[] => {
      const text = one.text.trim();
      if (!wanted(text)) return [];
      const at = centreOfText(one);
      return rows.some((row) => liesInRow(row, at))
        ? []
        : [{ drawingId, what, words: text, size: null, at, height: one.height }];
    });
  });
}

/** What schedules that contradict one another say of a mark, in a sentence; null where they do not. */
export function contradiction(mark: string, places: readonly MarkPlace[], nameOf: (drawingId: string) => string) {
  const own = places.filter(({ what, words, size }) => what === 'row' && size !== null && words.startsWith(mark));
  const sizes = new Set(own.map(({ size }) => size?.replace(/\s/g, '').toLowerCase()));
  if (sizes.size < 2) return null;
  const each = own.map(({ size, drawingId }) => `${size} in ${nameOf(drawingId)}`).join(', ');
  return `${mark} has ${sizes.size} sizes: ${each}. Ask which holds; until then the plan\u2019s own sheet comes first.`;
}
