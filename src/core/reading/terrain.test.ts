import { asDrawn } from '@/core/datum/placement';
import { block, dxf, groups, insert, line, outline, readText } from '@/core/drawing/testing/dxf';
import { suggestRole } from '@/core/sorting/suggest';
import { flatten } from '@/core/underlay/flatten';
import { Scene } from './scene';
import { readTerrain } from './terrain/readTerrain';

const text = (x: number, y: number, words: string, layer = 'C-TOPO', height = 0.5): string =>
  groups([0, 'TEXT'], [8, layer], [10, x], [20, y], [40, height], [1, words]);
/** A line of one height from west to east that bends a little, drawn at a height. */
const contour = (y: number, z = 0, from = 0, to = 60): string =>
  groups([0, 'LWPOLYLINE'], [8, 'C-TOPO'], [90, 3], [70, 0], [38, z]) +
  [
    [from, y],
    [(from + to) / 2, y + 1],
    [to, y],
  ]
    .map(([x, v]) => groups([10, x], [20, v]))
    .join('');

function read(entities: string, { blocks = '', zero = 0 } = {}) {
  const { drawing } = readText(dxf({ entities, blocks }));
  const roles = drawing.layers.map(({ name }) => suggestRole(name)?.role ?? null);
  return readTerrain(new Scene(drawing, flatten(drawing), asDrawn('m'), roles), zero);
}
const heights = ({ candidates }: ReturnType<typeof read>) =>
  candidates.map(({ element: { points, elevation } }) => [points.length, points[0][1], elevation]);

test('lines that lie at their height have it, whatever is written near them', () => {
  const found = read(contour(0, 101.5) + contour(10, 102) + text(30, 1, '7'));
  expect(heights(found)).toEqual([
    [3, 0, 101.5],
    [3, 10, 102],
  ]);
  expect(found.candidates[0].evidence[0].text).toBe('it lies at its height in the drawing');
  expect(found.unread).toEqual([]);
});

test('a number on a layer of everything is no height of the ground', () => {
  const { drawing } = readText(dxf({ entities: text(3, 4, '12.50') + line(0, 0, 20, 0, 'C-TOPO') }));
  const roles = drawing.layers.map(() => 'mixed' as const);
  expect(readTerrain(new Scene(drawing, flatten(drawing), asDrawn('m'), roles)).candidates).toEqual([]);
  // On a layer of the ground it is one.
  expect(heights(read(text(3, 4, '12.50')))).toEqual([[1, expect.any(Number), 12.5]]);
});

test('a height is written on a line, or in a gap of it, and goes on along its pieces', () => {
  const found = read(
    contour(0) +
      text(29.5, 0.8, '1.50') +
      contour(20, 0, 0, 28) +
      text(28.3, 19.8, '2.50') +
      contour(20, 0, 30, 60) +
      contour(20, 0, 60, 90),
  );
  expect(heights(found)).toEqual([
    [3, 0, 1.5],
    [3, 20, 2.5],
    [3, 20, 2.5],
    [3, 20, 2.5],
  ]);
});

test('lines between two that have a height are counted; beyond the last they are told', () => {
  const lines = [0, 10, 20, 30, 40, 50, 60].map((y) => contour(y)).join('');
  const found = read(lines + text(29.5, 0.8, '100') + text(29.5, 50.8, '105'));
  expect(heights(found).map(([, y, z]) => [y, z])).toEqual([
    [0, 100],
    [10, 101],
    [20, 102],
    [30, 103],
    [40, 104],
    [50, 105],
  ]);
  expect(found.candidates[2]).toMatchObject({ doubt: 'counted between 100.00 and 105.00' });
  expect(found.unread.map(({ why }) => why)).toEqual(['a line without a height, or one beside it that has one']);
});

test('spot heights stand beside a cross, a block or by themselves; a number among notes is none', () => {
  const cross = line(9.8, 5, 10.2, 5, 'C-TOPO') + line(10, 4.8, 10, 5.2, 'C-TOPO');
  const blocks = block(
    'SPOT',
    outline(
      [
        [-0.1, -0.1],
        [0.1, -0.1],
        [0, 0.1],
      ],
      '0',
    ),
  );
  const found = read(
    cross +
      text(10.4, 5.1, '+3.25', 'A-TEXT') +
      insert('SPOT', 30, 5, [], 'C-TOPO') +
      text(30.3, 5, '\u22120,40') +
      text(50, 5, '4.125') +
      text(50, 9, '17.5', 'A-TEXT'),
    { blocks },
  );
  expect(found.candidates.map(({ element: { points, elevation } }) => [points.length, elevation])).toEqual([
    [1, 3.25],
    [1, -0.4],
    [1, 4.125],
  ]);
  expect(found.candidates[0].element.points[0]).toEqual([10, 5].map((value) => expect.closeTo(value, 6)));
  expect(found.candidates.map(({ doubt }) => doubt === null)).toEqual([true, true, false]);
});

test('heights above the zero of a survey are told in the project, those of the project as they are', () => {
  const found = read(contour(0, 431.5) + contour(10, 0.5), { zero: 430 });
  expect(heights(found).map(([, , z]) => z)).toEqual([1.5, 0.5]);
});

test('layers of the ground are known by their names; a French outline is none', () => {
  expect(
    ['C-TOPO', 'SITE_CONTOURS', 'Gel\u00e4nde', 'H\u00f6henlinien'].map((name) => suggestRole(name)?.role),
  ).toEqual(Array.from({ length: 4 }, () => 'terrain'));
  expect(suggestRole('CONTOUR_DALLE')?.role).toBe('slab');
});
