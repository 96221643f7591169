import { flatten } from '@/core/underlay/flatten';
import { dimensionFacts } from '@/core/underlay/dimensionPicture';
import { Kind, kindNames } from './drawing';
import { readDxf } from './reader';
import { block, dxf, groups, line, readText } from './testing/dxf';

/** Kinds written by hand, group by group, with coordinates worked out by hand. */
type Group = [number, string | number];
const entity = (kind: string, ...more: Group[]) => groups([0, kind], [8, '0'], ...more);
const xy = (code: number, x: number, y: number): Group[] => [
  [code, x],
  [code + 10, y],
];

function drawn(parts: Parameters<typeof dxf>[0], sagitta?: number) {
  const { drawing, account } = readText(dxf(parts));
  const p = flatten(drawing, { sagitta });
  const at = (v: number) => [0, 1].map((axis) => Number((p.xy[2 * v + axis] + p.origin[axis]).toFixed(6)) + 0);
  const paths =
    p.layer.length === 0
      ? []
      : [...p.layer.keys()].map((i) =>
          Array.from({ length: p.start[i + 1] - p.start[i] }, (_, k) => at(p.start[i] + k)),
        );
  return { drawing, account, p, paths, texts: p.texts.map((text) => text.text) };
}

test('a multi-line is its lines: offsets along the miter, cut where its elements stop and start', () => {
  // Two elements at +1 and -1 about a line from (0,0) to (10,0); the upper one stops at 4 and starts again at 6.
  const joint = (x: number, upper: number[]): Group[] => [
    ...xy(11, x, 0),
    ...xy(12, 1, 0),
    ...xy(13, 0, 1),
    [74, upper.length],
    ...upper.map((v): Group => [41, v]),
    [75, 0],
    [74, 2],
    [41, -1],
    [41, 0],
    [75, 0],
  ];
  const { paths } = drawn({
    entities: entity(
      'MLINE',
      [2, 'STANDARD'],
      [40, 1],
      [70, 0],
      [71, 1],
      [72, 2],
      [73, 2],
      ...xy(10, 0, 0),
      ...joint(0, [1, 0, 4, 6]),
      ...joint(10, [1, 0]),
    ),
  });
  expect(paths).toEqual([
    [
      [0, 1],
      [4, 1],
    ],
    [
      [6, 1],
      [10, 1],
    ],
    [
      [0, -1],
      [10, -1],
    ],
  ]);
});

test('a table and a dimension show their blocks; a dimension without one is drawn from its points', () => {
  const blocks = block('*T1', line(0, 0, 2, 0), [0, 0]) + block('*D1', line(0, 5, 10, 5));
  const table = entity('ACAD_TABLE', [2, '*T1'], ...xy(10, 100, 50), ...xy(11, 0, 1));
  const dimension = (name: Group[]) =>
    entity(
      'DIMENSION',
      ...name,
      ...xy(10, 10, 5),
      ...xy(11, 5, 5),
      [70, 32],
      [42, 10],
      [1, 'ca. <>'],
      ...xy(13, 0, 0),
      ...xy(14, 10, 2),
      [50, 0],
    );
  const { paths, texts, drawing, p } = drawn({ blocks, entities: table + dimension([[2, '*D1']]) + dimension([]) });
  expect(paths).toEqual([
    [
      [100, 50],
      [100, 52],
    ],
    [
      [0, 5],
      [10, 5],
    ],
    [
      [0, 0],
      [0, 5],
    ],
    [
      [10, 2],
      [10, 5],
    ],
    [
      [0, 5],
      [10, 5],
    ],
  ]);
  expect(texts).toEqual(['ca. 10']);
  expect([...p.kind].map((kind) => kindNames[kind])).toEqual([
    'ACAD_TABLE',
    'DIMENSION',
    'DIMENSION',
    'DIMENSION',
    'DIMENSION',
  ]);
  const row = [...drawing.kind.keys()].find((i) => drawing.kind[i] === Kind.dimension)!;
  expect(dimensionFacts(drawing, row)).toMatchObject({
    type: 0,
    measured: 10,
    override: 'ca. <>',
    points: { 10: [10, 5], 13: [0, 0], 14: [10, 2], 15: null },
  });
});

test('an attribute definition is its tag in the plan, its value in a block where that is constant, and else nothing', () => {
  const definition = (flags: number) =>
    entity('ATTDEF', ...xy(10, 0, 0), [40, 1], [1, 'value'], [2, 'TAG'], [70, flags]);
  expect(drawn({ entities: definition(0) }).texts).toEqual(['TAG']);
  expect(
    drawn({
      blocks: block('B', definition(0) + line(0, 0, 1, 0)),
      entities: entity('INSERT', [2, 'B'], ...xy(10, 0, 0)),
    }).texts,
  ).toEqual([]);
  expect(
    drawn({ blocks: block('B', definition(2)), entities: entity('INSERT', [2, 'B'], ...xy(10, 0, 0)) }).texts,
  ).toEqual(['value']);
});

test('a polyface mesh draws each side once and hides those that it says; a face hides by bits', () => {
  const vertex = (x: number, y: number) => entity('VERTEX', ...xy(10, x, y), [70, 192]);
  const face = (...corners: number[]) =>
    entity('VERTEX', ...xy(10, 0, 0), [70, 128], ...corners.map((corner, i): Group => [71 + i, corner]));
  const mesh =
    entity('POLYLINE', [66, 1], [70, 64], [71, 4], [72, 2]) +
    vertex(0, 0) +
    vertex(4, 0) +
    vertex(4, 3) +
    vertex(0, 3) +
    face(1, 2, -3) +
    face(-1, 3, 4) +
    entity('SEQEND');
  // Sides 1-2, 2-3, 3-4, 4-1; the diagonal is hidden in both faces.
  expect(drawn({ entities: mesh }).paths).toEqual([
    [
      [0, 0],
      [4, 0],
    ],
    [
      [4, 0],
      [4, 3],
    ],
    [
      [4, 3],
      [0, 3],
    ],
    [
      [0, 3],
      [0, 0],
    ],
  ]);
  const faced = entity('3DFACE', ...xy(10, 0, 0), ...xy(11, 4, 0), ...xy(12, 4, 3), ...xy(13, 0, 3), [70, 5]);
  expect(drawn({ entities: faced }).paths).toEqual([
    [
      [4, 0],
      [4, 3],
    ],
    [
      [0, 3],
      [0, 0],
    ],
  ]);
});

test('a solid is read with its corners crossed over, a trace and a triangle too', () => {
  const corners = [...xy(10, 0, 0), ...xy(11, 4, 0), ...xy(12, 0, 3), ...xy(13, 4, 3)];
  expect(drawn({ entities: entity('SOLID', ...corners) + entity('TRACE', ...corners) }).paths).toEqual(
    Array.from({ length: 2 }, () => [
      [0, 0],
      [4, 0],
      [4, 3],
      [0, 3],
    ]),
  );
  expect(drawn({ entities: entity('SOLID', ...corners.slice(0, 6)) }).paths).toEqual([
    [
      [0, 0],
      [4, 0],
      [0, 3],
    ],
  ]);
});

test('a hatch is its loops, edges in any direction joined; a clockwise arc runs over the top', () => {
  const half = [[72, 2], ...xy(10, 5, 0), [40, 5], [50, 180], [51, 360], [73, 0]] as Group[];
  const base = [[72, 1], ...xy(10, 0, 0), ...xy(11, 10, 0)] as Group[];
  const { p, paths } = drawn({
    entities: entity(
      'HATCH',
      ...xy(10, 0, 0),
      [30, 0],
      [2, 'SOLID'],
      [70, 1],
      [71, 0],
      [91, 1],
      [92, 1],
      [93, 2],
      ...half,
      ...base,
      [97, 0],
      [75, 0],
      [76, 1],
      [98, 0],
    ),
  });
  // From (0,0) clockwise over (5,5) to (10,0), and back along the line.
  expect(paths).toEqual([
    [
      [0, 0],
      [10, 0],
    ],
  ]);
  expect(p.bulge[0]).toBeCloseTo(-1, 12);
  expect(p.bulge[1]).toBe(0);
});

test('a quadratic spline over a corner is its parabola: at the middle a quarter of the way up from the chord', () => {
  const { paths } = drawn(
    {
      entities: entity(
        'SPLINE',
        [70, 8],
        [71, 2],
        [72, 6],
        [73, 3],
        [74, 0],
        ...[0, 0, 0, 1, 1, 1].map((knot): Group => [40, knot]),
        ...xy(10, 0, 0),
        ...xy(10, 5, 10),
        ...xy(10, 10, 0),
      ),
    },
    1e-3,
  );
  // x = 10 t, y = 20 t (1 - t).
  for (const [x, y] of paths[0]) expect(y).toBeCloseTo(20 * (x / 10) * (1 - x / 10), 5);
  expect(paths[0]).toContainEqual([5, 5]);
  // A chord over dx leaves the parabola by 20 (dx / 10)^2 / 4 upright, which is less across a sloping one.
  paths[0].slice(1).forEach(([x, y], i) => {
    const [dx, dy] = [x - paths[0][i][0], y - paths[0][i][1]];
    expect(((20 * (dx / 10) ** 2) / 4) * (dx / Math.hypot(dx, dy))).toBeLessThanOrEqual(1e-3);
  });
});

test('a spline by fit points alone goes through them', () => {
  const points: [number, number][] = [
    [0, 0],
    [4, 3],
    [8, -1],
    [12, 5],
  ];
  const { paths } = drawn({
    entities: entity('SPLINE', [70, 0], [71, 3], [74, 4], ...points.flatMap(([x, y]) => xy(11, x, y))),
  });
  for (const point of points) expect(paths[0]).toContainEqual(point);
});

test('texts in Shift-JIS keep the letters whose second byte is a backslash, and older escapes for them are resolved', () => {
  const head = groups(
    [0, 'SECTION'],
    [2, 'HEADER'],
    [9, '$ACADVER'],
    [1, 'AC1015'],
    [9, '$DWGCODEPAGE'],
    [3, 'ANSI_932'],
    [0, 'ENDSEC'],
    [0, 'SECTION'],
    [2, 'ENTITIES'],
    [0, 'TEXT'],
    [8, '0'],
    [10, 0],
    [20, 0],
    [40, 1],
  );
  // The letter \u8868 is 0x95 0x5C in Shift-JIS.
  const bytes = Buffer.concat([
    Buffer.from(`${head}1\n`),
    Buffer.from([0x95, 0x5c]),
    Buffer.from(`\n${groups([0, 'ENDSEC'], [0, 'EOF'])}`),
  ]);
  const decoded = readText(bytes.toString('latin1').replace(/[\u0080-\u00ff]/g, '?'));
  expect(decoded.drawing.header.codePage).toBe('ANSI_932');
  expect(readBytes(bytes)).toEqual(['\u8868']);
  expect(drawn({ entities: entity('TEXT', ...xy(10, 0, 0), [40, 1], [1, 'A \\M+1955C B']) }).texts).toEqual([
    'A \u8868 B',
  ]);
});

function readBytes(bytes: Uint8Array): string[] {
  const result = readDxf(bytes);
  if (!result.ok) throw new Error(result.message);
  return flatten(result.value.drawing).texts.map((text) => text.text);
}

test('what lies on a frozen insert hides with it, whatever layer it has of its own', () => {
  const tables = groups([0, 'LAYER'], [2, 'COLD'], [70, 1], [62, 7], [0, 'LAYER'], [2, 'FIX'], [70, 0], [62, 5]);
  const body = groups([0, 'LINE'], [8, 'FIX'], [10, 0], [20, 0], [11, 1], [21, 0]);
  const { drawing, p } = drawn({
    tables,
    blocks: block('B', body),
    entities: groups([0, 'INSERT'], [8, 'COLD'], [2, 'B'], [10, 0], [20, 0]),
  });
  expect(drawing.layers[p.layer[0]].name).toBe('COLD');
});

test('an entity of paper space is left out, in the entities and in the blocks of other sheets', () => {
  const { account } = drawn({
    blocks: block('*Paper_Space0', line(0, 0, 1, 0)),
    entities: groups([0, 'LINE'], [67, 1], [8, '0'], [10, 0], [20, 0], [11, 1], [21, 1]) + line(0, 0, 9, 9),
  });
  expect(account.leftOut.reduce((sum, row) => sum + (row.reason === 'paper' ? row.count : 0), 0)).toBe(2);
});

test('an external reference is told by its path, and its inserts are left out with the reason', () => {
  const reference = groups(
    [0, 'BLOCK'],
    [8, '0'],
    [2, 'SITE'],
    [70, 4],
    [10, 0],
    [20, 0],
    [1, 'C:\\jobs\\site.dxf'],
    [0, 'ENDBLK'],
    [8, '0'],
  );
  const { account } = drawn({ blocks: reference, entities: entity('INSERT', [2, 'SITE'], ...xy(10, 0, 0)) });
  expect(account.references).toEqual([{ kind: 'drawing', path: 'C:\\jobs\\site.dxf', name: 'SITE' }]);
  expect(account.leftOut).toMatchObject([{ kind: 'INSERT', reason: 'reference', count: 1 }]);
});
