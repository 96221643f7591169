import fc from 'fast-check';
import * as v from 'valibot';
import { area } from '@/core/geometry/polygon';
import { readKinds } from './element';
import type { Transform } from '@/core/geometry/transform';
import { distance, type Point } from '@/core/geometry/vector';
import type { Beam } from './beam';
import { dropsOf, memberLength } from './beam';
import type { ElementRow, Shapes } from './element';
import { anchorOf, awayFrom, boxOfElement, kinds, kindsUp, moveElement, outlinesOf } from './kinds';
import { sectionName, sectionOutlines } from './section';
import type { Wall } from './wall';

const wall: Wall = { start: [0, 0], end: [6, 0], thickness: 0.2, height: null, bulge: 0, outer: false };
const common = { id: 'e', levelId: null, source: null };

describe('sections', () => {
  test('a hollow one has an inner outline by the thickness of its walls, and tells it', () => {
    const [outer, inner] = sectionOutlines({ shape: 'rectangle', width: 0.2, depth: 0.1, wall: 0.008 });
    expect([Math.abs(area(outer)), Math.abs(area(inner))].map((size) => Number(size.toFixed(9)))).toEqual([
      0.02,
      // 184 mm by 84 mm.
      0.015456,
    ]);
    expect(sectionName({ shape: 'rectangle', width: 0.2, depth: 0.1, wall: 0.008 })).toBe(
      'hollow 200 \u00d7 100, walls 8',
    );
    expect(sectionName({ shape: 'circle', diameter: 0.168, wall: 0.0063 })).toBe('hollow \u2300 168, walls 6.3');
  });

  test('walls as thick as half the section leave nothing hollow, and are refused', () => {
    const of = (section: unknown) => v.is(kinds.column.schema, { position: [0, 0], rotation: 0, mark: '', section });
    expect(of({ shape: 'rectangle', width: 0.2, depth: 0.1, wall: 0.049 })).toBe(true);
    expect(of({ shape: 'rectangle', width: 0.2, depth: 0.1, wall: 0.05 })).toBe(false);
    expect(of({ shape: 'circle', diameter: 0.1, wall: 0.05 })).toBe(false);
  });

  test('a round one is outlined within a millimetre of its circle, whatever its size', () => {
    for (const diameter of [0.2, 3, 20]) {
      const [outline] = sectionOutlines({ shape: 'circle', diameter });
      // The middle of a chord is as far inside as the chord leaves the circle.
      const [a, b] = outline;
      const sagitta = diameter / 2 - Math.hypot((a[0] + b[0]) / 2, (a[1] + b[1]) / 2);
      expect(sagitta).toBeLessThanOrEqual(0.001 + 1e-12);
    }
  });
});

describe('members', () => {
  const beam: Beam = {
    start: [0, 0],
    end: [3, 0],
    section: { shape: 'rectangle', width: 0.1, depth: 0.1 },
    mark: '',
    drop: 0.5,
    endDrop: 4.5,
  };

  test('the ends of a brace differ in height, and its length is that in space', () => {
    expect(dropsOf(beam)).toEqual([0.5, 4.5]);
    // 3 across and 4 down.
    expect(memberLength(beam)).toBe(5);
    expect(kinds.beam.facts(beam)).toContain('its end 4.00 m lower');
    expect(dropsOf({ ...beam, endDrop: undefined })).toEqual([0.5, 0.5]);
  });

  test('an upright one has length though its line in plan has none', () => {
    const post: Beam = { ...beam, end: [0, 0] };
    expect(kinds.beam.checks(post, null)).toEqual([]);
    expect(kinds.beam.checks({ ...post, endDrop: 0.5 }, null)).toHaveLength(1);
  });
});

describe('openings', () => {
  const door: Shapes['opening'] = { wall: 'w', use: 'door', offset: 2, width: 1, height: 2.1, sill: 0 };

  test('they lie in their wall, and without one nowhere', () => {
    expect(anchorOf({ kind: 'opening', shape: door }, wall)).toEqual([2.5, 0]);
    expect(boxOfElement({ kind: 'opening', shape: door })).toBeNull();
    expect(kinds.opening.checks(door, null)).toEqual(['Its wall is not in the model.']);
    expect(kinds.opening.checks({ ...door, offset: 5.5 }, wall)).toEqual([
      'It ends 0.50 m beyond the end of its wall.',
    ]);
  });

  test('dragged they slide along the wall and stay in it, in a curved one along its arc', () => {
    const slid = (to: Point, host: Wall) => kinds.opening.drag(door, 'middle', to, host).offset;
    expect(slid([4, 3], wall)).toBe(3.5);
    expect(slid([99, 0], wall)).toBe(5);
    expect(slid([-99, 0], wall)).toBe(0);
    // A half circle of radius 3 about (3, 0), from (0, 0) downwards to (6, 0): its lowest point is halfway.
    const bend: Wall = { ...wall, bulge: 1 };
    expect(slid([3, -3], bend)).toBeCloseTo((3 * Math.PI) / 2 - 0.5, 9);
  });
});

test('a wall is hit within its thickness, a room inside its outline and not in its hole, a line beside it by how far', () => {
  const room: Shapes['zone'] = {
    name: '',
    number: '',
    height: null,
    outline: [
      [0, 0],
      [9, 0],
      [9, 9],
      [0, 9],
    ],
    holes: [
      [
        [3, 3],
        [6, 3],
        [6, 6],
        [3, 6],
      ],
    ],
  };
  expect(awayFrom({ kind: 'wall', shape: wall }, [3, 0.09], null)).toBe(0);
  expect(awayFrom({ kind: 'wall', shape: wall }, [3, 0.5], null)).toBeCloseTo(0.4, 12);
  expect(awayFrom({ kind: 'zone', shape: room }, [1, 1], null)).toBe(0);
  expect(awayFrom({ kind: 'zone', shape: room }, [4, 4], null)).toBe(Infinity);
  expect(kinds.zone.size(room)).toBe('72.00 m\u00b2');
});

test('an outline that crosses itself, or holds nothing, is told; one whose corners only touch is not', () => {
  const slab = (outline: Point[]): string[] => kinds.slab.checks({ outline, holes: [], thickness: 0.2 }, null);
  const bow = slab([
    [0, 0],
    [4, 4],
    [4, 0],
    [0, 4],
  ]);
  expect(bow.some((said) => said.includes('crosses itself'))).toBe(true);
  expect(
    slab([
      [0, 0],
      [4, 0],
      [2, 2],
      [4, 4],
      [0, 4],
      [2, 2],
    ]),
  ).toEqual([]);
  expect(
    slab([
      [0, 0],
      [1, 0],
      [2, 0],
    ]),
  ).toHaveLength(1);
});

test('moved by any turn, shift, mirror and scale, what is drawn moves with it', () => {
  const map = fc
    .record({
      turn: fc.double({ min: -3, max: 3, noNaN: true }),
      factor: fc.double({ min: 0.1, max: 10, noNaN: true }),
      x: fc.integer({ min: -99, max: 99 }),
      y: fc.integer({ min: -99, max: 99 }),
      mirrored: fc.boolean(),
    })
    .map(({ turn, factor, x, y, mirrored }): Transform => {
      const [c, s] = [Math.cos(turn) * factor, Math.sin(turn) * factor];
      return mirrored ? [c, s, s, -c, x, y] : [c, s, -s, c, x, y];
    });
  const at = ([a, b, c, d, e, f]: Transform, [x, y]: Point): Point => [a * x + c * y + e, b * x + d * y + f];
  const section = { shape: 'rectangle', width: 0.3, depth: 0.5, wall: 0.02 } as const;
  const beam = { start: [1, 2] as Point, end: [5, 3] as Point, section, mark: 'B1', justification: 'left' as const };
  const ring: Point[] = [
    [0, 0],
    [4, 0],
    [4, 3],
  ];
  const elements: ElementRow[] = [
    { ...common, kind: 'column', shape: { position: [3, 1], rotation: 20, section, mark: '' } },
    { ...common, kind: 'beam', shape: beam },
    { ...common, kind: 'wall', shape: wall },
    { ...common, kind: 'slab', shape: { outline: ring, holes: [], thickness: 0.2 } },
    { ...common, kind: 'outdoor', shape: { name: '', outline: ring, height: 0 } },
  ];
  fc.assert(
    fc.property(map, (transform) => {
      for (const element of elements) {
        const expected = outlinesOf(element)
          .flat()
          .map((p) => at(transform, p));
        const found = outlinesOf(moveElement(element, transform)).flat();
        // A mirrored outline begins elsewhere; every corner has one of the other at its place.
        for (const p of found) expect(Math.min(...expected.map((q) => distance(p, q)))).toBeLessThan(1e-6);
      }
    }),
    { numRuns: 60 },
  );
});

test('a bent wall stays on its arc when it is mirrored', () => {
  const mirror: Transform = [1, 0, 0, -1, 0, 0];
  const bent: ElementRow = { ...common, kind: 'wall', shape: { ...wall, bulge: 1 } };
  // Below its chord before, above it after.
  expect(anchorOf(bent)![1]).toBeCloseTo(-3, 9);
  expect(anchorOf(moveElement(bent, mirror))![1]).toBeCloseTo(3, 9);
});

test('openings lie over walls, columns over all that is built, loads and light on top, outdoor surfaces below', () => {
  expect(kindsUp[0]).toBe('outdoor');
  const built = readKinds.filter((kind) => kind !== 'luminaire').map((kind) => kindsUp.indexOf(kind));
  expect(Math.max(...built)).toBe(kindsUp.indexOf('column'));
  expect(kindsUp.at(-1)).toBe('luminaire');
  expect(kindsUp.indexOf('opening')).toBeGreaterThan(kindsUp.indexOf('wall'));
});
