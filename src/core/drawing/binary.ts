import { GroupType, groupTypes } from './groupTypes';
import { parseHexBytes } from './numerals';
import { isKeyword, type GroupSink, type Scanner } from './lines';

const text = 0;
const double = 1;
const int16 = 2;
const int32 = 3;
const int64 = 4;
const byte = 5;
const chunk = 6;
const unknown = 7;

/** How the value of each group code is stored (DXF reference, binary DXF files and group code value types). */
const storage = Uint8Array.from({ length: 1072 }, (_, code) => {
  const within = (...ranges: [number, number][]) => ranges.some(([low, high]) => code >= low && code <= high);
  if (within([10, 59], [110, 149], [210, 239], [460, 469], [1010, 1059])) return double;
  if (within([60, 79], [170, 179], [270, 289], [370, 389], [400, 409], [1060, 1070])) return int16;
  if (within([90, 99], [420, 429], [440, 459], [1071, 1071])) return int32;
  if (within([160, 169])) return int64;
  if (within([290, 299])) return byte;
  if (within([310, 319], [1004, 1004])) return chunk;
  return within(
    [0, 9],
    [100, 105],
    [300, 309],
    [320, 369],
    [390, 399],
    [410, 419],
    [430, 439],
    [470, 481],
    [999, 1003],
    [1005, 1009],
  )
    ? text
    : unknown;
});

const sentinel = 22;

/**
 * Cuts a binary DXF, given in chunks, into groups. Until R12 a group code is one byte, 255 announcing a code of two
 * bytes; from R13 on always two. Which it is shows at the first group, 0 SECTION.
 *
 * Damage shows as a group code that there is not, or as a group 0 whose value is no keyword; the scanner then goes on
 * at the next
 * "0", keyword, zero byte.
 */
export class BinaryScanner implements Scanner {
  private rest: Uint8Array = new Uint8Array(0);
  private used = 0;
  private begun = false;
  private wide = true;
  private seeking = false;
  private tooLong = false;

  constructor(
    private sink: GroupSink,
    private maxValue: number,
  ) {}

  get line(): number {
    return this.used;
  }

  push(part: Uint8Array, last: boolean): boolean {
    let bytes = part;
    if (this.rest.length > 0) {
      bytes = new Uint8Array(this.rest.length + part.length);
      bytes.set(this.rest);
      bytes.set(part, this.rest.length);
    }
    let at = 0;
    if (!this.begun) {
      if (bytes.length < sentinel + 4 && !last) {
        this.rest = bytes.slice();
        return true;
      }
      this.begun = true;
      at = sentinel;
      this.used = sentinel;
      this.wide = bytes[sentinel + 1] === 0;
    }
    const from = at;
    at = this.scan(bytes, at, last);
    this.used += at - from;
    this.rest = bytes.slice(at);
    return !this.tooLong && this.rest.length <= this.maxValue + 64;
  }

  private scan(bytes: Uint8Array, from: number, last: boolean): number {
    const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
    const end = bytes.length;
    const base = this.used - from;
    let at = from;
    const lost = (found: string) => {
      if (!this.seeking) this.sink.lost(base + at, found);
      this.seeking = true;
    };
    while (at < end) {
      if (this.seeking) {
        const next = this.keywordFrom(bytes, at, last);
        if (next.found) this.seeking = false;
        else return next.at;
        at = next.at;
      }
      let code = bytes[at];
      let value = at + 1;
      if (this.wide || code === 255) {
        value = at + (this.wide ? 2 : 3);
        if (value > end) return last ? end : at;
        code = view.getInt16(this.wide ? at : at + 1, true);
      }
      const kind = code >= 0 && code <= 1071 ? storage[code] : unknown;
      if (kind === unknown) {
        lost(`group code ${code}`);
        at += 1;
        continue;
      }
      if (kind === text) {
        let stop = value;
        while (stop < end && bytes[stop] !== 0) stop += 1;
        if (stop - value > this.maxValue) {
          this.tooLong = true;
          return at;
        }
        if (stop === end && !last) return at;
        if (code === 0 && !isKeyword(bytes, value, stop)) {
          lost(shown(bytes, value, stop));
          at += 1;
          continue;
        }
        const type = groupTypes[code];
        if (type === GroupType.handle) this.sink.number(code, parseHexBytes(bytes, value, stop));
        else if (type === GroupType.text) this.sink.group(code, bytes, value, stop);
        at = stop + 1;
        continue;
      }
      let size;
      if (kind === double || kind === int64) size = 8;
      else if (kind === int32) size = 4;
      else if (kind === int16) size = 2;
      else size = 1;

      const length = kind === chunk && value < end ? 1 + bytes[value] : size;
      if (value + length > end) return last ? end : at;
      if (groupTypes[code] === GroupType.skip) {
        at = value + length;
        continue;
      }
      if (kind === double) this.sink.number(code, view.getFloat64(value, true));
      else if (kind === int16) this.sink.number(code, view.getInt16(value, true));
      else if (kind === int32) this.sink.number(code, view.getInt32(value, true));
      else if (kind === int64) this.sink.number(code, Number(view.getBigInt64(value, true)));
      else if (kind === byte) this.sink.number(code, bytes[value]);
      at = value + length;
    }
    return Math.min(at, end);
  }

  /** The next place where a group 0 with a keyword seems to begin. */
  private keywordFrom(bytes: Uint8Array, from: number, last: boolean): { found: boolean; at: number } {
    const lead = this.wide ? 2 : 1;
    for (let at = from; at + lead < bytes.length; at += 1) {
      if (bytes[at] !== 0 || (this.wide && bytes[at + 1] !== 0)) continue;
      const start = at + lead;
      let stop = start;
      while (stop < bytes.length && isWord(bytes[stop])) stop += 1;
      if (stop === bytes.length && !last && stop - start < 64) return { found: false, at };
      if (bytes[stop] === 0 && stop - start >= 3 && isKeyword(bytes, start, stop)) return { found: true, at };
    }
    return { found: false, at: last ? bytes.length : Math.max(from, bytes.length - lead) };
  }
}

const isWord = (c: number) => (c >= 65 && c <= 90) || (c >= 48 && c <= 57) || c === 95;

const shown = (bytes: Uint8Array, start: number, end: number) =>
  String.fromCharCode(...bytes.subarray(start, Math.min(end, start + 24)))
    .replace(/[^\x20-\x7e]/g, '?')
    .trim();
