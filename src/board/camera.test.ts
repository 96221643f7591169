import fc from 'fast-check';
import { coarsest, finest, fit, pan, toProject, toScreen, viewBox, zoomAt, type Camera } from './camera';

const size = { width: 800, height: 600 };
const camera = fc.record({
  x: fc.double({ min: -1e5, max: 1e5, noNaN: true }),
  y: fc.double({ min: -1e5, max: 1e5, noNaN: true }),
  metresPerPixel: fc.double({ min: 1e-4, max: 100, noNaN: true }),
});
const pixel = fc.tuple(fc.integer({ min: 0, max: 800 }), fc.integer({ min: 0, max: 600 }));

test('the middle of the screen is the middle of the view, up is north', () => {
  const c: Camera = { x: 10, y: 20, metresPerPixel: 0.5 };
  expect(toProject(c, size, [400, 300])).toEqual([10, 20]);
  expect(toScreen(c, size, [11, 21])).toEqual([402, 298]);
  expect(viewBox(c, size)).toEqual([-190, -130, 210, 170]);
});

test('to the screen and back is where one was', () => {
  fc.assert(
    fc.property(camera, pixel, (c, at) => {
      const [x, y] = toScreen(c, size, toProject(c, size, at));
      expect(Math.hypot(x - at[0], y - at[1])).toBeLessThan(1e-4);
    }),
  );
});

test('zooming keeps what is under the cursor there', () => {
  fc.assert(
    fc.property(camera, pixel, fc.double({ min: 0.2, max: 5, noNaN: true }), (c, at, factor) => {
      const before = toProject(c, size, at);
      const after = toScreen(zoomAt(c, size, at, factor), size, before);
      expect(Math.hypot(after[0] - at[0], after[1] - at[1])).toBeLessThan(1e-3);
    }),
  );
});

test('a pan moves what is seen by as many pixels', () => {
  const c: Camera = { x: 0, y: 0, metresPerPixel: 2 };
  const point: [number, number] = [100, 50];
  const [before, after] = [toScreen(c, size, point), toScreen(pan(c, 30, -10), size, point)];
  expect([after[0] - before[0], after[1] - before[1]]).toEqual([30, -10]);
});

test('fit shows the whole box with a margin, its longer side deciding', () => {
  const c = fit([0, 0, 70, 35], size, 50);
  expect([c.x, c.y, c.metresPerPixel]).toEqual([35, 17.5, 0.1]);
  const upright = fit([0, 0, 1, 50], size, 50);
  expect(upright.metresPerPixel).toBeCloseTo(0.1, 12);
  // A point has no size; a centimetre a pixel is a fair view of it.
  expect(fit([5, 5, 5, 5], size)).toEqual({ x: 5, y: 5, metresPerPixel: 0.01 });
});

test('zooming ends at both ends', () => {
  let c: Camera = { x: 0, y: 0, metresPerPixel: 1 };
  for (let i = 0; i < 100; i += 1) c = zoomAt(c, size, [0, 0], 4);
  expect(c.metresPerPixel).toBe(finest);
  for (let i = 0; i < 100; i += 1) c = zoomAt(c, size, [0, 0], 0.25);
  expect(c.metresPerPixel).toBe(coarsest);
});
