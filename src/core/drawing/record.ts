import type { StringDecoder } from './codePage';
import type { Interner } from './interner';
import { GroupType, groupTypes } from './groupTypes';

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

  /** Takes a group whose value is text. */
  add(code: number, bytes: Uint8Array, start: number, end: number): void {
    if (this.length === this.codes.length && !this.grow()) return;
    const i = this.length;
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
    this.keep(code, i);
  }

  /**
   * Takes a group whose value is a number. A coordinate beyond 1e15 has no place for a millimetre in 64 bits; it is
   * damage.
   */
  put(code: number, value: number): void {
    if (this.length === this.codes.length && !this.grow()) return;
    if (groupTypes[code] === GroupType.real ? !(value < 1e15 && value > -1e15) : value !== value) this.broken = true;
    const i = this.length;
    this.values[i] = value;
    this.keep(code, i);
  }

  private keep(code: number, i: number): void {
    this.codes[i] = code;
    if (this.stamp[code] !== this.turn) {
      this.stamp[code] = this.turn;
      this.first[code] = i;
    }
    this.length = i + 1;
  }

  private grow(): boolean {
    if (this.length >= this.maxGroups) {
      this.overfull = true;
      return false;
    }
    const size = this.codes.length * 2;
    const [codes, values, ends] = [new Int16Array(size), new Float64Array(size), new Uint32Array(size)];
    codes.set(this.codes);
    values.set(this.values);
    ends.set(this.ends);
    [this.codes, this.values, this.ends] = [codes, values, ends];
    return true;
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

  /** The number that the string with a code has among the names, or -1 where there is none. */
  internIn(names: Interner, code: number, decoder: StringDecoder): number {
    if (this.stamp[code] !== this.turn) return -1;
    const group = this.first[code];
    return names.intern(this.texts, this.values[group], this.ends[group], decoder);
  }

  /** The lower 32 bits of the entity's handle, 0 where it has none. */
  handle(): number {
    return this.number(5, this.number(105, 0));
  }
}
