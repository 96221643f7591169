import { storable } from '@/core/storable';
import type { StringDecoder } from './codePage';

/** Names are at most so long, as those of rows of a project are. */
const mostName = 560;

/** Gives each distinct run of bytes a number, without making a string of the ones it has seen. */
export class Interner {
  readonly names: string[] = [];
  /** Names that were too long, or held characters which are none. */
  mended = 0;
  private byKey = new Map<string, number>();
  private byHash = new Map<number, { bytes: Uint8Array; index: number }[]>();

  /** @param keyOf what makes two names the same; layer and block names differ in case only by accident */
  constructor(
    private keyOf: (name: string) => string = (name) => name.toLowerCase(),
    private tidy: (raw: string) => string = (raw) => raw,
  ) {}

  intern(bytes: Uint8Array, start: number, end: number, decoder: StringDecoder): number {
    let hash = 0x811c9dc5;
    for (let i = start; i < end; i += 1) hash = Math.imul(hash ^ bytes[i], 0x01000193);
    const bucket = this.byHash.get(hash);
    if (bucket) for (const entry of bucket) if (same(entry.bytes, bytes, start, end)) return entry.index;
    const copy = bytes.slice(start, end);
    const index = this.named(this.tidy(decoder.decode(copy)));
    const entry = { bytes: copy, index };
    if (bucket) bucket.push(entry);
    else this.byHash.set(hash, [entry]);
    return index;
  }

  /** The name as it is kept: what is too long is cut, and stays another than those that begin alike. */
  private kept(name: string, index: number): string {
    const whole = storable(name);
    if (whole !== name || whole.length > mostName) this.mended += 1;
    return whole.length > mostName ? storable(`${whole.slice(0, mostName)} \u2026 ${index}`) : whole;
  }

  /** The number of a name given as a string. */
  named(name: string): number {
    const key = this.keyOf(name);
    let index = this.byKey.get(key);
    if (index === undefined) {
      index = this.names.length;
      this.names.push(this.kept(name, index));
      this.byKey.set(key, index);
    }
    return index;
  }
}

function same(a: Uint8Array, bytes: Uint8Array, start: number, end: number): boolean {
  if (a.length !== end - start) return false;
  for (let i = 0; i < a.length; i += 1) if (a[i] !== bytes[start + i]) return false;
  return true;
}
