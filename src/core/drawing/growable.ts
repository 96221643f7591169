type Column = Float64Array | Float32Array | Uint32Array | Int32Array | Uint16Array | Uint8Array;

/** A typed array that doubles as it fills. */
export class Growable<T extends Column> {
  length = 0;
  constructor(public array: T) {}

  push(value: number): void {
    if (this.length === this.array.length) this.reserve(1);
    this.array[this.length] = value;
    this.length += 1;
  }

  /** Appends all of another. */
  append(other: Growable<T>): void {
    this.reserve(other.length);
    this.array.set(other.array.subarray(0, other.length) as never, this.length);
    this.length += other.length;
  }

  reserve(extra: number): void {
    if (this.length + extra <= this.array.length) return;
    const larger = new (this.array.constructor as new (n: number) => T)(
      Math.max(this.array.length * 2, this.length + extra, 64),
    );
    larger.set(this.array as never);
    this.array = larger;
  }

  /** A copy of what was filled, of exactly that size. */
  finish(): T {
    return this.array.slice(0, this.length) as T;
  }
}

/** Coordinates as they come. What one function does to arrays of many types is slow, so theirs has its own. */
export class Doubles extends Growable<Float64Array> {
  constructor(size: number) {
    super(new Float64Array(size));
  }

  override push(value: number): void {
    if (this.length === this.array.length) this.reserve(1);
    this.array[this.length] = value;
    this.length += 1;
  }
}
