import fc from 'fast-check';
import { apply } from '@/core/geometry/transform';
import { asDrawn, betweenPlacements, place, placementTransform, unplace, type Placement } from './placement';

test('a point is shifted, scaled, turned and set on the target', () => {
  const p: Placement = { unit: 'mm', origin: [1000, 2000], target: [5, 5], turning: Math.PI / 2 };
  const [x, y] = place(p, [2000, 2000]);
  expect([x, y].map((v) => Number(v.toFixed(12)))).toEqual([5, 6]);
});

test('placing and taking back returns the coordinates, at survey coordinates too', () => {
  const number = fc.double({ min: -1e7, max: 1e7, noNaN: true });
  fc.assert(fc.property(fc.record({ unit: fc.constantFrom('mm', 'cm', 'm', 'in', 'ft'), origin: fc.tuple(number, number), target: fc.tuple(fc.double({ min: -1000, max: 1000, noNaN: true }), fc.double({ min: -1000, max: 1000, noNaN: true })), turning: fc.double({ min: -4, max: 4, noNaN: true }) }), fc.double({ min: -1e5, max: 1e5, noNaN: true }), fc.double({ min: -1e5, max: 1e5, noNaN: true }), (p, dx, dy) => {
    const point: [number, number] = [p.origin[0] + dx, p.origin[1] + dy];
    const back = unplace(p as Placement, place(p as Placement, point));
    const size = Math.max(1, Math.hypot(...point), Math.hypot(...p.origin));
    // A target of a thousand metres is 1e6 mm: what is added there and taken away again costs its last digits.
    expect(Math.hypot(back[0] - point[0], back[1] - point[1]) / size).toBeLessThan(1e-9);
    const local = apply(placementTransform(p as Placement, p.origin), [dx, dy]);
    const direct = place(p as Placement, point);
    expect(Math.hypot(local[0] - direct[0], local[1] - direct[1])).toBeLessThan(1e-6);
  }));
});

test('what stood by one placement is carried to the other', () => {
  const from = asDrawn('m');
  const to: Placement = { unit: 'mm', origin: [10, 20], target: [0, 0], turning: 0 };
  const [x, y] = apply(betweenPlacements(from, to), place(from, [4010, 20]));
  expect([x, y].map((v) => Number(v.toFixed(9)))).toEqual([4, 0]);
});
