import { storable } from '@/core/storable';
import { Doubles, Growable } from './growable';
import { blockKinds } from './drawing';

/** The rows of a drawing while it is read. */
export class Rows {
  kind = new Growable(new Uint8Array(1024));
  flags = new Growable(new Uint8Array(1024));
  layer = new Growable(new Uint16Array(1024));
  style = new Growable(new Uint16Array(1024));
  handle = new Growable(new Uint32Array(1024));
  at = new Growable(new Uint32Array(1024));
  numbers = new Doubles(8192);
  stringBytes = new Growable(new Uint8Array(4096));
  stringAt = new Growable(new Uint32Array(256));
  readonly planes: [number, number, number][] = [];
  private planeIndex = new Map<string, number>();
  /** Texts that held characters which are none. */
  mended = 0;
  private encoder = new TextEncoder();

  constructor() {
    this.stringAt.push(0);
  }

  get count(): number {
    return this.kind.length;
  }

  /** Begins a row; its numbers are pushed to `numbers` after. */
  begin(kind: number, flags: number, layer: number, style: number, handle: number): void {
    this.kind.push(kind);
    this.flags.push(flags);
    this.layer.push(layer);
    this.style.push(style);
    this.handle.push(handle);
    this.at.push(this.numbers.length);
  }

  /** Keeps a string and returns its number. */
  string(text: string): number {
    const kept = storable(text);
    if (kept !== text) this.mended += 1;
    const bytes = this.encoder.encode(kept);
    this.stringBytes.reserve(bytes.length);
    this.stringBytes.array.set(bytes, this.stringBytes.length);
    this.stringBytes.length += bytes.length;
    this.stringAt.push(this.stringBytes.length);
    return this.stringAt.length - 2;
  }

  /** The number of the plane with a normal. */
  plane(x: number, y: number, z: number): number {
    const key = `${x.toFixed(9)}/${y.toFixed(9)}/${z.toFixed(9)}`;
    let index = this.planeIndex.get(key);
    if (index === undefined) {
      index = this.planes.length;
      this.planes.push([x, y, z]);
      this.planeIndex.set(key, index);
    }
    return index;
  }

  finish() {
    this.at.push(this.numbers.length);
    return {
      planes: this.planes,
      kind: this.kind.finish(),
      flags: this.flags.finish(),
      layer: this.layer.finish(),
      style: this.style.finish(),
      handle: this.handle.finish(),
      at: this.at.finish(),
      numbers: this.numbers.finish(),
      stringBytes: this.stringBytes.finish(),
      stringAt: this.stringAt.finish(),
    };
  }

  /** The place of the block number among the numbers of a row that stands for a block. */
  static readonly blockOfInsert = 5;

  /** Calls back for each row that stands for a block, with the place of its block's number in `numbers`. */
  eachBlockRow(visit: (row: number, at: number) => void): void {
    for (let row = 0; row < this.kind.length; row += 1) {
      if (blockKinds[this.kind.array[row]] === 1) visit(row, this.at.array[row] + Rows.blockOfInsert);
    }
  }
}
