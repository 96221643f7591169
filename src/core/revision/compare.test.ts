import { block, dxf, groups, readText } from '@/core/drawing/testing/dxf';
import { compareDrawings } from './compare';

const at = (handle: string, x: number, layer = 'W') =>
  groups([0, 'LINE'], [5, handle], [8, layer], [10, x], [20, 0], [11, x], [21, 5]);
const insert = (handle: string, name: string) =>
  groups([0, 'INSERT'], [5, handle], [8, 'F'], [2, name], [10, 1], [20, 1]);
const compare = (earlier: string, later: string, blocks: [string, string] = ['', '']) =>
  compareDrawings(
    readText(dxf({ entities: earlier, blocks: blocks[0] })).drawing,
    readText(dxf({ entities: later, blocks: blocks[1] })).drawing,
  );

test('what stays, moves, comes and goes is told by layer, matched by handle', () => {
  const { layers, total } = compare(
    at('1', 0) + at('2', 1) + at('3', 2) + at('4', 3, 'X'),
    at('1', 0) + at('2', 1.5) + at('9', 7) + at('4', 3, 'X'),
  );
  expect(layers).toEqual([
    { layer: 'W', came: 1, went: 1, changed: 1, same: 1 },
    { layer: 'X', came: 0, went: 0, changed: 0, same: 1 },
  ]);
  expect(total).toEqual({ came: 1, went: 1, changed: 1, same: 2 });
});

test('a file written anew, with other handles and the last digits rounded, is the same', () => {
  expect(
    compare(at('A', 1 / 3) + at('B', 2) + at('C', 2), at('1', 0.33333333333) + at('2', 2) + at('3', 2)).total,
  ).toEqual({ came: 0, went: 0, changed: 0, same: 3 });
});

test('a handle given to another kind or layer does not make a change of the two', () => {
  expect(compare(at('1', 0), at('1', 5, 'OTHER')).total).toEqual({ came: 1, went: 1, changed: 0, same: 0 });
});

test('an insert changes with what its block holds, and a text with its words', () => {
  const chair = (x: number) => block('CHAIR', groups([0, 'LINE'], [8, '0'], [10, 0], [20, 0], [11, x], [21, 0]));
  expect(compare(insert('5', 'CHAIR'), insert('5', 'CHAIR'), [chair(1), chair(2)]).total).toMatchObject({
    changed: 1,
    same: 0,
  });
  expect(compare(insert('5', 'CHAIR'), insert('5', 'CHAIR'), [chair(1), chair(1)]).total).toMatchObject({
    changed: 0,
    same: 1,
  });
  const text = (words: string) => groups([0, 'TEXT'], [5, '7'], [8, 'T'], [10, 0], [20, 0], [40, 1], [1, words]);
  expect(compare(text('Dry Lab'), text('Wet Lab')).changed).toEqual([{ from: 0, to: 0 }]);
});
