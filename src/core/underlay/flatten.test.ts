import { block, dxf, groups, insert, line, readText } from '@/core/drawing/testing/dxf';
import { defaultLimits } from '@/core/drawing/limits';
import { adaptColour, colourOfIndex } from './colours';
import { flatten } from './flatten';
import { ink, PathFlag, pathCount, type Primitives } from './primitives';

const vertices = (p: Primitives, path: number) =>
  Array.from({ length: p.start[path + 1] - p.start[path] }, (_, i): [number, number] => [
    p.xy[2 * (p.start[path] + i)] + p.origin[0],
    p.xy[2 * (p.start[path] + i) + 1] + p.origin[1],
  ]);
const expectPoints = (found: number[][], expected: number[][]) => {
  expect(found.flat().map((v) => Number(v.toFixed(9)) + 0)).toEqual(expected.flat());
};

test('a block is moved by its base point, scaled, turned and set down, in that order', () => {
  // (3,0)-(1,1)base = (2,-1), times (2,3) = (4,-3), a quarter turn = (3,4), at (10,20) = (13,24).
  const { drawing } = readText(
    dxf({
      blocks: block('B', line(1, 1, 3, 0), [1, 1]),
      entities: insert('B', 10, 20, [
        [41, 2],
        [42, 3],
        [50, 90],
      ]),
    }),
  );
  expectPoints(vertices(flatten(drawing), 0), [
    [10, 20],
    [13, 24],
  ]);
});

test('blocks in blocks multiply, and a mirrored insert turns bulges over', () => {
  const bulged = groups([0, 'LWPOLYLINE'], [8, '0'], [90, 2], [70, 0], [10, 0], [20, 0], [42, 1], [10, 2], [20, 0]);
  const { drawing } = readText(
    dxf({
      blocks: block('IN', bulged) + block('OUT', insert('IN', 1, 0, [[41, -1]])),
      entities: insert('OUT', 5, 5, [
        [41, 2],
        [42, 2],
      ]),
    }),
  );
  const p = flatten(drawing);
  expectPoints(vertices(p, 0), [
    [7, 5],
    [3, 5],
  ]);
  expect(p.bulge[0]).toBe(-1);
});

test('an insert drawn from behind (0, 0, -1) stands at minus x', () => {
  const { drawing } = readText(
    dxf({
      blocks: block('B', line(0, 0, 1, 2)),
      entities: insert('B', 5, 1, [
        [210, 0],
        [220, 0],
        [230, -1],
      ]),
    }),
  );
  expectPoints(vertices(flatten(drawing), 0), [
    [-5, 1],
    [-6, 3],
  ]);
});

test('an array of inserts is laid out along its own turned axes', () => {
  const { drawing } = readText(
    dxf({
      blocks: block('B', groups([0, 'POINT'], [8, '0'], [10, 0], [20, 0])),
      entities: insert('B', 0, 0, [
        [50, 90],
        [70, 2],
        [71, 3],
        [44, 10],
        [45, 1],
      ]),
    }),
  );
  const p = flatten(drawing);
  const places = Array.from({ length: pathCount(p) }, (_, i) =>
    vertices(p, i)[0]
      .map((v) => Math.round(v) + 0)
      .join(),
  ).sort();
  expect(places).toEqual(['-1,0', '-1,10', '-2,0', '-2,10', '0,0', '0,10'].sort());
});

test('layer 0 and by-block colour inside a block take those of the insert', () => {
  const tables = groups([0, 'LAYER'], [2, 'COLS'], [70, 0], [62, 1], [0, 'LAYER'], [2, 'FIX'], [70, 0], [62, 5]);
  const body =
    line(0, 0, 1, 0) +
    groups([0, 'LINE'], [8, 'FIX'], [10, 0], [20, 0], [11, 1], [21, 0]) +
    groups([0, 'LINE'], [8, '0'], [62, 0], [10, 0], [20, 0], [11, 1], [21, 0]);
  const { drawing } = readText(
    dxf({ tables, blocks: block('B', body), entities: insert('B', 0, 0, [[62, 3]], 'COLS') }),
  );
  const p = flatten(drawing);
  expect([...p.layer].map((i) => drawing.layers[i].name)).toEqual(['COLS', 'FIX', 'COLS']);
  expect([...p.colour]).toEqual([0xff0000, 0x0000ff, 0x00ff00]);
});

test('a circle stays a circle under even scale and becomes an ellipse of chords under an uneven one', () => {
  const circle = groups([0, 'CIRCLE'], [8, '0'], [10, 0], [20, 0], [40, 1]);
  const even = flatten(
    readText(
      dxf({
        blocks: block('B', circle),
        entities: insert('B', 0, 0, [
          [41, 3],
          [42, 3],
        ]),
      }),
    ).drawing,
  );
  expect(even.flags[0]).toBe(PathFlag.closed | PathFlag.circle);
  expect(Math.hypot(even.xy[0] - even.xy[2], even.xy[1] - even.xy[3])).toBeCloseTo(6, 9);
  const uneven = flatten(readText(dxf({ blocks: block('B', circle), entities: insert('B', 0, 0, [[41, 3]]) })).drawing);
  expect(uneven.flags[0]).toBe(PathFlag.closed);
  for (const [x, y] of vertices(uneven, 0)) expect((x / 3) ** 2 + y ** 2).toBeCloseTo(1, 9);
});

test('a block that inserts itself, directly or round a ring, is followed once and told', () => {
  const { drawing } = readText(
    dxf({
      blocks: block('A', line(0, 0, 1, 0) + insert('B', 0, 0)) + block('B', insert('A', 0, 0)),
      entities: insert('A', 0, 0),
    }),
  );
  const p = flatten(drawing);
  expect([pathCount(p), p.limits.recursion]).toEqual([1, 1]);
});

test('an insert that comes to more parts than one may is left out and counted; the rest is drawn', () => {
  const array = (columns: number, rows: number) =>
    insert('B', 0, 0, [
      [70, columns],
      [71, rows],
      [44, 1],
      [45, 1],
    ]);
  const { drawing } = readText(
    dxf({ blocks: block('B', line(0, 0, 1, 0)), entities: array(30000, 30000) + array(20, 30) + line(5, 5, 6, 6) }),
  );
  const p = flatten(drawing);
  expect(pathCount(p)).toBe(601);
  // A block and its line each time.
  expect(p.limits.expansions.map(({ block: name, parts }) => [name, parts])).toEqual([['B', 1.8e9]]);
  // Many inserts that are each within what one may come to still end at the limit of all.
  const few = flatten(drawing, { limits: { ...defaultLimits, primitives: 100 } });
  expect(few.limits.primitives).toBe(true);
  expect(pathCount(few)).toBeGreaterThan(90);
  expect(pathCount(few)).toBeLessThanOrEqual(100);
});

test('nesting that multiplies is counted, though nothing visible is at the bottom', () => {
  // Thirty levels of two inserts each: 2 ** 29 texts that nobody sees, and the inserts on the way.
  const levels = Array.from({ length: 30 }, (_, i) =>
    block(
      `N${i}`,
      i === 0
        ? groups([0, 'TEXT'], [8, '0'], [60, 1], [10, 0], [20, 0], [40, 1], [1, 'x'])
        : insert(`N${i - 1}`, 0, 0).repeat(2),
    ),
  ).join('');
  const { limits } = flatten(readText(dxf({ blocks: levels, entities: insert('N29', 0, 0) })).drawing);
  // w(0) = 1, w(n) = 2 (1 + w(n - 1)) = 3 * 2 ** n - 2; the outermost insert is one more.
  expect(limits.expansions.map(({ parts }) => parts)).toEqual([3 * 2 ** 29 - 1]);
});

test('coordinates eighty kilometres out lose nothing about the local origin', () => {
  const { drawing } = readText(dxf({ entities: line(80000123.25, 5400456.5, 80000123.75, 5400456.5) }));
  const p = flatten(drawing);
  expect(new Float32Array(p.xy)).toEqual(Float32Array.from(p.xy));
  expect(p.xy[2] - p.xy[0]).toBe(0.5);
});

test('texts go through the map of their block, mirrored ones marked', () => {
  const text = groups([0, 'TEXT'], [8, '0'], [10, 1], [20, 0], [40, 2], [1, 'W'], [50, 0]);
  const [word] = flatten(
    readText(
      dxf({
        blocks: block('B', text),
        entities: insert('B', 0, 0, [
          [41, -3],
          [42, 3],
          [50, 90],
        ]),
      }),
    ).drawing,
  ).texts;
  expect(word.height).toBeCloseTo(6, 9);
  expect(word.mirrored).toBe(true);
  expect(Math.abs(word.angle + Math.PI / 2)).toBeLessThan(1e-9);
});

test('colours: the index by hue and brightness, made readable on both grounds', () => {
  expect([colourOfIndex(1), colourOfIndex(7), colourOfIndex(10), colourOfIndex(90), colourOfIndex(170)]).toEqual([
    0xff0000,
    ink,
    0xff0000,
    0x00ff00,
    0x0000ff,
  ]);
  expect(adaptColour(ink, false, 0x123456)).toBe(0x123456);
  const luminance = (rgb: number) =>
    [16, 8, 0]
      .map((s) => ((rgb >> s) & 255) / 255)
      .map((v) => (v <= 0.04045 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4))
      .reduce((sum, v, i) => sum + v * [0.2126, 0.7152, 0.0722][i], 0);
  for (let index = 1; index < 256; index += 1) {
    expect(1.05 / (luminance(adaptColour(colourOfIndex(index), false, 0x1f2d36)) + 0.05)).toBeGreaterThan(2.9);
    expect((luminance(adaptColour(colourOfIndex(index), true, 0xe8e3d6)) + 0.05) / 0.059).toBeGreaterThan(2.9);
  }
});
