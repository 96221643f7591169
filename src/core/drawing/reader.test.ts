import fc from 'fast-check';
import { flatten } from '@/core/underlay/flatten';
import { handleOf, Kind, kindNames, stringOf, vertexCount } from './drawing';
import { defaultLimits } from './limits';
import { packDrawing, unpackDrawing } from './packDrawing';
import { DxfReader, readDxf } from './reader';
import { block, dxf, groups, line, readText } from './testing/dxf';

const encode = (text: string) => new TextEncoder().encode(text);
const numbersOf = ({ drawing }: ReturnType<typeof readText>, row: number) => [
  ...drawing.numbers.subarray(drawing.at[row], drawing.at[row + 1]),
];
const countsOf = ({ account }: ReturnType<typeof readText>) =>
  Object.fromEntries(account.read.map((row) => [row.kind, row.count]));

test('a line is its two points, on its layer, with its handle', () => {
  const reading = readText(
    dxf({
      entities: groups(
        [0, 'LINE'],
        [5, '1A2F'],
        [8, 'A-WALL'],
        [62, 3],
        [10, 1.5],
        [20, -2],
        [30, 0],
        [11, '3e2'],
        [21, '4.25'],
        [31, 0],
      ),
    }),
  );
  const { drawing } = reading;
  expect(numbersOf(reading, 0)).toEqual([1.5, -2, 300, 4.25]);
  expect([
    drawing.layers[drawing.layer[0]].name,
    handleOf(drawing, 0),
    drawing.styles[drawing.style[0]].colour,
  ]).toEqual(['A-WALL', '1A2F', 3]);
});

test('a light polyline keeps its bulges at their vertices and whether it is closed', () => {
  const reading = readText(
    dxf({
      entities: groups(
        [0, 'LWPOLYLINE'],
        [8, '0'],
        [90, 3],
        [70, 1],
        [10, 0],
        [20, 0],
        [10, 4],
        [20, 0],
        [42, 0.5],
        [10, 4],
        [20, 3],
      ),
    }),
  );
  expect(vertexCount(reading.drawing, 0)).toBe(3);
  expect(numbersOf(reading, 0)).toEqual([0, 0, 4, 0, 4, 3, 0, 0.5, 0]);
  expect(reading.drawing.flags[0] & 1).toBe(1);
});

test('the older polyline takes its vertices from the entities after it and counts as one', () => {
  const vertex = (x: number, y: number, bulge = 0) => groups([0, 'VERTEX'], [8, '0'], [10, x], [20, y], [42, bulge]);
  const reading = readText(
    dxf({
      entities:
        groups([0, 'POLYLINE'], [8, 'B'], [66, 1], [70, 1]) +
        vertex(1, 1) +
        vertex(2, 1, 1) +
        vertex(2, 2) +
        groups([0, 'SEQEND'], [8, 'B']) +
        line(0, 0, 1, 1),
    }),
  );
  expect(countsOf(reading)).toEqual({ POLYLINE: 1, LINE: 1 });
  expect(numbersOf(reading, 0)).toEqual([1, 1, 2, 1, 2, 2, 0, 1, 0]);
});

test('what was drawn in a mirrored plane (0, 0, -1) stands at minus x, its arcs turned over', () => {
  const reading = readText(
    dxf({
      entities: groups(
        [0, 'ARC'],
        [8, '0'],
        [10, 5],
        [20, 1],
        [40, 2],
        [50, 0],
        [51, 90],
        [210, 0],
        [220, 0],
        [230, -1],
      ),
    }),
  );
  // From the point at angle 0, (-7, 1), counter-clockwise in the mirrored plane to (-5, 3): in the plan from 90 to 180
  // degrees.
  const p = flatten(reading.drawing);
  const at = (v: number) =>
    [p.xy[2 * v] + p.origin[0], p.xy[2 * v + 1] + p.origin[1]].map((value) => Number(value.toFixed(12)) + 0);
  expect([at(0), at(1)]).toEqual([
    [-7, 1],
    [-5, 3],
  ]);
  // A quarter circle, clockwise from left to top: the bulge is minus the tangent of 22.5 degrees.
  expect(p.bulge[0]).toBeCloseTo(-Math.tan(Math.PI / 8), 12);
});

test('a circle in a plane tilted by 45 degrees is seen as an ellipse, half as deep in its square', () => {
  const { drawing } = readText(
    dxf({ entities: groups([0, 'CIRCLE'], [8, '0'], [10, 0], [20, 0], [40, 1], [210, 0], [220, 1], [230, 1]) }),
  );
  const p = flatten(drawing, { sagitta: 1e-5 });
  const points = Array.from({ length: p.bulge.length }, (_, v) => [
    p.xy[2 * v] + p.origin[0],
    p.xy[2 * v + 1] + p.origin[1],
  ]);
  for (const [x, y] of points) expect(x * x + 2 * y * y).toBeCloseTo(1, 9);
});

test('texts are read with their escapes, the aligned ones at their second point', () => {
  const reading = readText(
    dxf({
      entities: groups(
        [0, 'TEXT'],
        [8, '0'],
        [10, 0],
        [20, 0],
        [40, 2.5],
        [1, '%%c450 \\U+00BD %%d'],
        [72, 1],
        [73, 2],
        [11, 8],
        [21, 9],
      ),
    }),
  );
  const [x, y, height, , , across, up, string] = numbersOf(reading, 0);
  expect([x, y, height, across, up]).toEqual([8, 9, 2.5, 1, 2]);
  expect(stringOf(reading.drawing, string)).toBe('\u2300450 \u00bd \u00b0');
});

test('a multi-line text loses its formatting and keeps its words', () => {
  const reading = readText(
    dxf({
      entities: groups(
        [0, 'MTEXT'],
        [8, '0'],
        [10, 0],
        [20, 0],
        [40, 1],
        [71, 5],
        [3, '{\\fArial|b1;Dry'],
        [1, ' Lab}\\P\\H2x;0.04 \\S1/2;'],
      ),
    }),
  );
  expect(stringOf(reading.drawing, numbersOf(reading, 0)[7])).toBe('Dry Lab\n0.04 1/2');
});

test('attributes of an insert are texts of their own', () => {
  const reading = readText(
    dxf({
      blocks: block('B', line(0, 0, 1, 0)),
      entities:
        groups([0, 'INSERT'], [8, '0'], [66, 1], [2, 'b'], [10, 3], [20, 4]) +
        groups([0, 'ATTRIB'], [8, '0'], [10, 3], [20, 4], [40, 1], [1, 'W3'], [2, 'LABEL'], [70, 0]) +
        groups([0, 'SEQEND']),
    }),
  );
  expect(countsOf(reading)).toEqual({ LINE: 1, INSERT: 1, ATTRIB: 1 });
  // The block is found although its name is written in another case.
  expect(reading.drawing.blocks[numbersOf(reading, 1)[5]].name).toBe('B');
});

test('every entity is read or left out with its reason: the account adds up to the file', () => {
  const { account } = readText(
    dxf({
      entities:
        line(0, 0, 1, 1) +
        groups([0, '3DSOLID'], [8, 'M'], [70, 1]) +
        groups([0, 'ACAD_PROXY_ENTITY'], [8, 'M']) +
        groups([0, 'NEVERHEARD'], [8, 'M']) +
        groups([0, 'LINE'], [67, 1], [8, '0'], [10, 0], [20, 0], [11, 1], [21, 1]) +
        groups([0, 'LINE'], [8, '0'], [10, 'NaN'], [20, 0], [11, 1], [21, 1]) +
        groups([0, 'CIRCLE'], [8, '0'], [10, 0], [20, 0], [40, 0]),
    }),
  );
  expect(account.read).toEqual([{ kind: 'LINE', layer: 0, block: 0, count: 1 }]);
  expect(Object.fromEntries(account.leftOut.map((row) => [`${row.kind} ${row.reason}`, row.count]))).toEqual({
    '3DSOLID solid': 1,
    'ACAD_PROXY_ENTITY proxy': 1,
    'NEVERHEARD notRead': 1,
    'LINE paper': 1,
    'LINE damaged': 1,
    'CIRCLE noGeometry': 1,
  });
  expect(account.warnings[0]).toMatchObject({ code: 'damaged' });
});

test('strings before R2007 follow the code page, the euro sign and double bytes included', () => {
  const file = (codePage: string, bytes: number[]) => {
    const head = encode(
      groups(
        [0, 'SECTION'],
        [2, 'HEADER'],
        [9, '$ACADVER'],
        [1, 'AC1015'],
        [9, '$DWGCODEPAGE'],
        [3, codePage],
        [0, 'ENDSEC'],
        [0, 'SECTION'],
        [2, 'ENTITIES'],
        [0, 'TEXT'],
        [8, '0'],
        [10, 0],
        [20, 0],
        [40, 1],
      ) + '1\n',
    );
    return Uint8Array.from([...head, ...bytes, 10, ...encode(groups([0, 'ENDSEC'], [0, 'EOF']))]);
  };
  const textOf = (bytes: Uint8Array) => {
    const result = readDxf(bytes);
    if (!result.ok) throw new Error(result.message);
    const { drawing } = result.value;
    return stringOf(drawing, drawing.numbers[drawing.at[0] + 7]);
  };
  expect(textOf(file('ANSI_1252', [0x80, 0xe4]))).toBe('\u20ac\u00e4');
  // Shift-JIS: 0x83 0x5c is a katakana SO, whose second byte is a backslash.
  expect(textOf(file('ANSI_932', [0x83, 0x5c]))).toBe('\u30bd');
});

test('chunks of any size give the same drawing', () => {
  const bytes = encode(
    dxf({
      header: groups([9, '$ACADVER'], [1, 'AC1027'], [9, '$INSUNITS'], [70, 4]),
      blocks: block('B', line(0, 0, 1, 0)),
      entities: line(1, 2, 3, 4, 'W\u00e4nde') + groups([0, 'INSERT'], [8, '0'], [2, 'B'], [10, 3], [20, 4]),
    }).replace(/\n/g, '\r\n'),
  );
  const whole = readDxf(bytes);
  fc.assert(
    fc.property(fc.integer({ min: 1, max: bytes.length }), (step) => {
      const reader = new DxfReader();
      for (let at = 0; at < bytes.length; at += step) reader.push(bytes.subarray(at, at + step));
      expect(reader.finish()).toEqual(whole);
    }),
    { numRuns: 60 },
  );
});

test('after a lost line it says where, drops one entity and finds its way back', () => {
  const good = dxf({ entities: line(0, 0, 1, 1) + line(2, 2, 3, 3) + line(4, 4, 5.5, 5) + line(6, 6, 7, 7) });
  const lines = good.split('\n');
  const at = lines.indexOf('5.5');
  const reading = readText([...lines.slice(0, at - 1), ...lines.slice(at)].join('\n'));
  expect(countsOf(reading).LINE).toBe(3);
  expect(reading.account.warnings.map((warning) => warning.code)).toContain('outOfStep');
});

test('a file cut short gives what was there and a warning', () => {
  const reading = readText(
    groups([0, 'SECTION'], [2, 'ENTITIES']) + line(0, 0, 1, 1) + groups([0, 'LINE'], [8, '0'], [10, 5]),
  );
  expect(countsOf(reading)).toEqual({ LINE: 1 });
  expect(reading.account.warningCounts.noEnd).toBe(1);
});

test.each([
  ['an empty file', new Uint8Array(0), /empty: 0 bytes/],
  ['a closed binary drawing', encode('AC1032\0\0\0'.padEnd(100, '\0')), /closed format \(it begins with AC1032\)/],
  ['a picture', Uint8Array.from([0x89, 0x50, 0x4e, 0x47, 13, 10, 26, 10, ...new Array(80).fill(0)]), /PNG picture/],
  [
    'prose',
    encode('Dear colleagues, please find attached the plan of the ground floor that you asked for.'),
    /should begin with the group "0 SECTION" but begins with "Dear colleagues/,
  ],
])('%s is refused in one sentence that says what to do', (_, bytes, words) => {
  const result = readDxf(bytes);
  expect(result.ok).toBe(false);
  if (!result.ok) expect(result.message).toMatch(words);
});

test('limits are errors with a sentence: too many entities, a line without end', () => {
  const many = readDxf(encode(dxf({ entities: line(0, 0, 1, 1).repeat(20) })), { ...defaultLimits, entities: 10 });
  expect(many.ok ? '' : many.message).toMatch(/more than 10 entities/);
  const long = readDxf(encode(`0\nSECTION\n2\nENTITIES\n0\nTEXT\n1\n${'x'.repeat(5000)}`), {
    ...defaultLimits,
    lineBytes: 1000,
  });
  expect(long.ok ? '' : long.message).toMatch(/longer than 1,000 bytes/);
});

test('a drawing comes back from its bytes as it was', () => {
  const { drawing } = readText(
    dxf({ entities: line(1, 2, 3, 4) + groups([0, 'TEXT'], [8, '0'], [10, 0], [20, 0], [40, 1], [1, '\u30bd']) }),
  );
  const again = unpackDrawing(packDrawing(drawing));
  expect(again).toEqual(drawing);
  expect(() => unpackDrawing(encode('something else'))).toThrow('Expected packed columns');
});

test('mutated files end in a result or a sentence, never in a crash', () => {
  const base = encode(
    dxf({
      header: groups([9, '$ACADVER'], [1, 'AC1021']),
      blocks: block('A', line(0, 0, 1, 1) + groups([0, 'INSERT'], [2, 'A'], [10, 0], [20, 0])),
      entities:
        line(1, 2, 3, 4) +
        groups([0, 'INSERT'], [2, 'A'], [10, 0], [20, 0], [70, 30000], [71, 30000]) +
        groups([0, 'LWPOLYLINE'], [8, 'x'], [90, 2], [70, 1], [10, 1], [20, 1], [10, 1], [20, 5]),
    }),
  );
  fc.assert(
    fc.property(
      fc.array(fc.tuple(fc.nat(base.length - 1), fc.nat(255), fc.constantFrom('set', 'drop', 'double')), {
        minLength: 1,
        maxLength: 8,
      }),
      (edits) => {
        let bytes = [...base];
        for (const [at, value, how] of edits) {
          if (how === 'set') bytes[at % bytes.length] = value;
          else if (how === 'drop') bytes.splice(at % bytes.length, 1 + (value % 12));
          else bytes = [...bytes.slice(0, at), ...bytes.slice(Math.max(0, at - (value % 20)))];
        }
        const result = readDxf(Uint8Array.from(bytes));
        if (!result.ok) expect(result.message.length).toBeGreaterThan(20);
        else if (result.value.drawing.kind.length === 0)
          expect(result.value.account.warnings.length + result.value.account.leftOut.length).toBeGreaterThan(0);
      },
    ),
    { numRuns: 1500 },
  );
});

test('kinds of rows and their file names stand in step', () => {
  expect(Object.values(Kind)).toEqual(kindNames.map((_, i) => i));
  expect([kindNames[Kind.hatch], kindNames[Kind.table], kindNames[Kind.construction]]).toEqual([
    'HATCH',
    'ACAD_TABLE',
    'XLINE',
  ]);
});
