import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { flatten } from '@/core/underlay/flatten';
import { dimensionFacts, spanOf } from '@/core/underlay/dimensionPicture';
import { eachSide } from '@/core/underlay/pieces';
import { arcOfBulge, pointOnArc } from '@/core/geometry/bulge';
import { handleOf, Kind, kindNames, stringOf, type Drawing } from './drawing';
import { packDrawing, unpackDrawing } from './packDrawing';
import { readDxf, type Reading } from './reader';

/** Drawings and expectations made by another library; see fixtures/make.py. */
const folder = join(__dirname, 'fixtures');
interface Expected {
  kind: string;
  box: [number, number, number, number];
  length: number;
}
const expected = JSON.parse(readFileSync(join(folder, 'expected.json'), 'utf8')) as Record<
  string,
  { entities: Record<string, Expected>; counts: Record<string, number> }
>;

function opened(name: string): Reading {
  const result = readDxf(readFileSync(join(folder, name)));
  if (!result.ok) throw new Error(result.message);
  return result.value;
}

/** Box and length of what each entity of the model space draws, by its handle; texts and points left out. */
function drawn(drawing: Drawing): Map<string, { box: number[]; length: number }> {
  const p = flatten(drawing, { sagitta: 0.0002 });
  const found = new Map<string, { box: number[]; length: number }>();
  eachSide(p, (path, v, next) => {
    if (v === next) return;
    const a: [number, number] = [p.xy[2 * v] + p.origin[0], p.xy[2 * v + 1] + p.origin[1]];
    const b: [number, number] = [p.xy[2 * next] + p.origin[0], p.xy[2 * next + 1] + p.origin[1]];
    const handle = handleOf(drawing, p.top[path]);
    const here =
      found.get(handle) ??
      found.set(handle, { box: [Infinity, Infinity, -Infinity, -Infinity], length: 0 }).get(handle)!;
    const arc = p.bulge[v] === 0 ? null : arcOfBulge(a, b, p.bulge[v]);
    const points = arc === null ? [a, b] : Array.from({ length: 65 }, (_, i) => pointOnArc(arc, i / 64));
    here.length += arc === null ? Math.hypot(b[0] - a[0], b[1] - a[1]) : arc.radius * Math.abs(arc.sweep);
    for (const [x, y] of points)
      here.box = [
        Math.min(here.box[0], x),
        Math.min(here.box[1], y),
        Math.max(here.box[2], x),
        Math.max(here.box[3], y),
      ];
  });
  return found;
}

const versions = Object.keys(expected);
const files = versions.flatMap((version) => [
  `${version.toLowerCase()}-ascii.dxf`,
  ...(['R12', 'R2000', 'R2018'].includes(version) ? [`${version.toLowerCase()}-binary.dxf`] : []),
]);
const versionOf = (file: string) => file.split('-')[0].toUpperCase();

test.each(files)('%s: every entity lies where the other library has it, as long as that has it', (file) => {
  const { drawing } = opened(file);
  const found = drawn(drawing);
  const wrong: string[] = [];
  for (const [handle, { kind, box, length }] of Object.entries(expected[versionOf(file)].entities)) {
    const here = found.get(handle);
    const off = here ? Math.max(...box.map((v, i) => Math.abs(v - here.box[i]))) : Infinity;
    if (!(off < 0.02) || !(Math.abs(length - here!.length) < 0.002 * length + 0.01))
      wrong.push(`${kind} ${handle}: ${JSON.stringify({ box, length })} but ${JSON.stringify(here)}`);
  }
  expect(wrong).toEqual([]);
});

test.each(files)('%s: every entity of the model space is read or left out with its reason', (file) => {
  const { drawing, account } = opened(file);
  const { counts } = expected[versionOf(file)];
  const total: Record<string, number> = {};
  for (const row of [...account.read, ...account.leftOut])
    if (row.block === drawing.model && !('reason' in row && row.reason === 'paper'))
      total[row.kind] = (total[row.kind] ?? 0) + row.count;
  const { ATTRIB: attributes, ...own } = total;
  expect(own).toEqual(counts);
  expect(attributes).toBe(4);
  expect(account.warnings).toEqual([]);
});

const latest = opened('r2018-ascii.dxf');
const textsOf = (drawing: Drawing, kind: number) =>
  [...drawing.kind.keys()]
    .filter((row) => drawing.kind[row] === kind)
    .map((row) => stringOf(drawing, drawing.numbers[drawing.at[row] + 7]));
/** The vertices of each path that a kind draws. */
const pathsOf = (drawing: Drawing, kind: number) => {
  const p = flatten(drawing);
  return [...p.kind.keys()]
    .filter((i) => p.kind[i] === kind)
    .map((i) =>
      Array.from({ length: p.start[i + 1] - p.start[i] }, (_, v) =>
        [0, 1].map((axis) => Number((p.xy[2 * (p.start[i] + v) + axis] + p.origin[axis]).toFixed(6)) + 0),
      ),
    );
};

test.each(files)('%s: letters beyond ASCII come through, by code page or UTF-8', (file) => {
  const { drawing } = opened(file);
  expect(textsOf(drawing, Kind.text)).toContain('Lagergr\u00f6\u00dfe \u00d8450');
  expect(drawing.layers.map(({ name }) => name)).toContain('W\u00e4nde');
});

test('what is left out is told with its reason: solids, a shape, an empty block, a missing reference, paper space', () => {
  const reasons = Object.fromEntries(latest.account.leftOut.map((row) => [`${row.kind} ${row.reason}`, row.count]));
  expect(reasons).toEqual({
    '3DSOLID solid': 2,
    'SHAPE shape': 1,
    'INSERT emptyBlock': 1,
    'INSERT reference': 1,
    'LINE paper': 1,
    'VIEWPORT paper': reasons['VIEWPORT paper'],
  });
  expect(latest.account.references).toEqual(
    expect.arrayContaining([
      { kind: 'drawing', path: 'site/context.dxf', name: 'context' },
      { kind: 'picture', path: 'pictures/site photo.png', name: '' },
    ]),
  );
});

test('a picture and a cover-up show their frames', () => {
  // 8 by 6 turned by 20 degrees about (60, 10): the corner across is (60 + 8 cos 20 - 6 sin 20, 10 + 8 sin 20 + 6 cos
  // 20).
  const [frame] = pathsOf(latest.drawing, Kind.image);
  expect(frame).toHaveLength(4);
  const across = [
    60 + 8 * Math.cos(Math.PI / 9) - 6 * Math.sin(Math.PI / 9),
    10 + 8 * Math.sin(Math.PI / 9) + 6 * Math.cos(Math.PI / 9),
  ];
  expect(Math.min(...frame.map(([x, y]) => Math.hypot(x - across[0], y - across[1])))).toBeLessThan(1e-4);
  const [cover] = pathsOf(latest.drawing, Kind.wipeout);
  for (const [x, y] of [
    [70, 10],
    [75, 10],
    [75, 14],
  ])
    expect(Math.min(...cover.map((p) => Math.hypot(p[0] - x, p[1] - y)))).toBeLessThan(1e-4);
});

test('leaders: their points, and the text of the one with text', () => {
  expect(pathsOf(latest.drawing, Kind.leader)).toEqual([
    [
      [0, 0],
      [3, 3],
      [6, 3],
    ],
  ]);
  expect(pathsOf(latest.drawing, Kind.multiLeader).flat()).toContainEqual([100, 100]);
  expect(textsOf(latest.drawing, Kind.multiLeaderText)).toEqual(['keep clear']);
});

test('endless lines reach across the content and a tenth beyond, rays one way', () => {
  const [line] = pathsOf(latest.drawing, Kind.construction);
  // Through (1, 1) along (1, 0.5).
  for (const [x, y] of line) expect(y - 1).toBeCloseTo((x - 1) / 2, 4);
  expect(line[1][0] - line[0][0]).toBeGreaterThan(50);
  const [ray] = pathsOf(latest.drawing, Kind.ray);
  expect(ray[0]).toEqual([2, 2]);
  expect(ray[1][0]).toBe(2);
  expect(ray[1][1]).toBeGreaterThan(40);
});

test('dimensions keep what they measure, what is written instead, and their points', () => {
  const { drawing } = latest;
  const facts = [...drawing.kind.keys()]
    .filter((row) => drawing.kind[row] === Kind.dimension)
    .map((row) => dimensionFacts(drawing, row));
  expect(facts.map(({ type }) => type)).toEqual([0, 0, 4, 5]);
  // From (0, 10) to (7, 10); and from (0, 0) to (5, 5), which that library writes as a turned one at 45 degrees.
  expect(spanOf(facts[0])).toBeCloseTo(7, 9);
  expect(spanOf(facts[1])).toBeCloseTo(5 * Math.SQRT2, 9);
  expect(facts[1].override).toBe('about <>');
});

test('line types and weights come by layer, by block and by their own', () => {
  const { drawing } = latest;
  const p = flatten(drawing);
  const dashed = [...p.kind.keys()].filter((i) => p.pens[p.pen[i]].dashes.length > 0);
  expect(dashed).toHaveLength(1);
  expect(p.pens[p.pen[dashed[0]]].dashes).toEqual([0.5, -0.1]);
  expect(kindNames[p.kind[dashed[0]]]).toBe('LINE');
});

test('packed and unpacked, a drawing is the same', () => {
  expect(unpackDrawing(packDrawing(latest.drawing))).toEqual(latest.drawing);
});
