import { boxOf } from '@/core/geometry/boxIndex';
import type { Transform } from '@/core/geometry/transform';
import type { Point } from '@/core/geometry/vector';
import type { Shapes } from './element';
import { evenMap } from './evenMap';
import { isEdgeGrip } from './areas';
import { checksOf, draggedBy, gripsOf } from './kinds';
import { kinds } from './kinds';
import { ridgeOf, roofHeightAt, type Roof } from './roof';
import { holdingOf } from './support';

const rectangle: Point[] = [
  [0, 0],
  [10, 0],
  [10, 4],
  [0, 4],
];
const turn: Transform = [0, 1, -1, 0, 0, 0];
const mirrorInX: Transform = [1, 0, 0, -1, 0, 0];
const rounded = (value: unknown): unknown =>
  JSON.parse(JSON.stringify(value, (_, v: unknown) => (typeof v === 'number' ? Number(v.toFixed(9)) + 0 : v)));

describe('roof planes', () => {
  // Eaves along y = 0 at 3 m; 4 m up a slope of 3 in 4 the ridge lies 3 m higher.
  const slope = (Math.atan2(3, 4) * 180) / Math.PI;
  const roof: Roof = { outline: rectangle, eaves: 3, slope, direction: 90, thickness: 0.2 };

  test('rise from their lowest corner in their direction', () => {
    expect(roofHeightAt(roof, [5, 0])).toBeCloseTo(3, 12);
    expect(roofHeightAt(roof, [2, 4])).toBeCloseTo(6, 12);
    expect(ridgeOf(roof)).toBeCloseTo(6, 12);
    expect(kinds.roof.facts(roof)).toContain('eaves 3.00 m and ridge 6.00 m above its level, 50.00 m');
  });

  test('follow a typed height of the ridge with their slope', () => {
    const ridge = kinds.roof.fields(roof).find(({ label }) => label === 'Ridge above its level');
    const steeper = ridge?.kind === 'length' ? ridge.set(roof, 7) : roof;
    expect(steeper.slope).toBeCloseTo(45, 12);
    // Below its eaves a ridge is none.
    expect(ridge?.kind === 'length' && ridge.set(roof, 2)).toBe(roof);
  });

  test('turned and mirrored keep their heights over the same corners', () => {
    for (const map of [turn, mirrorInX]) {
      const even = evenMap(map);
      const moved = kinds.roof.move(roof, even);
      for (const p of rectangle) expect(roofHeightAt(moved, even.at(p))).toBeCloseTo(roofHeightAt(roof, p), 9);
    }
  });
});

describe('loads', () => {
  const load: Shapes['pointLoad'] = {
    case: 'W',
    position: [1, 2],
    rise: 0,
    force: [3000, 0, -1000],
    moment: [0, 2000, 0],
  };

  test('turn with what they act on; a moment changes its sense in a mirror', () => {
    const turned = kinds.pointLoad.move(load, evenMap(turn));
    expect(rounded([turned.position, turned.force, turned.moment])).toEqual([
      [-2, 1],
      [0, 3000, -1000],
      [-2000, 0, 0],
    ]);
    const mirrored = kinds.pointLoad.move(load, evenMap(mirrorInX));
    // A moment about y is an axial vector: a mirror that keeps x keeps the sense of turning from z to x.
    expect(rounded([mirrored.force, mirrored.moment])).toEqual([
      [3000, 0, -1000],
      [0, 2000, 0],
    ]);
  });

  test('are typed in kilonewtons and stored in newtons; none of zero is stored', () => {
    const z = kinds.pointLoad.fields(load).find(({ label }) => label === 'Force z');
    expect(z?.kind === 'number' && [z.unit, z.get(load), z.set(load, -2.5).force[2]]).toEqual(['kN', -1, -2500]);
    expect(checksOf({ kind: 'pointLoad', shape: { ...load, force: [0, 0, 0], moment: [0, 0, 0] } }, null)).toHaveLength(
      1,
    );
    expect(
      checksOf({ kind: 'areaLoad', shape: { case: 'Q', outline: rectangle, holes: [], q: 0 } }, null),
    ).toHaveLength(1);
  });
});

test('supports are called by what they hold', () => {
  const of = (...fixed: Shapes['support']['fixed']) => holdingOf({ position: [0, 0], rise: 0, fixed });
  expect([of('x', 'y', 'z'), of('rz', 'ry', 'rx', 'z', 'y', 'x'), of('z'), of('x', 'rx')]).toEqual([
    'pinned',
    'fixed',
    'upright only',
    'another way',
  ]);
  expect(checksOf({ kind: 'support', shape: { position: [0, 0], rise: 0, fixed: [] } }, null)).toHaveLength(1);
});

test('a luminaire points where its 0 degree half-plane does, and goes along with a turn', () => {
  const shape: Shapes['luminaire'] = { position: [2, 0], rise: 2.7, rotation: 30, tilt: 0, photometry: '', output: 1 };
  const turned = kinds.luminaire.move(shape, evenMap(turn));
  expect(rounded([turned.position, turned.rotation])).toEqual([[0, 2], 120]);
  expect(kinds.luminaire.away(shape, [2, 0], null)).toBe(0);
});

test('an edge of an outline is dragged by its middle, both its corners along', () => {
  const shape: Shapes['calculationArea'] = { name: '', outline: rectangle, holes: [], rise: 0.8, spacing: null };
  const grips = gripsOf({ kind: 'calculationArea', shape }, null);
  const edge = grips.find(({ name, at }) => isEdgeGrip(name) && at[0] === 5 && at[1] === 4);
  const wider = draggedBy({ kind: 'calculationArea', shape }, edge!.name, [5, 6], null);
  expect('outline' in wider && boxOf(wider.outline)).toEqual([0, 0, 10, 6]);
  const corner = draggedBy({ kind: 'calculationArea', shape }, grips[0].name, [-1, -1], null);
  expect('outline' in corner && corner.outline[0]).toEqual([-1, -1]);
});
