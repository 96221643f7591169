/** A small generator of even numbers in [0, 1) from a seed (mulberry32). */
export function seeded(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

const hostile = [
  '1e300',
  '-1e300',
  'NaN',
  'Infinity',
  '99999999999999999999',
  '-1',
  '0',
  '',
  'x'.repeat(300),
  '30000',
  '2147483647',
  '1e-320',
  '*Model_Space',
  'CHAIR',
  'DESK',
  'SECTION',
  'ENDSEC',
  'ENDBLK',
  'EOF',
  'INSERT',
  'VERTEX',
  'SEQEND',
  '\u0000\u0007',
];

/** One damage at a random place: what lost lines, bad copies and hostile hands do to files. */
const damages: ((bytes: Uint8Array, random: () => number) => Uint8Array)[] = [
  function flip(bytes, random) {
    const out = bytes.slice();
    for (let i = 0; i < 1 + random() * 8; i += 1) out[Math.floor(random() * out.length)] = Math.floor(random() * 256);
    return out;
  },
  function cut(bytes, random) {
    return bytes.slice(0, Math.floor(random() * bytes.length));
  },
  function drop(bytes, random) {
    const at = Math.floor(random() * bytes.length);
    return join(bytes.subarray(0, at), bytes.subarray(at + 1 + Math.floor(random() * random() * 400)));
  },
  function repeat(bytes, random) {
    const at = Math.floor(random() * bytes.length);
    const part = bytes.subarray(at, at + 1 + Math.floor(random() * random() * 2000));
    return join(
      bytes.subarray(0, at),
      ...Array.from({ length: 1 + Math.floor(random() * 4) }, () => part),
      bytes.subarray(at),
    );
  },
  function move(bytes, random) {
    const [a, b] = [Math.floor(random() * bytes.length), Math.floor(random() * bytes.length)];
    const part = bytes.slice(a, a + Math.floor(random() * 500));
    return join(bytes.subarray(0, b), part, bytes.subarray(b));
  },
  function dropLine(bytes, random) {
    const [from, to] = lineAt(bytes, random);
    return join(bytes.subarray(0, from), bytes.subarray(to));
  },
  function doubleLine(bytes, random) {
    const [from, to] = lineAt(bytes, random);
    return join(bytes.subarray(0, to), bytes.subarray(from, to), bytes.subarray(to));
  },
  function replaceLine(bytes, random) {
    const [from, to] = lineAt(bytes, random);
    return join(
      bytes.subarray(0, from),
      new TextEncoder().encode(`${hostile[Math.floor(random() * hostile.length)]}\n`),
      bytes.subarray(to),
    );
  },
];

const join = (...parts: Uint8Array[]): Uint8Array => {
  const out = new Uint8Array(parts.reduce((sum, part) => sum + part.length, 0));
  let at = 0;
  for (const part of parts) {
    out.set(part, at);
    at += part.length;
  }
  return out;
};

function lineAt(bytes: Uint8Array, random: () => number): [number, number] {
  const middle = Math.floor(random() * bytes.length);
  const from = bytes.lastIndexOf(10, middle - 1) + 1;
  const end = bytes.indexOf(10, middle);
  return [from, end < 0 ? bytes.length : end + 1];
}

/** A file damaged in one to four ways. */
export function mutate(bytes: Uint8Array, random: () => number): Uint8Array {
  let out = bytes;
  for (let i = 0; i < 1 + random() * 3; i += 1) out = damages[Math.floor(random() * damages.length)](out, random);
  return out;
}
