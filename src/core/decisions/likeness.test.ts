import type { Wall } from '@/core/kinds/wall';
import { readsAlike, valuesOf } from './likeness';

const wall: Wall = { start: [0, 0], end: [5, 0], thickness: 0.2, height: null, bulge: 0, outer: false };

test('a shape reads alike within a tenth of a millimetre, and not beyond', () => {
  expect(readsAlike({ ...wall, end: [5.00009, 0] }, valuesOf(wall))).toBe(true);
  expect(readsAlike({ ...wall, end: [5.0002, 0] }, valuesOf(wall))).toBe(false);
  expect(readsAlike({ ...wall, outer: true }, valuesOf(wall))).toBe(false);
});

test('whether a wall carries follows from others, and is no other reading of it', () => {
  expect(readsAlike({ ...wall, bearing: true }, valuesOf(wall))).toBe(true);
  expect(readsAlike(wall, valuesOf({ ...wall, bearing: false }))).toBe(true);
});
