import { dxf, groups, line, readText } from '@/core/drawing/testing/dxf';
import { plainDisplay } from './display';
import { flatten } from './flatten';
import { outlineOf } from './outline';
import { buildSegments, pixelsOfWeight } from './segments';
import { centreOfText, textBox } from './textBox';
import type { TextPrimitive } from './primitives';
import * as v from 'valibot';
import { displaySchema } from './display';

const linetype = (name: string, ...dashes: number[]) =>
  groups([0, 'LTYPE'], [2, name], [70, 0], [73, dashes.length], ...dashes.map((dash): [number, number] => [49, dash]));
const layer = (name: string, ...more: [number, string | number][]) =>
  groups([0, 'LAYER'], [2, name], [70, 0], [62, 7], ...more);
const typed = (type: string, scale: number, x2: number) =>
  groups([0, 'LINE'], [8, 'A'], [6, type], [48, scale], [10, 0], [20, 0], [11, x2], [21, 0]);
const primitivesOf = (parts: Parameters<typeof dxf>[0]) => flatten(readText(dxf(parts)).drawing);
/** Segments in the order along x. */
const runs = (store: { xy: Float32Array; layer: Uint16Array }, shift: number) =>
  Array.from({ length: store.layer.length }, (_, i) =>
    [store.xy[4 * i] + shift, store.xy[4 * i + 2] + shift].map((x) => Math.round(x * 1000) / 1000),
  ).sort((a, b) => a[0] - b[0]);

test('a dashed line is its dashes, scaled by the drawing and by its own factor, running on round corners', () => {
  const header = groups([9, '$LTSCALE'], [40, 2]);
  const p = primitivesOf({ header, tables: linetype('D', 1, -0.5), entities: typed('D', 1, 10) });
  // 2 drawn, 1 left out: 0-2, 3-5, 6-8, 9-10.
  expect(runs(buildSegments(p, true), p.origin[0])).toEqual([
    [0, 2],
    [3, 5],
    [6, 8],
    [9, 10],
  ]);
  expect(buildSegments(p).layer.length).toBe(1);
  const half = primitivesOf({ header, tables: linetype('D', 1, -0.5), entities: typed('D', 0.5, 6) });
  expect(runs(buildSegments(half, true), half.origin[0])).toEqual([
    [0, 1],
    [1.5, 2.5],
    [3, 4],
    [4.5, 5.5],
  ]);
  const corner = groups(
    [0, 'LWPOLYLINE'],
    [8, 'A'],
    [6, 'D'],
    [90, 3],
    [70, 0],
    [10, 0],
    [20, 0],
    [10, 1.5],
    [20, 0],
    [10, 1.5],
    [20, 3],
  );
  const bent = primitivesOf({
    header: groups([9, '$LTSCALE'], [40, 1]),
    tables: linetype('D', 2, -1),
    entities: corner,
  });
  // 1.5 along x and 0.5 up are one dash; it starts again at 1.5 up.
  expect(buildSegments(bent, true).layer.length).toBe(3);
});

test('line types and weights come from the layer, the entity or the block, and the default is thin', () => {
  const tables = linetype('D', 1, -1) + layer('A', [6, 'D'], [370, 100]) + layer('B');
  const body = groups([0, 'LINE'], [8, 'B'], [6, 'BYBLOCK'], [370, -2], [10, 0], [20, 0], [11, 5], [21, 0]);
  const blocks =
    groups([0, 'BLOCK'], [8, '0'], [2, 'X'], [70, 0], [10, 0], [20, 0]) + body + groups([0, 'ENDBLK'], [8, '0']);
  const insert = groups([0, 'INSERT'], [8, 'B'], [6, 'D'], [370, 50], [2, 'X'], [10, 0], [20, 0]);
  const p = primitivesOf({ tables, blocks, entities: line(0, 0, 5, 0, 'A') + line(0, 1, 5, 1, 'B') + insert });
  expect([...p.pen].map((pen) => p.pens[pen])).toEqual([
    { dashes: [1, -1], weight: 100 },
    { dashes: [], weight: -3 },
    { dashes: [1, -1], weight: 50 },
  ]);
  expect([...buildSegments(p).weight].sort()).toEqual([1, 2, 4]);
  expect([-3, 0, 13, 25, 50, 100, 211].map(pixelsOfWeight)).toEqual([1, 1, 1, 1, 2, 4, 5]);
});

test('an outline has the sides of the paths asked for and the boxes of the texts', () => {
  const p = primitivesOf({
    entities:
      line(0, 0, 5, 0) + line(0, 9, 5, 9) + groups([0, 'TEXT'], [8, '0'], [10, 20], [20, 0], [40, 2], [1, 'abcde']),
  });
  const lines = outlineOf(p, [1], [0]);
  expect(lines.length).toBe(4 * (1 + 4));
  expect(lines[1] + p.origin[1]).toBe(9);
});

const text: TextPrimitive = {
  x: 0,
  y: 0,
  height: 2,
  angle: 0,
  widthFactor: 1,
  mirrored: false,
  across: 0,
  up: 0,
  text: 'abcde',
  layer: 0,
  colour: 0,
  kind: 4,
  chain: 0,
  entity: 0,
  top: 0,
};

test('the box of a text: five letters of 0.6 of a height of 2 are 6 wide; turned, centred and mirrored it follows', () => {
  expect(textBox(text)).toEqual([
    [0, 0],
    [6, 0],
    [6, 2],
    [0, 2],
  ]);
  expect(textBox({ ...text, across: 2, up: 3 })).toEqual([
    [-6, -2],
    [0, -2],
    [0, 0],
    [-6, 0],
  ]);
  const turned = textBox({ ...text, angle: Math.PI / 2 }).map((p) =>
    p.map((value) => Math.round(value * 1e9) / 1e9 + 0),
  );
  expect(turned).toEqual([
    [0, 0],
    [0, 6],
    [-2, 6],
    [-2, 0],
  ]);
  expect(centreOfText({ ...text, across: 1, up: 2 })).toEqual([0, 0]);
  expect(centreOfText({ ...text, mirrored: true })).toEqual([3, -1]);
  // Two lines of a text whose first line stands on the base line: the second hangs below.
  expect(textBox({ ...text, text: 'ab\ncd' })[0][1]).toBeCloseTo(2 - 2 * 2.6, 12);
});

test('a display is taken within its limits only', () => {
  expect(v.is(displaySchema, plainDisplay)).toBe(true);
  for (const part of [
    { fade: 1 },
    { fade: -0.1 },
    { colours: 'rainbow' },
    { layerColours: { A: 'red' } },
    { levels: 'some' },
  ])
    expect(v.is(displaySchema, { ...plainDisplay, ...part })).toBe(false);
});
