import type { DrawingRow, LevelRow, ProjectState } from './state';
import { followersOf, levelsUp, repeatStorey, sourceLevel, takeElevations } from './levels';
import type { Edit } from './edits';
import { fail, type Result } from '@/core/result';

/** The storeys that a title says a drawing is of: by their elevations, metres, or by their numbers. */
export interface StoreyTitle {
  by: 'elevation' | 'number';
  from: number;
  to: number;
  /** As it is written. */
  text: string;
}

/** A signed height, as titles and sections write it; two decimals or three. */
const height = String.raw`[+\-\u2212\u00b1]\s?\d{1,3}[.,]\d{2,3}`;
/** What stands between the first and the last of several, in the languages that layers are read in. */
const until = String.raw`\s*(?:to|up to|through|thru|bis|\u00e0|a|al|til|till|tot|do|az|-ig|\u2013|\u2014|-|\u2026|\.\.\.?)\s*`;
const floors = `(?:${[
  String.raw`floors?|storeys?|stories|levels?|og|obergeschoss\w*|geschosse?|\u00e9tages?|etages?|niveaux?`,
  String.raw`plantas?|pisos?|piani|piano|andares|verdieping\w*|v\u00e5ning\w*|etasje\w*|pi\u0119tra|pi\u0119tro`,
  String.raw`patra|patro|podla\u017c\u00ed|kat\w*|kerros|kerrokset|emelet`,
].join('|')})`;
const number = String.raw`(\d{1,3})(?:\s?(?:st|nd|rd|th|\.|\u00aa|\u00ba|e|er|i\u00e8me|\u00e8me))?`;

const byHeights = new RegExp(`(${height})${until}(${height})`, 'iu');
const before = new RegExp(String.raw`(?<![\d.,])${number}${until}${number}\s*${floors}(?!\p{L})`, 'iu');
const after = new RegExp(String.raw`(?<!\p{L})${floors}\s*${number}${until}${number}(?![\d.,])`, 'iu');

const metres = (text: string): number =>
  Number(text.replace(/\s/g, '').replace('\u2212', '-').replace('\u00b1', '').replace(',', '.'));

/** What one text says of storeys; null where it says nothing of several. */
export function storeysIn(text: string): StoreyTitle | null {
  const words = text.replace(/\s+/g, ' ').trim();
  const heights = byHeights.exec(words);
  if (heights) {
    const [from, to] = [metres(heights[1]), metres(heights[2])];
    return to > from ? { by: 'elevation', from, to, text: words } : null;
  }
  const numbers = before.exec(words) ?? after.exec(words);
  if (!numbers) return null;
  const [from, to] = [Number(numbers[1]), Number(numbers[2])];
  return to > from ? { by: 'number', from, to, text: words } : null;
}

/** The title of a drawing that says of which storeys it is: of several the one written largest. */
export function storeyTitle(texts: readonly { text: string; height: number }[]): StoreyTitle | null {
  let best: { title: StoreyTitle; height: number } | null = null;
  for (const { text, height: size } of texts) {
    if (best !== null && size <= best.height) continue;
    const title = storeysIn(text);
    if (title !== null) best = { title, height: size };
  }
  return best?.title ?? null;
}

/** What a title comes to: the level of the first storey, how often that is repeated above, and how high a storey is. */
export interface Repeats {
  level: LevelRow;
  count: number;
  /** Metres. */
  height: number;
}

/** Levels this near to a written height are meant by it, metres. */
const sameElevation = 0.05;

/**
 * How the levels would follow a title: the level that the drawing hangs on is its first storey, or for heights the one
 * that stands there.
 * @returns null where the levels say so already, or nothing can be said
 */
export function repeatsOf(state: ProjectState, drawing: DrawingRow, title: StoreyTitle): Repeats | null {
  const levels = levelsUp(state);
  const own = state.level[sourceLevel(state, drawing.levelId) ?? ''];
  const level =
    title.by === 'elevation' ? levels.find(({ elevation }) => Math.abs(elevation - title.from) < sameElevation) : own;
  if (level === undefined) return null;
  const span = title.to - title.from;
  const count = title.by === 'elevation' ? Math.max(1, Math.round(span / level.height)) : span;
  const height = title.by === 'elevation' ? span / count : level.height;
  return followersOf(state, level.id).length > 0 ? null : { level, count, height };
}

/** The levels as a title says. @param newId gives a fresh UUID */
export function takeTitle(
  state: ProjectState,
  drawing: DrawingRow,
  title: StoreyTitle,
  newId: () => string,
): Result<Edit> {
  const repeats = repeatsOf(state, drawing, title);
  if (repeats === null)
    return fail(
      `No level stands where \u201c${title.text}\u201d begins. Add one, or hang ${drawing.name} on it, then take the title.`,
    );
  return repeatStorey(state, repeats.level.id, repeats.count, repeats.height, newId);
}

/** Whether a title begins at a height where no level stands yet. */
export const lacksLevel = (state: ProjectState, title: StoreyTitle): boolean =>
  title.by === 'elevation' &&
  !levelsUp(state).some(({ elevation }) => Math.abs(elevation - title.from) < sameElevation);

/** The level that a title begins at, added at its height. @param newId gives a fresh UUID */
export const levelOfTitle = (state: ProjectState, title: StoreyTitle, newId: () => string): Result<Edit> =>
  takeElevations(
    state,
    [
      {
        name: `Level ${levelsUp(state).filter(({ elevation }) => elevation >= 0 && elevation < title.from).length}`,
        elevation: title.from,
        levelId: null,
      },
    ],
    newId,
  );
