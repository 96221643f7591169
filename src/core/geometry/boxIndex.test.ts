import fc from 'fast-check';
import { BoxIndex, boxOf, type Box } from './boxIndex';

test('the box of three points with a margin', () => {
  expect(
    boxOf(
      [
        [1, 5],
        [-2, 0],
        [3, 2],
      ],
      0.5,
    ),
  ).toEqual([-2.5, -0.5, 3.5, 5.5]);
});

test('what touches a box is what a look at every one finds; of nothing there is nothing', () => {
  expect(new BoxIndex<Box>([], (box) => box).around([0, 0], 9)).toEqual([]);
  const number = fc.integer({ min: -20, max: 20 });
  const box = fc.tuple(number, number, fc.nat(6), fc.nat(6)).map(([x, y, w, h]): Box => [x, y, x + w, y + h]);
  fc.assert(
    fc.property(fc.array(box, { maxLength: 40 }), box, (items, asked) => {
      const index = new BoxIndex(items, (item) => item);
      const touches = (b: Box) => b[0] <= asked[2] && b[2] >= asked[0] && b[1] <= asked[3] && b[3] >= asked[1];
      expect(index.indices(asked).sort((a, b) => a - b)).toEqual(
        items.flatMap((item, i) => (touches(item) ? [i] : [])),
      );
    }),
  );
});
