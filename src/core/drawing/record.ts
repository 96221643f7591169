import type { StringDecoder } from './codePage';
import { parseFloatBytes, parseHexBytes, parseIntBytes } from './numerals';

const text = 0;
const real = 1;
const whole = 2;
const skip = 3;

/** What stands behind each group code (DXF reference, group code value types). Extended data and ownership are not read. */
const typeOf = Uint8Array.from({ length: 1072 }, (_, code) => {
  if (code === 100 || code === 102 || code === 330 || code === 360 || code >= 999) return skip;
  if ((code >= 10 && code <= 59) || (code >= 110 && code <= 149) || (code >= 210 && code <= 239) || (code >= 460 && code <= 469)) return real;
  if ((code >= 60 && code <= 99) || (code >= 160 && code <= 179) || (code >= 270 && code <= 289) || (code >= 370 && code <= 389) || (code >= 400 && code <= 409) || (code >= 420 && code <= 429) || (code >= 440 && code <= 459)) return whole;
  return text;
});

/** The groups of one entity or table entry, kept in order and found by code. Reused for the next one. */
export class Record {
  length = 0;
  codes = new Int16Array(256);
  /** The number of a group, or where its bytes start in `texts`. */
  values = new Float64Array(256);
  private ends = new Uint32Array(256);
  private texts = new Uint8Array(4096);
  private used = 0;
  private first = new Int32Array(1072);
  private stamp = new Uint32Array(1072);
  private turn = 1;
  /** Set where a number of this entity could not be read or is not finite. */
  broken = false;
  overfull = false;

  constructor(private maxGroups: number) {}

  clear(): void {
    this.length = 0;
    this.used = 0;
    this.turn += 1;
    this.broken = false;
    this.overfull = false;
  }

  add(code: number, bytes: Uint8Array, start: number, end: number): void {
    const type = code < 0 ? skip : typeOf[code];
    if (type === skip) return;
    if (this.length === this.codes.length) {
      if (this.length >= this.maxGroups) { this.overfull = true; return; }
      this.grow();
    }
    const i = this.length;
    if (type === real) {
      const value = parseFloatBytes(bytes, start, end);
      // A coordinate beyond 1e15 has no place for a millimetre in 64 bits; it is damage.
      if (!(Math.abs(value) < 1e15)) this.broken = true;
      this.values[i] = value;
    } else if (type === whole) {
      const value = parseIntBytes(bytes, start, end);
      if (Number.isNaN(value)) this.broken = true;
      this.values[i] = value;
    } else {
      const size = end - start;
      if (this.used + size > this.texts.length) {
        const larger = new Uint8Array(Math.max(this.texts.length * 2, this.used + size));
        larger.set(this.texts);
        this.texts = larger;
      }
      if (size < 24) for (let k = 0; k < size; k += 1) this.texts[this.used + k] = bytes[start + k];
      else this.texts.set(bytes.subarray(start, end), this.used);
      this.values[i] = this.used;
      this.used += size;
      this.ends[i] = this.used;
    }
    this.codes[i] = code;
    if (this.stamp[code] !== this.turn) { this.stamp[code] = this.turn; this.first[code] = i; }
    this.length = i + 1;
  }

  private grow(): void {
    const size = this.codes.length * 2;
    const [codes, values, ends] = [new Int16Array(size), new Float64Array(size), new Uint32Array(size)];
    codes.set(this.codes);
    values.set(this.values);
    ends.set(this.ends);
    [this.codes, this.values, this.ends] = [codes, values, ends];
  }

  has(code: number): boolean {
    return this.stamp[code] === this.turn;
  }

  /** The first number with a code, else the fallback. */
  number(code: number, fallback: number): number {
    return this.stamp[code] === this.turn ? this.values[this.first[code]] : fallback;
  }

  /** The bytes of the first string with a code. */
  bytes(code: number): Uint8Array | null {
    return this.stamp[code] === this.turn ? this.bytesAt(this.first[code]) : null;
  }

  bytesAt(group: number): Uint8Array {
    return this.texts.subarray(this.values[group], this.ends[group]);
  }

  string(code: number, decoder: StringDecoder): string {
    const bytes = this.bytes(code);
    return bytes === null ? '' : decoder.decode(bytes);
  }

  handle(): number {
    const bytes = this.bytes(5) ?? this.bytes(105);
    return bytes === null ? 0 : parseHexBytes(bytes, 0, bytes.length);
  }
}
