import { lookAtBox, nearerBy, orbitBy, projectionOf, rayThrough, slideBy, standardViews, type Orbit } from './orbit';

const size = { width: 800, height: 400 };
const reach = 1000;
const seen = (orbit: Orbit, [x, y, z]: readonly number[]) => {
  const { toX, toY, toZ } = projectionOf(orbit, size, reach);
  return [toX, toY, toZ].map((row) => Number((row[0] * x + row[1] * y + row[2] * z + row[3]).toFixed(9)) + 0);
};
const above: Orbit = { turn: 0, tilt: Math.PI / 2, x: 0, y: 0, z: 0, metresPerPixel: 1 };

test('from straight above the model is the plan: 400 m to the right is the edge of 800 pixels', () => {
  expect(seen(above, [400, 0, 0])).toEqual([1, 0, 0]);
  expect(seen(above, [0, 200, 0])).toEqual([0, 1, 0]);
  // Heights only come nearer.
  expect(seen(above, [10, 20, 100]).slice(0, 2)).toEqual(seen(above, [10, 20, 0]).slice(0, 2));
  expect(seen(above, [0, 0, 100])[2]).toBeCloseTo(-0.1, 9);
});

test('tilted to 30 degrees, depths shrink to a half and heights to the cosine', () => {
  const tilted = { ...above, tilt: Math.PI / 6 };
  expect(seen(tilted, [0, 200, 0])[1]).toBeCloseTo(0.5, 9);
  expect(seen(tilted, [0, 0, 200])[1]).toBeCloseTo(Math.cos(Math.PI / 6), 9);
});

test('from the south the east is to the right, from the east the north is; both stand upright', () => {
  const from = (name: 'south' | 'east') => ({ ...above, ...standardViews[name] });
  expect(seen(from('south'), [400, 0, 0])).toEqual([1, 0, 0]);
  expect(seen(from('south'), [0, 0, 200])).toEqual([0, 1, 0]);
  expect(seen(from('east'), [0, 400, 0])[0]).toBeCloseTo(1, 9);
  // What lies to the south is the nearer one.
  expect(seen(from('south'), [0, -100, 0])[2]).toBeCloseTo(-0.1, 9);
});

test('sliding moves what is seen by as many pixels both ways, and coming nearer keeps the middle', () => {
  const orbit: Orbit = { turn: 0.7, tilt: 0.9, x: 3, y: 4, z: 5, metresPerPixel: 0.1 };
  const [x, y] = seen(slideBy(orbit, 40, 30), [3, 4, 5]);
  expect(seen(orbit, [3, 4, 5])).toEqual([0, 0, 0]);
  expect([x, y]).toEqual([expect.closeTo(40 / 400, 9), expect.closeTo(-30 / 200, 9)]);
  expect(seen(nearerBy(orbit, 2), [3, 4, 5])).toEqual([0, 0, 0]);
  expect(orbitBy(orbit, 0, 1e6).tilt).toBe(Math.PI / 2);
});

test('every place of the look through a pixel is seen at that pixel', () => {
  const orbit: Orbit = { turn: -1.2, tilt: 0.4, x: 30, y: -4, z: 5, metresPerPixel: 0.03 };
  const { from, along } = rayThrough(orbit, size, [600, 50], reach);
  for (const t of [0, 10, 1500]) {
    const [x, y] = seen(
      orbit,
      [0, 1, 2].map((axis) => from[axis] + t * along[axis]),
    );
    expect([x, y]).toEqual([expect.closeTo(600 / 400 - 1, 6), expect.closeTo(1 - 50 / 200, 6)]);
  }
  expect(seen(orbit, from)[2]).toBeCloseTo(-1, 6);
});

test('a box is shown whole from everywhere', () => {
  const box = [-10, 0, -3, 40, 20, 12] as const;
  for (const view of Object.values(standardViews)) {
    const orbit = lookAtBox(box, size, view);
    for (let corner = 0; corner < 8; corner += 1) {
      const [x, y] = seen(orbit, [box[corner & 1 ? 3 : 0], box[corner & 2 ? 4 : 1], box[corner & 4 ? 5 : 2]]);
      expect(Math.max(Math.abs(x), Math.abs(y))).toBeLessThan(1);
    }
  }
});
