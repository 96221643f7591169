import { groundFloor } from '../../../../demo/ground';
import { asDrawn } from '@/core/datum/placement';
import { block, dxf, groups, insert, line, readText } from '@/core/drawing/testing/dxf';
import { readDxf } from '@/core/drawing/reader';
import { read } from '@/core/reading/read';
import { toleranceFor } from '@/core/patterns/settings';
import { Scene } from '@/core/reading/scene';
import { flatten } from '@/core/underlay/flatten';
import { classify } from './classify';
import { suggestLayers } from '../suggestLayers';

function looksOf(entities: string, blocks = '') {
  const { drawing } = readText(dxf({ entities, blocks }));
  const p = flatten(drawing);
  return classify(drawing, p, 1).map((look) => look?.role ?? null);
}
const circle = (x: number, y: number, r: number) => groups([0, 'CIRCLE'], [8, '0'], [10, x], [20, y], [40, r]);
const text = (x: number, y: number, words: string) =>
  groups([0, 'TEXT'], [8, '0'], [10, x], [20, y], [40, 0.3], [1, words], [72, 1], [73, 2], [11, x], [21, y]);
const square = (x: number, y: number, a: number, layer = '0') =>
  groups(
    [0, 'LWPOLYLINE'],
    [8, layer],
    [90, 4],
    [70, 1],
    ...[
      [x, y],
      [x + a, y],
      [x + a, y + a],
      [x, y + a],
    ].flatMap(([px, py]): [number, number][] => [
      [10, px],
      [20, py],
    ]),
  );

test('a ring with a label, the line that ends in it and the pieces on its run are grid; a ring without a label is not', () => {
  expect(
    looksOf(circle(0, -0.5, 0.5) + text(0, -0.5, 'A') + line(0, 0, 0, 9) + line(0, 9.4, 0, 14) + circle(5, 5, 0.7)),
  ).toEqual(['grid', 'grid', 'grid', null]);
});

test('four squares of one size are columns, three are not, and loose lines of that size are one more', () => {
  const four = [0, 6, 12, 18].map((x) => square(x, 0, 0.4)).join('');
  expect(looksOf(four)).toEqual(['column', 'column', 'column', 'column']);
  expect(looksOf([0, 6, 12].map((x) => square(x, 0, 0.4)).join(''))).not.toContain('column');
  const loose = line(24, 0, 24.4, 0) + line(24.4, 0, 24.4, 0.4) + line(24.4, 0.4, 24, 0.4) + line(24, 0.4, 24, 0.005);
  expect(looksOf(four + loose).slice(4)).toEqual(['column', 'column', 'column', 'column']);
});

test('a quarter arc with its leaf is a door, three lines between common ends a window, two beside one another a wall', () => {
  const door = groups([0, 'ARC'], [8, '0'], [10, 0], [20, 0], [40, 0.9], [50, 0], [51, 90]) + line(0, 0, 0, 0.9);
  expect(looksOf(door)).toEqual(['door', 'door']);
  expect(looksOf([0, 0.1, 0.2].map((y) => line(0, y, 1.8, y)).join(''))).toEqual(['window', 'window', 'window']);
  expect(looksOf(line(0, 0, 6, 0) + line(0, 0.2, 6, 0.2) + line(9, 5, 19, 5))).toEqual(['wall', 'wall', null]);
});

test('loose lines that close to one size four times are columns without a drawn one beside them; three times they are not', () => {
  const loose = (x: number) =>
    line(x, 0, x + 0.4, 0) + line(x + 0.4, 0, x + 0.4, 0.4) + line(x + 0.4, 0.4, x, 0.4) + line(x, 0.4, x, 0);
  expect(looksOf([0, 6, 12, 18].map(loose).join(''))).toEqual(Array.from({ length: 16 }, () => 'column'));
  expect(looksOf([0, 6, 12].map(loose).join(''))).not.toContain('column');
});

test('a block of a column\u2019s size that stands on crossings of grid lines is a column, one that stands in rooms is furniture', () => {
  const axis = (x1: number, y1: number, x2: number, y2: number, label: string) => {
    const length = Math.hypot(x2 - x1, y2 - y1);
    const [cx, cy] = [x1 - (0.5 * (x2 - x1)) / length, y1 - (0.5 * (y2 - y1)) / length];
    return line(x1, y1, x2, y2) + circle(cx, cy, 0.5) + text(cx, cy, label);
  };
  const grid = axis(0, -2, 0, 12, '1') + axis(6, -2, 6, 12, '2') + axis(-2, 0, 12, 0, 'A') + axis(-2, 8, 12, 8, 'B');
  const blocks = block('X1', square(-0.2, -0.2, 0.4)) + block('X2', square(-0.2, -0.2, 0.4));
  const posts = [
    [0, 0],
    [6, 0],
    [0, 8],
    [6, 8],
  ]
    .map(([x, y]) => insert('X1', x, y))
    .join('');
  const stools = [
    [2, 2],
    [3, 2],
    [2, 4],
    [3, 4],
  ]
    .map(([x, y]) => insert('X2', x, y))
    .join('');
  expect(looksOf(grid + posts + stools, blocks).slice(-8)).toEqual([
    'column',
    'column',
    'column',
    'column',
    'ignore',
    'ignore',
    'ignore',
    'ignore',
  ]);
});

test('a line between the middles of two jambs is a window; with faces from jamb to jamb it is a leaf of the wall', () => {
  const jambs = line(2, 0, 2, 0.3) + line(3.5, 0, 3.5, 0.3);
  expect(looksOf(jambs + line(2, 0.15, 3.5, 0.15))[2]).toBe('window');
  expect(looksOf(jambs + line(2, 0.15, 3.5, 0.15) + line(2, 0, 3.5, 0))[2]).not.toBe('window');
});

test('what comes by a block is what its name says, else furniture', () => {
  const content = (name: string) => block(name, line(0, 0, 1, 0));
  expect(looksOf(insert('DOOR-900', 0, 0) + insert('CHAIR', 5, 0), content('DOOR-900') + content('CHAIR'))).toEqual([
    'door',
    'ignore',
  ]);
});

describe('layers by name and by what is drawn on them', () => {
  const suggested = (entities: string) => {
    const { drawing } = readText(dxf({ entities }));
    return new Map(
      suggestLayers(drawing, flatten(drawing), 1).map((suggestion, i) => [drawing.layers[i].name, suggestion]),
    );
  };
  const columns = (layer: string, n: number) =>
    Array.from({ length: n }, (_, i) => square(6 * i, 0, 0.4, layer)).join('');

  test('a name that says nothing takes what the lines look like, with the reason', () => {
    expect(suggested(columns('X-17', 6)).get('X-17')).toMatchObject({
      role: 'column',
      why: ['6 of 6: 6 shapes of one size, 0.40 by 0.40 m'],
      conflict: null,
    });
  });

  test('a name and lines that say the same give two reasons; contradicting ones are pointed out and the name stands', () => {
    expect(suggested(columns('A-COLS', 9)).get('A-COLS')!.why).toHaveLength(2);
    expect(suggested(columns('A-WALL', 9)).get('A-WALL')).toMatchObject({
      role: 'wall',
      conflict: 'Its name says wall; 9 of its 9 lines look like column.',
    });
  });

  test('a layer with too little on it gets no role', () => {
    expect(suggested(line(0, 0, 5, 3, 'Y')).get('Y')).toMatchObject({ role: null, why: [] });
  });
});

test('the demo\u2019s drawing on one layer is sorted by geometry, and reads like the one on many', () => {
  const counts = (dxfText: string) => {
    const result = readDxf(new TextEncoder().encode(dxfText));
    if (!result.ok) throw new Error(result.message);
    const { drawing } = result.value;
    const p = flatten(drawing);
    const roles = suggestLayers(drawing, p, 0.001).map(({ role }) => role);
    const { candidates } = read({ scene: new Scene(drawing, p, asDrawn('mm'), roles), tolerance: toleranceFor('mm') });
    return {
      roles,
      ...Object.fromEntries(
        ['grid', 'column', 'opening', 'zone'].map((kind) => [
          kind,
          candidates.filter((candidate) => candidate.kind === kind).length,
        ]),
      ),
    };
  };
  const one = counts(groundFloor({ oneLayer: true }).dxf);
  const many = counts(groundFloor().dxf);
  expect(one).toEqual({ ...many, roles: ['mixed'] });
});
