import { fail, ok, type Result } from '@/core/result';
import { parseLength, type DisplayUnit, type LengthStyle } from './length';

/** A plain number, with a point or a comma. */
const plain = /^\d+(?:[.,]\d+)?$|^[.,]\d+$/;
/** More signs than these in one field are a slip. */
const longest = 200;

/** Where a sum is cut: at a sign that stands between two terms. */
function terms(text: string): { sign: 1 | -1; text: string }[] {
  const found: { sign: 1 | -1; text: string }[] = [];
  let [sign, start]: [1 | -1, number] = [1, 0];
  for (let i = 0; i < text.length; i += 1) {
    const minus = text[i] === '-' || text[i] === '\u2212';
    if (text[i] !== '+' && !minus) continue;
    const before = text.slice(start, i).trim();
    // After a sign of multiplication, or at the start, it belongs to the number.
    if (/[*/\u00d7]$/.test(before)) continue;
    if (before !== '') found.push({ sign, text: before });
    else if (i > 0 && found.length > 0) return [];
    sign = minus ? -1 : 1;
    start = i + 1;
  }
  return [...found, { sign, text: text.slice(start).trim() }];
}

/** A product or a quotient of a length and plain numbers, metres. */
function product(text: string, shown: DisplayUnit | LengthStyle): Result<number> {
  const parts = text.split(/([*/\u00d7])/).map((part) => part.trim());
  const lengthAt = Math.max(
    0,
    parts.findIndex((part, i) => i % 2 === 0 && !plain.test(part)),
  );
  const length = parseLength(parts[lengthAt], shown);
  if (!length.ok) return length;
  if (lengthAt > 0 && parts[lengthAt - 1] === '/') return fail(`"${text}" divides by a length; divide by a number.`);
  let value = length.value;
  for (let i = 0; i < parts.length; i += 2) {
    if (i === lengthAt) continue;
    if (!plain.test(parts[i])) return fail(`"${parts[i]}" in "${text}" is not a number; only one factor is a length.`);
    const number = Number(parts[i].replace(',', '.'));
    const divides = i > 0 && parts[i - 1] === '/';
    if (divides && number === 0) return fail(`"${text}" divides by zero.`);
    value = divides ? value / number : value * number;
  }
  return ok(value);
}

/**
 * Reads a length that may be worked out: `5.4+0.3`, `18/4`, `3*5.4 m - 150 mm`, and everything that is a length.
 * A factor without a unit multiplies; a term without one is in the unit shown.
 * @returns metres
 */
export function parseTyped(text: string, shown: DisplayUnit | LengthStyle): Result<number> {
  const whole = parseLength(text, shown);
  if (whole.ok || !/[+\-\u2212*/\u00d7]/.test(text) || text.length > longest) return whole;
  let sum = 0;
  const all = terms(text.trim());
  if (all.length === 0) return whole;
  for (const term of all) {
    const value = product(term.text, shown);
    if (!value.ok) return value;
    sum += term.sign * value.value;
  }
  return ok(sum);
}

/** Spacings beyond these are a slip. */
const mostSpacings = 200;

/**
 * Reads a list of spacings: `3x5.4, 6.15, 4.8` is three of 5.4, one of 6.15 and one of 4.8.
 * @returns metres, one number a spacing, none of them zero or less
 */
export function parseSpacings(text: string, shown: DisplayUnit | LengthStyle): Result<number[]> {
  // A comma parts spacings where a space follows it, or where numbers are written with points.
  const parting = /\d\.\d/.test(text) ? /[;,\n]/ : /;|\n|,\s+/;
  const items = text
    .split(parting)
    .map((item) => item.trim())
    .filter((item) => item !== '');
  if (items.length === 0) return fail('No spacing was typed. Type some, for example 3x5.4, 6.15, 4.8.');
  const spacings: number[] = [];
  for (const item of items) {
    const [, count = '1', size] = /^(?:(\d+)\s*[x\u00d7]\s*)?(.*)$/i.exec(item)!;
    const length = parseTyped(size, shown);
    if (!length.ok) return length;
    if (length.value <= 0) return fail(`"${item}" is no spacing: more than zero was expected.`);
    if (Number(count) < 1 || spacings.length + Number(count) > mostSpacings)
      return fail(`"${item}" makes ${count} spacings; between 1 and ${mostSpacings} in all were expected.`);
    for (let i = 0; i < Number(count); i += 1) spacings.push(length.value);
  }
  return ok(spacings);
}
