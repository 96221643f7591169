import type { PlacedText } from '@/core/placed/placed';
import { leastBy } from '@/core/lists';
import type { BoxIndex } from '@/core/geometry/boxIndex';
import { metresPer, type LengthUnit } from '@/core/units/length';
import { cross, distance, dot, subtract, type Point } from '@/core/geometry/vector';

/** A section's size, metres. */
export interface Size {
  width: number;
  depth: number;
  /** Of a hollow section, the thickness of its walls. */
  wall?: number;
}

const written =
  /(\d+(?:[.,]\d+)?(?:\s+\d+\/\d+)?)\s*["\u2033]?\s*[x\u00d7/]\s*(\d+(?:[.,]\d+)?(?:\s+\d+\/\d+)?)(?:\s*[x\u00d7]\s*(\d+(?:[.,]\d+)?))?/i;

/** A number as it is written: with a point or a comma, or with a fraction of an inch behind it. */
function numberOf(text: string): number {
  const [whole, fraction] = text.trim().split(/\s+/);
  const [over, under] = fraction?.split('/').map(Number) ?? [0, 1];
  return Number(whole.replace(',', '.')) + over / under;
}

/** The unit that a size without one is written in, where nothing drawn tells. */
function usualUnit(a: number, b: number, decimals: boolean, drawnIn: LengthUnit): LengthUnit {
  if (decimals && a < 5) return 'm';
  if (Math.max(a, b) >= 150) return 'mm';
  return drawnIn === 'in' || drawnIn === 'ft' ? 'in' : 'cm';
}

/** The units that sizes are written in, the likelier first. */
const writtenIn: readonly LengthUnit[] = ['mm', 'cm', 'm', 'in'];

/** A written width and a drawn one are the same within this, metres. */
const sameWidth = 0.012;

/**
 * A size as marks and schedules write it: `300x600`, `30/60`, `0.30x0.60`, `8x14`. Without a unit it is read in the one
 * that fits what is drawn beside it; where nothing is, whole numbers below 150 are centimetres, or inches in a drawing
 * in inches or feet, those with decimals metres, others millimetres. `200x100x8` is hollow.
 * @param drawn the width that is drawn beside it, metres; null where none is
 * @param drawnIn what the drawing is in
 */
export function sizeOf(text: string, drawn: number | null = null, drawnIn: LengthUnit = 'mm'): Size | null {
  const match = written.exec(text);
  if (!match) return null;
  const [a, b] = [match[1], match[2]].map(numberOf);
  const sizeIn = (unit: LengthUnit): Size => {
    const [width, depth] = [a, b].map((value) => Number((value * metresPer[unit]).toFixed(6)));
    return { width, depth };
  };
  const fitting =
    drawn === null ? undefined : writtenIn.map(sizeIn).find(({ width }) => Math.abs(width - drawn) <= sameWidth);
  const size = fitting ?? sizeIn(usualUnit(a, b, /[.,]/.test(match[1]), drawnIn));
  if (size.width < 0.05 || size.depth < 0.05 || size.width >= 5 || size.depth >= 5) return null;
  // A third number is the thickness of the walls of a hollow section, in millimetres.
  const wall = match[3] === undefined ? null : Number(match[3].replace(',', '.')) / 1000;
  return wall !== null && wall > 0 && 2 * wall < Math.min(size.width, size.depth) ? { ...size, wall } : size;
}

/** What a beam is called: letters and a number, or a size alone. */
const markPattern = /^([A-Z]{1,3}[-.]?\d{1,4}[a-z]?)\b/i;

/** A text beside a beam that says its mark, its size, or both. */
interface Beside {
  mark: string | null;
  size: Size | null;
  at: Point;
  handle: string;
  away: number;
}

/**
 * The mark beside a beam: the nearest text that runs along it and says a mark or a size; where it says one of them, the
 * other from the text nearest to it.
 */
export function nearMark(
  texts: readonly PlacedText[],
  a: Point,
  b: Point,
  { drawn, least, drawnIn }: { drawn: number | null; least: number; drawnIn: LengthUnit },
): { text: string; size: Size | null; handles: string[] } | null {
  const width = drawn ?? least;
  const length = distance(a, b);
  const u: Point = [(b[0] - a[0]) / length, (b[1] - a[1]) / length];
  const beside = texts.flatMap(({ text, at, height, angle, handle }): Beside[] => {
    const words = text.replace(/\n/g, ' ').trim();
    const [mark, size] = [markPattern.exec(words)?.[1] ?? null, sizeOf(words, drawn, drawnIn)];
    if (mark === null && size === null) return [];
    if (Math.abs(cross(u, [Math.cos(angle), Math.sin(angle)])) > 0.1) return [];
    const [along, across] = [dot(subtract(at, a), u), Math.abs(cross(u, subtract(at, a)))];
    if (along < 0 || along > length || across > width / 2 + 2.5 * height) return [];
    return [{ mark, size, at, handle, away: across + 0.05 * Math.abs(along - length / 2) }];
  });
  const best = leastBy(beside, ({ away }) => away);
  if (best === null) return null;
  const lacks = (other: Beside): boolean =>
    best.mark === null ? other.mark !== null && other.size === null : other.mark === null && other.size !== null;
  const other =
    best.mark !== null && best.size !== null ? null : leastBy(beside.filter(lacks), ({ at }) => distance(at, best.at));
  return {
    text: best.mark ?? other?.mark ?? '',
    size: best.size ?? other?.size ?? null,
    handles: [best, other].flatMap((one) => (one === null ? [] : [one.handle])),
  };
}

/** The size in a row of a schedule is at most so many text heights to the right of its mark. */
const farthest = 40;

/**
 * A schedule among the texts, however it is turned: a mark, or the letters that begin marks, and on its row to the
 * right a size, as it is written: in what unit shows beside what is drawn.
 */
export function scheduleOf(texts: readonly PlacedText[], index: BoxIndex<PlacedText>): Map<string, string> {
  const schedule = new Map<string, string>();
  for (const { text, at, height, angle } of texts) {
    const mark = /^([A-Z]{1,3}[-.]?\d{0,4}[a-z]?)$/i.exec(text.trim())?.[1];
    if (!mark) continue;
    if (schedule.has(mark.toUpperCase())) continue;
    const u: Point = [Math.cos(angle), Math.sin(angle)];
    const away = (other: PlacedText): number => dot(subtract(other.at, at), u);
    const row = index
      .around(at, farthest * height)
      .filter(
        (other) =>
          Math.abs(cross(u, subtract(other.at, at))) < 0.7 * height &&
          away(other) > 0 &&
          away(other) < farthest * height &&
          sizeOf(other.text) !== null &&
          !markPattern.test(other.text.trim()),
      )
      .sort((p, q) => away(p) - away(q))[0];
    if (row) schedule.set(mark.toUpperCase(), row.text);
  }
  return schedule;
}
