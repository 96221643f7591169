import { block, dxf, groups, insert, line, readText } from '@/core/drawing/testing/dxf';
import { flatten } from './flatten';
import { blockUses, layerPictures } from './smallPictures';

const square = (side: number) =>
  line(0, 0, side, 0) + line(side, 0, side, side) + line(side, side, 0, side) + line(0, side, 0, 0);

test('each layer has the lines on it, strays far away left out, a text as its box', () => {
  const many = Array.from({ length: 40 }, (_, i) => line(i, 0, i, 10, 'A')).join('');
  const { drawing } = readText(
    dxf({
      entities:
        many +
        line(90_000, 0, 90_001, 0, 'A') +
        line(0, 5, 40, 5, 'B') +
        groups([0, 'TEXT'], [8, 'C'], [10, 5], [20, 5], [40, 1], [1, 'Lab']),
    }),
  );
  const p = flatten(drawing);
  const of = (name: string) =>
    layerPictures(p, drawing.layers.length)[drawing.layers.findIndex((layer) => layer.name === name)];
  expect([of('A').length / 4, of('B').length / 4, of('C').length / 4]).toEqual([40, 1, 4]);
  // 40 upright lines of 10: no coordinate of the stray is there.
  expect(Math.max(...of('A')) + Math.max(...p.origin)).toBeLessThan(1000);
});

test('a layer with very many lines is shown by some of them, a layer that is only a stray by itself', () => {
  const entities =
    Array.from({ length: 900 }, (_, i) => line(i, 0, i, 10, 'A')).join('') + line(9e6, 0, 9e6 + 1, 0, 'FAR');
  const { drawing } = readText(dxf({ entities }));
  const pictures = layerPictures(flatten(drawing), drawing.layers.length);
  const count = (name: string) => pictures[drawing.layers.findIndex((layer) => layer.name === name)].length / 4;
  expect(count('A')).toBeGreaterThan(100);
  expect(count('A')).toBeLessThanOrEqual(160);
  expect(count('FAR')).toBe(1);
});

test('blocks by the places they stand at, nested ones too, each with one picture of itself', () => {
  const blocks =
    block('POST', square(0.4)) +
    block('PAIR', insert('POST', 0, 0) + insert('POST', 3, 0)) +
    block('UNUSED', square(1));
  const { drawing } = readText(
    dxf({
      blocks,
      entities: insert('POST', 10, 0) + insert('POST', 20, 0) + insert('PAIR', 0, 10) + line(0, 0, 30, 20),
    }),
  );
  expect(
    blockUses(drawing, flatten(drawing)).map(({ name, places, lines }) => [name, places, lines.length / 4]),
  ).toEqual([
    ['POST', 3, 4],
    ['PAIR', 1, 8],
  ]);
});
