import { BinaryScanner } from './binary';
import { readDxf } from './reader';

/** Binary groups written by hand: 22 bytes of sentinel, then code and value, little-endian. */
const sentinel = [...new Array<number>(18).fill(32), 13, 10, 26, 0];
const ascii = (text: string) => [...Buffer.from(text), 0];
const code = (n: number, wide: boolean) => {
  if (wide) return [n & 255, n >> 8];
  if (n < 255) return [n];
  return [255, n & 255, n >> 8];
};
const double = (value: number) => [...new Uint8Array(Float64Array.of(value).buffer)];
const int16 = (value: number) => [...new Uint8Array(Int16Array.of(value).buffer)];
const int32 = (value: number) => [...new Uint8Array(Int32Array.of(value).buffer)];

type Written = [number, number[]];
const file = (wide: boolean, ...groups: Written[]) =>
  Uint8Array.from([...sentinel, ...groups.flatMap(([n, value]) => [...code(n, wide), ...value])]);
const start: Written[] = [
  [0, ascii('SECTION')],
  [2, ascii('ENTITIES')],
];
const line: Written[] = [
  [0, ascii('LINE')],
  [5, ascii('2F')],
  [8, ascii('WALL')],
  [62, int16(3)],
  [10, double(1.5)],
  [20, double(-2)],
  [11, double(1e6)],
  [21, double(0.25)],
];
const end: Written[] = [
  [0, ascii('ENDSEC')],
  [0, ascii('EOF')],
];

function scanned(bytes: Uint8Array, step = bytes.length, limit = 1000) {
  const groups: [number, string | number][] = [];
  const lost: [number, string][] = [];
  const scanner = new BinaryScanner(
    {
      group: (n, b, from, to) => groups.push([n, Buffer.from(b.slice(from, to)).toString()]),
      number: (n, value) => groups.push([n, value]),
      lost: (at, found) => lost.push([at, found]),
    },
    limit,
  );
  let fits = true;
  for (let at = 0; at < bytes.length; at += step)
    fits = scanner.push(bytes.subarray(at, at + step), at + step >= bytes.length) && fits;
  return { groups, lost, fits };
}

test.each([
  ['two bytes a code', true],
  ['one byte a code', false],
])('groups of %s come with their values', (_, wide) => {
  expect(scanned(file(wide, ...start, ...line, ...end))).toEqual({
    groups: [
      [0, 'SECTION'],
      [2, 'ENTITIES'],
      [0, 'LINE'],
      [5, 0x2f],
      [8, 'WALL'],
      [62, 3],
      [10, 1.5],
      [20, -2],
      [11, 1e6],
      [21, 0.25],
      [0, 'ENDSEC'],
      [0, 'EOF'],
    ],
    lost: [],
    fits: true,
  });
});

test.each([1, 3, 7, 50])('cut into pieces of %d bytes it is the same', (step) => {
  const bytes = file(true, ...start, ...line, ...end);
  expect(scanned(bytes, step)).toEqual(scanned(bytes));
});

test('whole numbers of four bytes, switches of one and runs of bytes are stepped over by their sizes', () => {
  const { groups, lost } = scanned(
    file(
      true,
      ...start,
      [0, ascii('LINE')],
      [420, int32(0xff8800)],
      [290, [1]],
      [310, [3, 9, 9, 9]],
      [1071, int32(5)],
      [160, [1, 0, 0, 0, 0, 0, 0, 0]],
      [70, int16(-1)],
      ...end,
    ),
  );
  expect(lost).toEqual([]);
  expect(groups.filter(([n]) => n !== 0 && n !== 2)).toEqual([
    [420, 0xff8800],
    [290, 1],
    [160, 1],
    [70, -1],
  ]);
});

test('in the older form a code beyond 254 is announced by 255', () => {
  expect(scanned(file(false, ...start, [0, ascii('LINE')], [420, int32(7)], ...end)).groups).toContainEqual([420, 7]);
});

test('after lost bytes it finds the next entity, and says where it lost the way', () => {
  const whole = file(true, ...start, ...line, ...line, ...end);
  const cut = Uint8Array.from([...whole.slice(0, 60), ...whole.slice(63)]);
  const { groups, lost } = scanned(cut);
  expect(lost.length).toBe(1);
  expect(lost[0][0]).toBeGreaterThan(50);
  expect(groups.filter(([n, value]) => n === 0 && value === 'LINE').length).toBeGreaterThanOrEqual(1);
  expect(groups.slice(-2)).toEqual([
    [0, 'ENDSEC'],
    [0, 'EOF'],
  ]);
  const result = readDxf(cut);
  expect(result.ok && result.value.account.warnings.map((warning) => warning.code)).toContain('outOfStep');
});

test('a text longer than allowed stops it', () => {
  const bytes = file(true, ...start, [0, ascii('TEXT')], [1, ascii('x'.repeat(500))], ...end);
  expect([scanned(bytes, bytes.length, 200).fits, scanned(bytes, 64, 200).fits, scanned(bytes, 64, 600).fits]).toEqual([
    false,
    false,
    true,
  ]);
});

test('a file that ends in the middle of a number is read as far as it goes, and told to be short', () => {
  const bytes = file(true, ...start, ...line);
  const result = readDxf(bytes.slice(0, bytes.length - 3));
  if (!result.ok) throw new Error(result.message);
  expect(result.value.account.warnings.map((warning) => warning.code)).toContain('noEnd');
});
