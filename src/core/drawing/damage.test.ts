import { flatten } from '@/core/underlay/flatten';
import { defaultLimits } from './limits';
import { readDxf } from './reader';
import { block, dxf, groups, line, readText } from './testing/dxf';

/** Files as hostile hands or bad luck make them: each ends in a result with a warning, or in a clear sentence. */
const codes = (text: string) => readText(text).account.warnings.map((warning) => warning.code);
const insert = (name: string, more: [number, string | number][] = []) =>
  groups([0, 'INSERT'], [8, '0'], [2, name], [10, 0], [20, 0], ...more);
const messageOf = (text: string | Uint8Array, limits = defaultLimits) => {
  const result = readDxf(typeof text === 'string' ? new TextEncoder().encode(text) : text, limits);
  return result.ok ? null : result.message;
};

test.each([
  ['NaN', 'NaN'],
  ['beyond any place', '1e300'],
  ['no number', 'twelve'],
  ['nothing', ''],
])('a coordinate that is %s leaves its entity out with the handle, and the rest is read', (_, value) => {
  const { account } = readText(
    dxf({
      entities: groups([0, 'LINE'], [5, 'AB'], [8, '0'], [10, value], [20, 0], [11, 1], [21, 1]) + line(0, 0, 5, 5),
    }),
  );
  expect(account.leftOut).toMatchObject([{ kind: 'LINE', reason: 'damaged', count: 1 }]);
  expect(account.read).toMatchObject([{ kind: 'LINE', count: 1 }]);
  expect(account.warnings[0]).toMatchObject({ code: 'damaged', handle: 'AB' });
});

test('a hatch whose counts lie ends with what is there', () => {
  const side = [
    [72, 1],
    [10, 0],
    [20, 0],
    [11, 5],
    [21, 0],
  ] as [number, number][];
  const lying = groups(
    [0, 'HATCH'],
    [8, '0'],
    [2, 'X'],
    [70, 0],
    [91, 2_000_000_000],
    [92, 1],
    [93, 2_000_000_000],
    ...side,
    [75, 0],
  );
  const { drawing, account } = readText(dxf({ entities: lying }));
  expect(account.read).toMatchObject([{ kind: 'HATCH', count: 1 }]);
  expect(flatten(drawing).layer.length).toBe(1);
  expect(
    readText(dxf({ entities: groups([0, 'HATCH'], [8, '0'], [2, 'X'], [91, 1], [75, 0]) })).account.leftOut,
  ).toMatchObject([{ reason: 'noGeometry' }]);
});

test('splines whose knots do not fit their points fall back on their fit points or are left out', () => {
  const knots = [0, 0, 1, 1].map((knot): [number, number] => [40, knot]);
  const controls = [
    [10, 0],
    [20, 0],
    [10, 5],
    [20, 5],
    [10, 9],
    [20, 0],
  ] as [number, number][];
  expect(
    readText(dxf({ entities: groups([0, 'SPLINE'], [8, '0'], [71, 3], ...knots, ...controls) })).account.leftOut,
  ).toMatchObject([{ kind: 'SPLINE', reason: 'damaged' }]);
  const fitted = readText(
    dxf({
      entities: groups(
        [0, 'SPLINE'],
        [8, '0'],
        [71, 3],
        ...knots,
        ...controls,
        [11, 0],
        [21, 0],
        [11, 4],
        [21, 4],
        [11, 8],
        [21, 0],
      ),
    }),
  );
  expect(flatten(fitted.drawing).layer.length).toBe(1);
});

test('a mesh with corners that it does not have, and a net larger than its points, draw what is left', () => {
  const vertex = (x: number, y: number) => groups([0, 'VERTEX'], [8, '0'], [10, x], [20, y], [70, 192]);
  const face = (...corners: number[]) =>
    groups([0, 'VERTEX'], [8, '0'], [70, 128], ...corners.map((corner, i): [number, number] => [71 + i, corner]));
  const { drawing } = readText(
    dxf({
      entities:
        groups([0, 'POLYLINE'], [8, '0'], [70, 64]) +
        vertex(0, 0) +
        vertex(1, 0) +
        face(1, 2, 99) +
        face(7, 8, 9) +
        groups([0, 'SEQEND']),
    }),
  );
  expect(flatten(drawing).layer.length).toBe(1);
  const net =
    groups([0, 'POLYLINE'], [8, '0'], [70, 16], [71, 30000], [72, 30000]) + vertex(0, 0) + groups([0, 'SEQEND']);
  expect(readText(dxf({ entities: net })).account.leftOut).toMatchObject([{ kind: 'POLYLINE', reason: 'noGeometry' }]);
});

test('an array of 30,000 by 30,000 is counted and left out, with the count', () => {
  const { drawing } = readText(
    dxf({
      blocks: block('B', line(0, 0, 1, 1)),
      entities: insert('B', [
        [70, 30000],
        [71, 30000],
        [44, 1],
        [45, 1],
      ]),
    }),
  );
  const { limits, layer } = flatten(drawing);
  // 30,000 columns by 30,000 rows of a block and its one line.
  expect(limits.expansions).toEqual([{ entity: drawing.blocks[drawing.model].first, block: 'B', parts: 1.8e9 }]);
  expect(layer.length).toBe(0);
});

test('an insert of more columns than the file could mean keeps at least one', () => {
  const { drawing } = readText(
    dxf({
      blocks: block('B', line(0, 0, 1, 1)),
      entities: insert('B', [
        [70, -5],
        [71, 0],
      ]),
    }),
  );
  expect(flatten(drawing).layer.length).toBe(1);
});

test('polylines without an end, vertices without a polyline, blocks without an end: what is there is read', () => {
  const vertex = (x: number) => groups([0, 'VERTEX'], [8, '0'], [10, x], [20, 0]);
  const open = readText(
    dxf({
      entities: vertex(9) + groups([0, 'POLYLINE'], [8, '0'], [70, 0]) + vertex(0) + vertex(5) + line(0, 0, 1, 1),
    }),
  );
  expect(Object.fromEntries(open.account.read.map((row) => [row.kind, row.count]))).toEqual({ POLYLINE: 1, LINE: 1 });
  const unclosed = readText(
    groups([0, 'SECTION'], [2, 'BLOCKS'], [0, 'BLOCK'], [8, '0'], [2, 'B'], [10, 0], [20, 0]) +
      line(0, 0, 1, 1) +
      groups([0, 'ENDSEC'], [0, 'SECTION'], [2, 'ENTITIES']) +
      insert('B') +
      groups([0, 'ENDSEC'], [0, 'EOF']),
  );
  expect(flatten(unclosed.drawing).layer.length).toBe(1);
});

test('a file cut short, one without sections and one with nothing in it say so', () => {
  const whole = dxf({ entities: line(0, 0, 1, 1) });
  expect(codes(whole.slice(0, whole.length - 12))).toContain('noEnd');
  expect(messageOf('0\nLINE\n8\n0\n0\nEOF\n')).toMatch(/No section was found/);
  expect(codes(dxf({}))).toEqual(['empty']);
  expect(messageOf(new Uint8Array(0))).toMatch(/empty/);
});

test('more entities than allowed, and a value of megabytes, are errors with their limits in the sentence', () => {
  expect(messageOf(dxf({ entities: line(0, 0, 1, 1).repeat(12) }), { ...defaultLimits, entities: 10 })).toMatch(
    /more than 10 entities.*raise the limit/s,
  );
  expect(messageOf(`0\nSECTION\n2\nENTITIES\n0\nTEXT\n1\n${'x'.repeat(3_000_000)}\n`)).toMatch(
    /longer than 1,048,576 bytes/,
  );
});

test('warnings of one kind are listed up to their limit and counted beyond', () => {
  const { account } = readText(
    dxf({ entities: groups([0, 'LINE'], [8, '0'], [10, 'x'], [20, 0], [11, 1], [21, 1]).repeat(50) }),
    { ...defaultLimits, warnings: 5 },
  );
  expect([account.warnings.length, account.warningCounts.damaged]).toEqual([5, 50]);
});

test('a block defined twice, one that holds itself, and one of the model\u2019s name end in something to see', () => {
  const twice = readText(
    dxf({ blocks: block('B', line(0, 0, 1, 0)) + block('B', line(0, 0, 0, 7)), entities: insert('B') }),
  );
  expect(flatten(twice.drawing).layer.length).toBe(1);
  const self = flatten(
    readText(dxf({ blocks: block('S', line(0, 0, 1, 0) + insert('S')), entities: insert('S') })).drawing,
  );
  expect([self.layer.length, self.limits.recursion]).toEqual([1, 1]);
  // Some writers keep the plan in the block of the model space and leave the entities empty.
  const kept = readText(dxf({ blocks: block('*Model_Space', line(0, 0, 1, 0) + line(0, 0, 0, 1)) }));
  expect(flatten(kept.drawing).layer.length).toBe(2);
});
