import type { PlacedText } from '@/core/placed/placed';
import type { BoxIndex } from '@/core/geometry/boxIndex';
import { cross, distance, dot, subtract, type Point } from '@/core/geometry/vector';

/** A section's size, metres. */
export interface Size {
  width: number;
  depth: number;
  /** Of a hollow section, the thickness of its walls. */
  wall?: number;
}

/**
 * A size as marks and schedules write it: `300x600` in millimetres, `30/60` in centimetres, `0.30x0.60` in metres.
 * Numbers below 150 that are whole are centimetres, those with decimals metres. `200x100x8` is hollow.
 */
export function sizeOf(text: string): Size | null {
  const match = /(\d+(?:[.,]\d+)?)\s*[x\u00d7/]\s*(\d+(?:[.,]\d+)?)(?:\s*[x\u00d7]\s*(\d+(?:[.,]\d+)?))?/i.exec(text);
  if (!match) return null;
  const [a, b] = [match[1], match[2]].map((value) => Number(value.replace(',', '.')));
  let unit;
  if (/[.,]/.test(match[1]) && a < 5) unit = 1;
  else if (Math.max(a, b) < 150) unit = 0.01;
  else unit = 0.001;

  const [width, depth] = [a * unit, b * unit].map((value) => Number(value.toFixed(6)));
  if (width < 0.05 || depth < 0.05 || width >= 5 || depth >= 5) return null;
  // A third number is the thickness of the walls of a hollow section, in millimetres.
  const wall = match[3] === undefined ? null : Number(match[3].replace(',', '.')) / 1000;
  return wall !== null && wall > 0 && 2 * wall < Math.min(width, depth) ? { width, depth, wall } : { width, depth };
}

/** What a beam is called: letters and a number, or a size alone. */
const markPattern = /^([A-Z]{1,3}[-.]?\d{1,4}[a-z]?)\b/i;

/** The mark beside a beam: the nearest text that runs along it and says a mark or a size. */
export function nearMark(
  texts: readonly PlacedText[],
  a: Point,
  b: Point,
  width: number,
): { text: string; size: Size | null; handle: string } | null {
  const length = distance(a, b);
  const u: Point = [(b[0] - a[0]) / length, (b[1] - a[1]) / length];
  let best: { text: string; size: Size | null; handle: string; away: number } | null = null;
  for (const { text, at, height, angle, handle } of texts) {
    const words = text.replace(/\n/g, ' ').trim();
    const [mark, size] = [markPattern.exec(words)?.[1] ?? null, sizeOf(words)];
    if (mark === null && size === null) continue;
    if (Math.abs(cross(u, [Math.cos(angle), Math.sin(angle)])) > 0.1) continue;
    const [along, across] = [dot(subtract(at, a), u), Math.abs(cross(u, subtract(at, a)))];
    if (along < 0 || along > length || across > width / 2 + 2.5 * height) continue;
    const away = across + 0.05 * Math.abs(along - length / 2);
    if (best === null || away < best.away) best = { text: mark ?? '', size, handle, away };
  }
  return best;
}

/** A schedule among the texts: a mark, or the letters that begin marks, and on its row to the right a size. */
export function scheduleOf(texts: readonly PlacedText[], written: BoxIndex<PlacedText>): Map<string, Size> {
  const schedule = new Map<string, Size>();
  for (const { text, at, height } of texts) {
    const mark = /^([A-Z]{1,3}[-.]?\d{0,4}[a-z]?)$/i.exec(text.trim())?.[1];
    if (!mark) continue;
    if (schedule.has(mark.toUpperCase())) continue;
    const row = written
      .touching([at[0], at[1] - height, at[0] + 40 * height, at[1] + height])
      .filter(
        (other) =>
          Math.abs(other.at[1] - at[1]) < 0.7 * height &&
          other.at[0] > at[0] &&
          other.at[0] - at[0] < 40 * height &&
          sizeOf(other.text) !== null &&
          !markPattern.test(other.text.trim()),
      )
      .sort((p, q) => p.at[0] - q.at[0])[0];
    const size = row && sizeOf(row.text);
    if (size) schedule.set(mark.toUpperCase(), size);
  }
  return schedule;
}
