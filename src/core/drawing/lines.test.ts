import fc from 'fast-check';
import { GroupScanner } from './lines';
import { Record } from './record';
import { StringDecoder } from './codePage';

function scan(
  text: string,
  step = text.length,
): { groups: [number, string | number][]; lost: [number, string][]; lines: number; fits: boolean } {
  const groups: [number, string | number][] = [];
  const lost: [number, string][] = [];
  const scanner = new GroupScanner(
    {
      group: (code, bytes, start, end) => groups.push([code, new TextDecoder().decode(bytes.slice(start, end))]),
      number: (code, value) => groups.push([code, value]),
      lost: (line, found) => lost.push([line, found]),
    },
    200,
  );
  const bytes = new TextEncoder().encode(text);
  let fits = true;
  for (let at = 0; at < bytes.length; at += step)
    fits = scanner.push(bytes.subarray(at, at + step), at + step >= bytes.length) && fits;
  return { groups, lost, lines: scanner.line, fits };
}

test('pairs of lines are groups, with either line end, the last without one', () => {
  expect(scan('  0\r\nSECTION\r\n  2\r\nENTITIES').groups).toEqual([
    [0, 'SECTION'],
    [2, 'ENTITIES'],
  ]);
  expect(scan('0\nLINE\n 10\n 1.5 \n').groups).toEqual([
    [0, 'LINE'],
    [10, 1.5],
  ]);
});

test('an empty value is a value', () => {
  expect(scan('1\n\n8\nWALL\n').groups).toEqual([
    [1, ''],
    [8, 'WALL'],
  ]);
});

test.each([1, 2, 3, 7])('cut into pieces of %d bytes it is the same', (step) => {
  const text = '0\r\nLINE\r\n8\r\nA\r\n10\r\n1\r\n0\r\nEOF\r\n';
  expect(scan(text, step)).toEqual(scan(text));
});

test('a doubled line is told with its number, and the next keyword is found again', () => {
  const { groups, lost } = scan('0\nLINE\n8\nA\nA\n10\n1.5\n0\nCIRCLE\n8\nB\n');
  expect(lost).toEqual([[5, 'A']]);
  expect(groups).toEqual([
    [0, 'LINE'],
    [8, 'A'],
    [0, 'CIRCLE'],
    [8, 'B'],
  ]);
});

test('a lost line shifts values into codes and is found out at the first that is no code', () => {
  const { groups, lost } = scan('0\nLINE\n10\n20\n2.5\n11\n3.5\n0\nCIRCLE\n8\nB\n');
  expect(lost[0]).toEqual([5, '2.5']);
  expect(groups[groups.length - 1]).toEqual([8, 'B']);
});

test('a group 0 with a number behind it is no beginning of an entity', () => {
  const { lost } = scan('0\n12.5\n0\nLINE\n8\nA\n');
  expect(lost).toEqual([[1, '0']]);
});

test('a line longer than allowed stops it, in one piece or in many', () => {
  const text = `0\nTEXT\n1\n${'x'.repeat(500)}\n`;
  expect([scan(text).fits, scan(text, 50).fits, scan('0\nTEXT\n1\nshort\n').fits]).toEqual([false, false, true]);
});

test('plain numbers are parsed as the language itself parses them, but for the last place', () => {
  fc.assert(
    fc.property(fc.double({ min: -1e9, max: 1e9, noNaN: true }), fc.integer({ min: 0, max: 10 }), (value, digits) => {
      const text = value.toFixed(digits);
      // Room behind it, so that the quick way is taken.
      const [[, found]] = scan(`10\n${text}\n8\n${'x'.repeat(80)}\n`).groups as [number, number][];
      expect(Math.abs(found - Number(text))).toBeLessThanOrEqual(Math.abs(Number(text)) * 2.3e-16);
    }),
  );
});

describe('the groups of one entity', () => {
  const record = new Record(1000);
  const sink = {
    group: (code: number, bytes: Uint8Array, start: number, end: number) => record.add(code, bytes, start, end),
    number: (code: number, value: number) => record.put(code, value),
    lost: () => undefined,
  };
  const add = (code: number, text: string) => {
    new GroupScanner(sink, 200).push(new TextEncoder().encode(`${code}\n${text}\n`), true);
  };
  beforeEach(() => record.clear());

  test('are found by code, the first of several, with a fallback', () => {
    add(10, '1.5');
    add(10, '2.5');
    add(62, '3');
    add(8, 'WALL');
    add(5, '2F');
    expect([
      record.number(10, 0),
      record.number(62, 256),
      record.number(40, 7),
      record.has(20),
      record.string(8, new StringDecoder('utf-8')),
      record.handle(),
    ]).toEqual([1.5, 3, 7, false, 'WALL', 0x2f]);
    expect([...record.codes.subarray(0, record.length)]).toEqual([10, 10, 62, 8, 5]);
  });

  test('are forgotten for the next entity', () => {
    add(10, '1');
    record.clear();
    expect([record.has(10), record.length, record.broken]).toEqual([false, 0, false]);
  });

  test.each([
    [10, 'abc'],
    [10, '1e300'],
    [40, ''],
    [62, '1.5'],
  ])('code %d with "%s" is damage', (code, text) => {
    add(code, text);
    expect(record.broken).toBe(true);
  });

  test('extended data, comments and ownership are passed over', () => {
    for (const code of [100, 102, 330, 360, 999, 1000, 1040]) add(code, 'x');
    expect([record.length, record.broken]).toEqual([0, false]);
  });

  test('beyond their limit they are cut, and that is told', () => {
    const small = new Record(256);
    for (let i = 0; i < 300; i += 1) small.put(10, 1);
    expect([small.length, small.overfull]).toEqual([256, true]);
  });
});
