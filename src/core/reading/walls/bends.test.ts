import fc from 'fast-check';
import { arcOfBulge, bulgeOfSweep } from '@/core/geometry/bulge';
import { distance, type Point } from '@/core/geometry/vector';
import { bendBetween, bendEnds, between, cornersOf, joinBends, onBend, pairArcs, type Bend } from './bends';

const source = (n: number) => ({ handle: String(n), entity: n, layer: 0 });
const bend = (start: number, sweep: number, radius = 5, centre: Point = [3, -2], n = 0): Bend => ({
  centre,
  radius,
  start,
  sweep,
  thickness: 0.2,
  sources: [source(n)],
  gaps: [],
});
const angle = fc.double({ min: -Math.PI, max: Math.PI, noNaN: true });
const sweep = fc.double({ min: 0.2, max: 2.5, noNaN: true });
const radius = fc.double({ min: 1, max: 40, noNaN: true });

test('the ends and corners of a bend lie on its circle, and its bulge leads back to it', () => {
  fc.assert(
    fc.property(angle, sweep, radius, (start, turn, r) => {
      const one = bend(start, turn, r);
      const [a, b] = bendEnds(one);
      for (const p of [a, b, ...cornersOf(one)]) expect(distance(p, one.centre)).toBeCloseTo(r, 9);
      const arc = arcOfBulge(a, b, bulgeOfSweep(turn));
      expect(distance(arc.centre, one.centre)).toBeLessThan(1e-6 * r);
      expect(arc.radius / r).toBeCloseTo(1, 6);
    }),
  );
});

test('chords in place of a bend lie off it by 3 mm at most: r (1 - cos(step / 2))', () => {
  for (const r of [1.2, 5, 30]) {
    const one = bend(0, 2, r);
    const step = 2 / (cornersOf(one).length + 1);
    expect(r * (1 - Math.cos(step / 2))).toBeLessThanOrEqual(0.003 + 1e-9);
  }
});

test('a bend between its own ends is itself; further round it is longer by as much, and its openings stay in place', () => {
  const one: Bend = { ...bend(0.3, 1, 5), gaps: [{ from: 2, to: 3, kind: 'window', sources: [] }] };
  const same = bendBetween(one, ...bendEnds(one));
  expect([same.start, same.sweep, same.gaps[0].from]).toEqual([
    expect.closeTo(0.3, 9),
    expect.closeTo(1, 9),
    expect.closeTo(2, 9),
  ]);
  const longer = bendBetween(one, onBend(one, 0.2), onBend(one, 1.35));
  // 0.1 radians of 5 m radius more at the start, 0.05 at the end.
  expect([longer.start, longer.sweep, longer.gaps[0].from]).toEqual([
    expect.closeTo(0.2, 9),
    expect.closeTo(1.15, 9),
    expect.closeTo(2.5, 9),
  ]);
});

test('a curved wall cut anywhere and drawn in any order is one again', () => {
  fc.assert(
    fc.property(
      angle,
      sweep,
      radius,
      fc.double({ min: 0.2, max: 0.8, noNaN: true }),
      fc.boolean(),
      (start, turn, r, at, swapped) => {
        const [first, second] = [
          bend(start, turn * at, r, [0, 0], 1),
          bend(start + turn * at, turn * (1 - at), r, [0, 0], 2),
        ];
        const joined = joinBends(swapped ? [second, first] : [first, second], [], () => false);
        expect(joined).toHaveLength(1);
        expect(joined[0].sweep).toBeCloseTo(turn, 6);
        expect(Math.abs(between(joined[0].start, start))).toBeLessThan(1e-6);
        expect(joined[0].sources.map(({ handle }) => handle).sort()).toEqual(['1', '2']);
      },
    ),
  );
});

test('bends of other circles, other thickness, or with an unexplained gap stay two', () => {
  const one = bend(0, 0.5);
  for (const other of [
    bend(0.5, 0.5, 5.1),
    bend(0.5, 0.5, 5, [3.1, -2]),
    { ...bend(0.5, 0.5), thickness: 0.3 },
    bend(0.8, 0.5),
  ])
    expect(joinBends([one, other], [], () => false)).toHaveLength(2);
});

test('arcs pair at a wall\u2019s distance about one centre, where they lie beside one another', () => {
  const arc = (r: number, start: number, turn: number, n: number, centre: Point = [0, 0]) => ({
    centre,
    radius: r,
    start,
    sweep: turn,
    sources: [source(n)],
  });
  const across = { least: 0.05, most: 0.6 };
  const [one] = pairArcs([arc(5.1, 0, 1, 1), arc(4.9, 0.02, 1, 2)], across);
  expect([one.radius, one.thickness, one.start, one.sweep]).toEqual([
    expect.closeTo(5, 9),
    expect.closeTo(0.2, 9),
    expect.closeTo(0.02, 9),
    expect.closeTo(0.98, 9),
  ]);
  expect(pairArcs([arc(5.1, 0, 1, 1), arc(4.2, 0, 1, 2)], across)).toEqual([]);
  expect(pairArcs([arc(5.1, 0, 1, 1), arc(4.9, 0, 1, 2, [0.1, 0])], across)).toEqual([]);
});
