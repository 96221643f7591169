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

/**
 * Name, number and written area among the texts of a room; a text of several lines is taken line by line where these
 * differ in kind.
 */
export function tellApart(texts: readonly PlacedText[]): ZoneTexts {
  const found: ZoneTexts = { name: '', number: '', area: null, names: 0, handles: [] };
  const names: { text: string; height: number; y: number }[] = [];
  for (const { text, height, at, handle } of texts) {
    const lines = text
      .split('\n')
      .map((line) => line.trim())
      .filter(Boolean);
    const words: string[] = [];
    for (const line of lines) {
      const written = areaNote.exec(line);
      if (written) found.area ??= Number(written[1].replace(',', '.'));
      else if (roomNumber.test(line)) found.number ||= line;
      else if (/\p{L}{2}/u.test(line)) words.push(line);
    }
    if (words.length > 0) names.push({ text: words.join(' '), height, y: at[1] });
    found.handles.push(handle);
  }
  names.sort((a, b) => b.height - a.height || b.y - a.y);
  // Lines of one size under one another are one name, written as several texts.
  const first = names.filter(
    ({ height, y }) => Math.abs(height - names[0].height) < 0.05 * height && Math.abs(y - names[0].y) < 2.2 * height,
  );
  found.name = first.map(({ text }) => text).join(' ');
  found.names =
    names.length === 0
      ? 0
      : 1 +
        names.filter((name) => !first.includes(name) && Math.abs(name.height - names[0].height) < 0.05 * name.height)
          .length;
  return found;
}
