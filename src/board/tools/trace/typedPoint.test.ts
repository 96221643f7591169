import { TypedPoint, type TypingAxes } from './typedPoint';

const axes: TypingAxes = { origin: [10, 0], angle: Math.PI / 2 };
const plain: TypingAxes = { origin: [0, 0], angle: 0 };
const rounded = (p: readonly number[]) => p.map((v) => Number(v.toFixed(9)) + 0);
const shown = (point: TypedPoint, at: readonly [number, number], base: readonly [number, number] | null, by = plain) =>
  point.fields(at, base, by).map(({ label, value, typed }) => [label, Number(value!.toFixed(6)) + 0, typed]);

test('the first point is told by its coordinates along the axes, and what is typed of it stays', () => {
  const point = new TypedPoint();
  expect(shown(point, [3, 4], null)).toEqual([
    ['east', 3, false],
    ['north', 4, false],
  ]);
  point.set('east', 5);
  expect(point.place([3, 4], null, plain)).toEqual([5, 4]);
  // Axes a quarter round about (10, 0): their x runs up, their y to the left.
  expect(shown(new TypedPoint(), [8, 3], null, axes)).toEqual([
    ['east', 3, false],
    ['north', 2, false],
  ]);
});

test('the next is told by length and turn from the last: a length keeps the direction, a turn the distance along it', () => {
  const point = new TypedPoint();
  // From (1, 1) to (4, 5): 5 m at 53.13 degrees.
  expect(shown(point, [4, 5], [1, 1])).toEqual([
    ['length', 5, false],
    ['turned', 0.927295, false],
  ]);
  point.set('length', 10);
  expect(rounded(point.place([4, 5], [1, 1], plain))).toEqual([7, 9]);
  point.set('turned', 0);
  expect(rounded(point.place([4, 5], [1, 1], plain))).toEqual([11, 1]);
  point.set('length', null);
  expect(rounded(point.place([4, 5], [1, 1], plain))).toEqual([4, 1]);
  // Where the pointer is still on the last point a length goes along the axes.
  const still = new TypedPoint();
  still.set('length', 2);
  expect(rounded(still.place([1, 1], [1, 1], axes))).toEqual([1, 3]);
});

test('it turns to two distances and to coordinates; what was typed in another way is dropped', () => {
  const point = new TypedPoint();
  point.set('length', 10);
  point.turn([1, 1]);
  expect([point.form, point.typed]).toEqual(['across and up', false]);
  point.set('across', 2);
  point.set('up', -1);
  expect(point.place([9, 9], [1, 1], plain)).toEqual([3, 0]);
  point.turn([1, 1]);
  expect(shown(point, [4, 5], [1, 1])[0]).toEqual(['east', 4, false]);
  point.turn([1, 1]);
  expect(point.form).toBe('length and turn');
  // There is nothing to turn to before there is a point.
  point.turn(null);
  expect(point.form).toBe('length and turn');
});
