import { area } from '@/core/geometry/polygon';
import { pathPoints } from './outlines';

const source = { handle: '1', entity: 0, layer: 0 };

test('a round slab of ten metres has the area of its circle, within what a millimetre of sagitta takes', () => {
  // Two half circles about zero.
  const circle = {
    ...source,
    source,
    points: [
      [-10, 0],
      [10, 0],
    ] as [number, number][],
    bulges: [1, 1],
    closed: true,
    circle: true,
  };
  const found = Math.abs(area(pathPoints(circle)));
  // Chords of sagitta s leave out about two thirds of s along the whole circumference.
  const least = Math.PI * 100 - ((2 / 3) * 0.001 * 2 * Math.PI * 10 + 1e-3);
  expect(found).toBeLessThan(Math.PI * 100);
  expect(found).toBeGreaterThan(least);
});
