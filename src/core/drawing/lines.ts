import { GroupType, groupTypes } from './groupTypes';
import { parseFloatBytes, parseHexBytes, parseIntBytes } from './numerals';

/** Takes the groups of a file one by one: texts as bytes, which are only valid during the call, the rest as numbers. */
export interface GroupSink {
  group(code: number, bytes: Uint8Array, start: number, end: number): void;
  /** NaN where the value is no number. */
  number(code: number, value: number): void;
  /** The pairing of codes and values was lost at this line; what was being read is not to be trusted. */
  lost(line: number, found: string): void;
}

/** Cuts a file that comes in chunks into groups. */
export interface Scanner {
  /** How far it is: the line of an ASCII file, the byte of a binary one. */
  readonly line: number;
  /** Takes the next bytes. @returns false where a value is longer than allowed */
  push(chunk: Uint8Array, last: boolean): boolean;
}

/**
 * Cuts an ASCII DXF, given in chunks, into groups: a line with a code, a line with a value.
 *
 * A lost or doubled line puts every following pair out of step. That shows as a code line that is no
 * integer between -5 and 1071, or a group 0 whose value is not a keyword; the scanner then skips line by
 * line to the next "0" followed by a keyword, and goes on there.
 */
export class GroupScanner implements Scanner {
  line = 0;
  private rest: Uint8Array = new Uint8Array(0);
  private seeking = false;
  private tooLong = false;
  private real = 0;

  constructor(
    private sink: GroupSink,
    private maxLine: number,
  ) {}

  /**
   * Takes the next bytes.
   * @param last whether these are the last; a line without its end is then taken as it stands
   * @returns false where a line is longer than allowed
   */
  push(chunk: Uint8Array, last: boolean): boolean {
    let from = 0;
    if (this.rest.length > 0) {
      // What was left over needs only the first lines of the chunk to be whole; the chunk itself is not copied.
      const kept = this.rest.length;
      for (let take = 4096; ; take *= 16) {
        const whole = take >= chunk.length;
        const joined = joinedBytes(this.rest, whole ? chunk : chunk.subarray(0, take));
        const used = this.scan(joined, 0, last && whole);
        if (used < kept && !whole && !this.tooLong) {
          this.rest = joined.subarray(used, kept);
          if (used > 0) return this.push(chunk, last);
          continue;
        }
        if (whole) {
          this.rest = joined.slice(used);
          return this.withinLimit();
        }
        from = used - kept;
        break;
      }
    }
    const used = this.scan(chunk, from, last);
    this.rest = chunk.slice(used);
    return this.withinLimit();
  }

  private withinLimit(): boolean {
    return !this.tooLong && this.rest.length <= this.maxLine + 64;
  }

  private scan(bytes: Uint8Array, from: number, last: boolean): number {
    const end = bytes.length;
    const sink = this.sink;
    let at = from;
    while (at < end) {
      // The code: blanks, digits, line end, which is how all but a few lines look.
      let i = at;
      let code = 0;
      let plain = false;
      // Away from the end no look at a byte can miss, which keeps the loops below fast.
      const roomy = at + 64 < end;
      if (roomy) {
        while (bytes[i] === 32) i += 1;
        const first = i;
        // The digits 0 to 9 are 48 to 57, and no other byte comes to less than 10 this way.
        for (let d = bytes[i] ^ 48; d < 10 && i < first + 5; d = bytes[i] ^ 48) {
          code = code * 10 + d;
          i += 1;
        }
        if (i > first && bytes[i] === 13) i += 1;
        plain = i > first && bytes[i] === 10;
      }
      let codeEnd = i;
      if (!plain) {
        while (codeEnd < end && bytes[codeEnd] !== 10) codeEnd += 1;
        if (codeEnd >= end) return last ? end : at;
        code = parseIntBytes(bytes, at, codeEnd);
      }
      const start = codeEnd + 1;
      const believable = code >= 0 ? code <= 1071 : code >= -5;
      const type = believable && code >= 0 ? groupTypes[code] : GroupType.skip;
      if (type === GroupType.real && !this.seeking && roomy) {
        const next = this.plainReal(bytes, start);
        if (next > 0) {
          this.line += 2;
          sink.number(code, this.real);
          at = next;
          continue;
        }
      }
      let valueEnd = start;
      while (valueEnd < end && bytes[valueEnd] !== 10) valueEnd += 1;
      if (valueEnd >= end && !last) return at;
      if (valueEnd - at > this.maxLine + 64) {
        this.tooLong = true;
        return at;
      }
      let stop = valueEnd;
      if (stop > start && bytes[stop - 1] === 13) stop -= 1;
      if (believable && (this.seeking || code === 0 ? code === 0 && isKeyword(bytes, start, stop) : true)) {
        this.seeking = false;
        this.line += 2;
        if (type === GroupType.text) sink.group(code, bytes, start, stop);
        else if (type === GroupType.whole) sink.number(code, parseIntBytes(bytes, start, stop));
        else if (type === GroupType.real) sink.number(code, parseFloatBytes(bytes, start, stop));
        else if (type === GroupType.handle) sink.number(code, parseHexBytes(bytes, start, stop));
        at = valueEnd + 1;
      } else {
        if (!this.seeking) {
          // Blank lines after the last group are no damage.
          if (last && isBlank(bytes, at, end)) return end;
          sink.lost(this.line + 1, shown(bytes, at, codeEnd));
          this.seeking = true;
        }
        this.line += 1;
        at = codeEnd + 1;
      }
    }
    return Math.min(at, end);
  }

  /**
   * Parses a plain decimal number and its line end in one go, into `real`: at most 18 digits, no exponent. Its digits
   * are two integers of nine, put together and divided by an exact power of ten: off by at most one unit in the last
   * place.
   * @returns where the next line begins, or 0 where the value is not of this form
   */
  private plainReal(bytes: Uint8Array, start: number): number {
    let i = start;
    while (bytes[i] === 32 && i < start + 8) i += 1;
    const negative = bytes[i] === 45;
    if (negative) i += 1;
    let high = 0;
    let low = 0;
    let digits = 0;
    let behind = -1;
    for (; digits <= 18; i += 1) {
      const d = bytes[i] ^ 48;
      if (d < 10) {
        if (digits < 9) high = high * 10 + d;
        else low = low * 10 + d;
        digits += 1;
      } else if (d === (46 ^ 48) && behind < 0) behind = digits;
      else break;
    }
    if (bytes[i] === 13) i += 1;
    if (bytes[i] !== 10 || digits === 0 || digits > 18) return 0;
    let value = digits <= 9 ? high : high * powers[digits - 9] + low;
    if (behind >= 0) value /= powers[digits - behind];
    this.real = negative ? -value : value;
    return i + 1;
  }
}

const powers = Float64Array.from({ length: 19 }, (_, i) => 10 ** i);

function joinedBytes(a: Uint8Array, b: Uint8Array): Uint8Array {
  const joined = new Uint8Array(a.length + b.length);
  joined.set(a);
  joined.set(b, a.length);
  return joined;
}

/**
 * Whether the bytes are a section, table or entity name: letters, digits, _ . : and -, a letter or underscore among the
 * first two.
 */
export function isKeyword(bytes: Uint8Array, start: number, end: number): boolean {
  let i = start;
  while (i < end && bytes[i] === 32) i += 1;
  let stop = end;
  while (stop > i && bytes[stop - 1] <= 32) stop -= 1;
  if (stop === i || stop - i > 255) return false;
  for (let k = i; k < stop; k += 1) {
    const c = bytes[k];
    if (isLetter(c)) continue;
    // "3DFACE" begins with a digit; a number does not go on with a letter.
    const mark = (c >= 48 && c <= 58) || c === 45 || c === 46;
    if (!mark || (k === i && !isLetter(bytes[i + 1])) || (k === i && stop - i === 1)) return false;
  }
  return true;
}

const isLetter = (c: number) => (c >= 65 && c <= 90) || (c >= 97 && c <= 122) || c === 95;

function isBlank(bytes: Uint8Array, start: number, end: number): boolean {
  for (let i = start; i < end; i += 1) if (bytes[i] > 32) return false;
  return true;
}

const shown = (bytes: Uint8Array, start: number, end: number) =>
  String.fromCharCode(...bytes.subarray(start, Math.min(end, start + 40)))
    .replace(/[^\x20-\x7e]/g, '?')
    .trim();
