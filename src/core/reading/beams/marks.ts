import type { PlacedText } from '@/core/placed/placed';
import { leastBy } from '@/core/lists';
import type { FirstNumber } from '@/core/patterns/settings';
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

/** What stands behind a size that a drawing of the section says: the width is first. */
export const asDrawn = ' as drawn';

/** A written width and a drawn one are the same within this, metres. */
const sameWidth = 0.012;

/**
 * A size as marks and schedules write it: `300x600`, `30/60`, `0.30x0.60`, `8x14`. Without a unit it is read in the one
 * that fits what is drawn beside it; where nothing is, whole numbers below 150 are centimetres, or inches in a drawing
 * in inches or feet, those with decimals metres, others millimetres. `200x100x8` is hollow.
 * @param drawn the width that is drawn beside it, metres; null where none is
 * @param drawnIn what the drawing is in
 * @param first which number is the width where what is drawn does not tell
 */
export function sizeOf(
  text: string,
  drawn: number | null = null,
  drawnIn: LengthUnit = 'mm',
  first: FirstNumber = 'width',
): Size | null {
  const match = written.exec(text);
  if (!match) return null;
  const [a, b] = [match[1], match[2]].map(numberOf);
  const sizeIn = (unit: LengthUnit, order: FirstNumber): Size => {
    const [one, other] = [a, b].map((value) => Number((value * metresPer[unit]).toFixed(6)));
    return order === 'width' ? { width: one, depth: other } : { width: other, depth: one };
  };
  const leading = text.endsWith(asDrawn) ? 'width' : first;
  const orders: FirstNumber[] = leading === 'width' ? ['width', 'depth'] : ['depth', 'width'];
  const ways = orders.flatMap((order) => writtenIn.map((unit) => sizeIn(unit, order)));
  const fitting = drawn === null ? undefined : ways.find(({ width }) => Math.abs(width - drawn) <= sameWidth);
  const size = fitting ?? sizeIn(usualUnit(a, b, /[.,]/.test(match[1]), drawnIn), leading);
  if (size.width < 0.05 || size.depth < 0.05 || size.width >= 5 || size.depth >= 5) return null;
  // A third number is the thickness of the walls of a hollow section, in millimetres.
  const wall = match[3] === undefined ? null : Number(match[3].replace(',', '.')) / 1000;
  return wall !== null && wall > 0 && 2 * wall < Math.min(size.width, size.depth) ? { ...size, wall } : size;
}

/** Which number is the width by what is drawn; null where both could be, or neither. @param drawn the width, metres */
export function firstNumberOf(text: string, drawn: number, drawnIn: LengthUnit): FirstNumber | null {
  const [width, depth] = (['width', 'depth'] as const).map((first) => sizeOf(text, null, drawnIn, first));
  const fits = [width, depth].map((size) => size !== null && Math.abs(size.width - drawn) <= sameWidth);
  if (fits[0] === fits[1]) return null;
  return fits[0] ? 'width' : 'depth';
}

/** What a beam is called: letters and a number, or a size alone. */
const markPattern = /^([A-Z]{1,3}[-.]?\d{1,4}[a-z]?)\b/i;

/** A text beside a beam that says its mark, its size, or both. */
interface Beside {
  mark: string | null;
  /** The text, where it says a size. */
  size: string | null;
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
): { text: string; size: string | null; handles: string[] } | null {
  const width = drawn ?? least;
  const length = distance(a, b);
  const u: Point = [(b[0] - a[0]) / length, (b[1] - a[1]) / length];
  const beside = texts.flatMap(({ text, at, height, angle, handle }): Beside[] => {
    const words = text.replace(/\n/g, ' ').trim();
    const [mark, size] = [markPattern.exec(words)?.[1] ?? null, sizeOf(words, drawn, drawnIn) === null ? null : words];
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
