import { lookAtBox, nearerBy, orbitBy, projectionOf, slideBy, type Orbit } from './orbit';

const size = { width: 800, height: 400 };
const seen = (orbit: Orbit, [x, y, z]: [number, number, number]) => {
  const { toX, toY } = projectionOf(orbit, size);
  return [toX, toY].map((row) => Number((row[0] * x + row[1] * y + row[2] * z + row[3]).toFixed(9)) + 0);
};
const above: Orbit = { turn: 0, tilt: Math.PI / 2, x: 0, y: 0, z: 0, metresPerPixel: 1 };

test('from straight above the stack is the plan: 400 m to the right is the edge of 800 pixels', () => {
  expect(seen(above, [400, 0, 0])).toEqual([1, 0]);
  expect(seen(above, [0, 200, 0])).toEqual([0, 1]);
  // Heights are not seen.
  expect(seen(above, [10, 20, 99])).toEqual(seen(above, [10, 20, 0]));
});

test('tilted to 30 degrees, depths shrink to a half and heights to the cosine', () => {
  const tilted = { ...above, tilt: Math.PI / 6 };
  expect(seen(tilted, [0, 200, 0])[1]).toBeCloseTo(0.5, 9);
  expect(seen(tilted, [0, 0, 200])[1]).toBeCloseTo(Math.cos(Math.PI / 6), 9);
});

test('a quarter turn puts y to the left', () => {
  expect(seen({ ...above, turn: -Math.PI / 2 }, [0, 400, 0])).toEqual([-1, 0]);
});

test('sliding moves what is seen by as many pixels, and coming nearer keeps the middle', () => {
  const orbit: Orbit = { turn: 0.7, tilt: 0.9, x: 3, y: 4, z: 5, metresPerPixel: 0.1 };
  const before = seen(orbit, [3, 4, 5]);
  const after = seen(slideBy(orbit, 40, 0), [3, 4, 5]);
  expect(before).toEqual([0, 0]);
  expect(after[0]).toBeCloseTo(40 / 400, 9);
  expect(seen(nearerBy(orbit, 2), [3, 4, 5])).toEqual([0, 0]);
  expect(orbitBy(orbit, 0, 1e6).tilt).toBe(Math.PI / 2);
});

test('a box is shown whole', () => {
  const box = [-10, 0, -3, 40, 20, 12] as const;
  const orbit = lookAtBox(box, size);
  for (let corner = 0; corner < 8; corner += 1)
    for (const value of seen(orbit, [box[corner & 1 ? 3 : 0], box[corner & 2 ? 4 : 1], box[corner & 4 ? 5 : 2]]))
      expect(Math.abs(value)).toBeLessThan(1);
});
