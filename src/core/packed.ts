/** The head of a packed value: how many bytes its JSON has. */
const headBytes = 4;
/** Numbers begin at places that a view of eight bytes each can take. */
const align = 8;
/** What stands in the JSON for numbers that follow it: where they begin, counted in numbers, and how many. */
const mark = '\u0000numbers';

/** Plain data with arrays of numbers as bytes, the arrays as they are. */
export function pack(value: unknown): Uint8Array<ArrayBuffer> {
  const arrays: Float64Array[] = [];
  let at = 0;
  const json = new TextEncoder().encode(
    JSON.stringify(value, (_, part: unknown) => {
      if (!(part instanceof Float64Array)) return part;
      arrays.push(part);
      at += part.length;
      return { [mark]: [at - part.length, part.length] };
    }),
  );
  const begin = Math.ceil((headBytes + json.length) / align) * align;
  const bytes = new Uint8Array(begin + at * align);
  new DataView(bytes.buffer).setUint32(0, json.length);
  bytes.set(json, headBytes);
  const numbers = new Float64Array(bytes.buffer, begin);
  at = 0;
  for (const array of arrays) {
    numbers.set(array, at);
    at += array.length;
  }
  return bytes;
}

const isMark = (part: unknown): part is { [mark]: [number, number] } =>
  typeof part === 'object' && part !== null && mark in part;

/** What was packed. @param buffer what `pack` gave, from its beginning */
export function unpack(buffer: ArrayBuffer): unknown {
  const length = new DataView(buffer).getUint32(0);
  const begin = Math.ceil((headBytes + length) / align) * align;
  const numbers = new Float64Array(buffer, begin);
  const text = new TextDecoder().decode(new Uint8Array(buffer, headBytes, length));
  return JSON.parse(text, (_, part: unknown) => {
    if (!isMark(part)) return part;
    const [at, count] = part[mark];
    return numbers.slice(at, at + count);
  });
}
