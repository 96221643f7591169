import { shareOfWindows, windowForms, type Form } from './forms';

const bundles = (count: number, form: Form, inWall: number, last = 0) =>
  Array.from({ length: count }, (_, i) => ({ form, isInWall: i < inWall, isLast: i < last }));

const three = [0, 0.17, 0.35];
const four = [0, 0.1, 0.17, 0.35];

test('windows of three lines make none of one bundle of four, but one with a pane left out is a window', () => {
  const isWindow = windowForms([...bundles(6, three, 6), ...bundles(1, four, 1), ...bundles(1, [0, 0.35], 1)]);
  expect([three, four, [0, 0.35]].map(isWindow)).toEqual([true, false, true]);
});

test('three in four have wall beyond them, and one in ten ends where nothing goes on, at most', () => {
  expect(windowForms(bundles(20, three, 15))(three)).toBe(true);
  expect(windowForms(bundles(20, three, 14))(three)).toBe(false);
  expect(windowForms(bundles(20, three, 20, 2))(three)).toBe(true);
  expect(windowForms(bundles(20, three, 20, 3))(three)).toBe(false);
});

test('a hand is careless by a centimetre and a half across', () => {
  const isWindow = windowForms(bundles(4, three, 4));
  expect(isWindow([0, 0.18, 0.36])).toBe(true);
  expect(isWindow([0, 0.19, 0.35])).toBe(false);
});

test('the share of windows counts bundles of their form', () => {
  expect(shareOfWindows([...bundles(3, three, 3), ...bundles(9, four, 0)])).toBe(0.25);
  expect(shareOfWindows([])).toBe(0);
});
