import fc from 'fast-check';
import { PointGrid } from './pointGrid';

test('of all points within the cell size none is missed, and none comes twice', () => {
  const coordinate = fc.double({ min: -1e6, max: 1e6, noNaN: true });
  const cluster = fc.tuple(
    coordinate,
    coordinate,
    fc.array(fc.tuple(fc.double({ min: -3, max: 3, noNaN: true }), fc.double({ min: -3, max: 3, noNaN: true })), {
      minLength: 1,
      maxLength: 40,
    }),
  );
  fc.assert(
    fc.property(cluster, ([x, y, offsets]) => {
      const points = offsets.map(([dx, dy]) => [x + dx, y + dy]);
      const grid = new PointGrid(1, points.length);
      points.forEach(([px, py], i) => grid.add(i, px, py));
      const found: number[] = [];
      grid.near(x, y, (i) => found.push(i));
      expect(new Set(found).size).toBe(found.length);
      points.forEach(([px, py], i) => {
        if (Math.hypot(px - x, py - y) <= 1) expect(found).toContain(i);
      });
    }),
  );
});
