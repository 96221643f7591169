/**
 * Numbers in as few bytes as they need without loss, for the database and the network. Two bits a number say
 * how it is kept, four numbers a byte in `tags`, the first lowest; what it needs follows in `body`, little-endian:
 *
 *   0   zero          nothing
 *   1   small         one signed byte
 *   2   single        32-bit float, where that is exact
 *   3   double        64-bit float
 */
export interface Squeezed {
  tags: Uint8Array;
  body: Uint8Array;
}

const bytesOf = [0, 1, 4, 8];

function tagOf(value: number): number {
  if (value === 0 && !Object.is(value, -0)) return 0;
  if (value >= -128 && value <= 127 && Number.isInteger(value) && value !== 0) return 1;
  return Math.fround(value) === value || Number.isNaN(value) ? 2 : 3;
}

export function squeeze(numbers: Float64Array): Squeezed {
  const tags = new Uint8Array(Math.ceil(numbers.length / 4));
  let size = 0;
  for (let i = 0; i < numbers.length; i += 1) {
    const tag = tagOf(numbers[i]);
    tags[i >> 2] |= tag << (2 * (i & 3));
    size += bytesOf[tag];
  }
  const body = new Uint8Array(size);
  const view = new DataView(body.buffer);
  let at = 0;
  for (let i = 0; i < numbers.length; i += 1) {
    const tag = (tags[i >> 2] >> (2 * (i & 3))) & 3;
    if (tag === 1) view.setInt8(at, numbers[i]);
    else if (tag === 2) view.setFloat32(at, numbers[i], true);
    else if (tag === 3) view.setFloat64(at, numbers[i], true);
    at += bytesOf[tag];
  }
  return { tags, body };
}

/** @param count how many numbers there are */
export function unsqueeze({ tags, body }: Squeezed, count: number): Float64Array {
  const numbers = new Float64Array(count);
  const view = new DataView(body.buffer, body.byteOffset, body.byteLength);
  let at = 0;
  for (let i = 0; i < count; i += 1) {
    const tag = (tags[i >> 2] >> (2 * (i & 3))) & 3;
    if (tag === 0) continue;
    if (tag === 1) numbers[i] = view.getInt8(at);
    else numbers[i] = tag === 2 ? view.getFloat32(at, true) : view.getFloat64(at, true);
    at += bytesOf[tag];
  }
  return numbers;
}

/** Rising whole numbers as the steps between them, seven bits a byte, the highest bit set where more follow. */
export function squeezeRising(values: Uint32Array): Uint8Array {
  const out = new Uint8Array(values.length * 5);
  let [n, before] = [0, 0];
  for (const value of values) {
    let step = value - before;
    before = value;
    while (step > 127) {
      out[n] = (step & 127) | 128;
      n += 1;
      step >>>= 7;
    }
    out[n] = step;
    n += 1;
  }
  return out.slice(0, n);
}

export function unsqueezeRising(bytes: Uint8Array, count: number): Uint32Array {
  const values = new Uint32Array(count);
  let [at, value] = [0, 0];
  for (let i = 0; i < count; i += 1) {
    for (let shift = 0; ; shift += 7) {
      const byte = bytes[at];
      at += 1;
      value += (byte & 127) * 2 ** shift;
      if (byte < 128) break;
    }
    values[i] = value;
  }
  return values;
}
