import { distance, type Point } from '@/core/geometry/vector';
import type { PlacedText } from '@/core/placed/placed';

/** The texts of a room told apart. */
export interface ZoneTexts {
  name: string;
  number: string;
  area: number | null;
  names: number;
  handles: string[];
}

const areaNote = /(\d+(?:[.,]\d+)?)\s*(?:m2|m\u00b2|sq\.?\s?m|qm)\b/i;
const roomNumber = /^[A-Z]{0,3}[.\-]?\d{1,4}(?:[.\-]\d{1,4}){0,3}[a-z]?$/i;

/** A line of words or a number, and where its text stands. */
interface Written {
  text: string;
  height: number;
  at: Point;
}

/**
 * Name, number and written area among the texts of a room; a text of several lines is taken line by line where these
 * differ in kind. Of several numbers the one nearest to the name is the room's: others may be marks of what is in it.
 */
export function tellApart(texts: readonly PlacedText[]): ZoneTexts {
  const found: ZoneTexts = { name: '', number: '', area: null, names: 0, handles: [] };
  const [names, numbers]: [Written[], Written[]] = [[], []];
  for (const { text, height, at, handle } of texts) {
    const lines = text
      .split('\n')
      .map((line) => line.trim())
      .filter(Boolean);
    const words: string[] = [];
    for (const line of lines) {
      const written = areaNote.exec(line);
      if (written) found.area ??= Number(written[1].replace(',', '.'));
      else if (roomNumber.test(line)) numbers.push({ text: line, height, at });
      else if (/\p{L}{2}/u.test(line)) words.push(line);
    }
    if (words.length > 0) names.push({ text: words.join(' '), height, at });
    found.handles.push(handle);
  }
  names.sort((a, b) => b.height - a.height || b.at[1] - a.at[1]);
  // Lines of one size under one another are one name, written as several texts.
  const first = names.filter(
    ({ height, at }) =>
      Math.abs(height - names[0].height) < 0.05 * height && Math.abs(at[1] - names[0].at[1]) < 2.2 * height,
  );
  found.number = nearest(numbers, first);
  found.name = first.map(({ text }) => text).join(' ');
  found.names =
    names.length === 0
      ? 0
      : 1 +
        names.filter((name) => !first.includes(name) && Math.abs(name.height - names[0].height) < 0.05 * name.height)
          .length;
  return found;
}

/** The text nearest to any of others; the first where there are none. */
function nearest(texts: readonly Written[], others: readonly Written[]): string {
  const away = ({ at }: Written): number =>
    others.reduce((least, other) => Math.min(least, distance(at, other.at)), Infinity);
  return (
    texts.reduce<Written | null>((best, one) => (best === null || away(one) < away(best) ? one : best), null)?.text ??
    ''
  );
}
