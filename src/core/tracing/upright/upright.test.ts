import * as fc from 'fast-check';
import { seenFaceOn } from '@/core/bodies/faceOn';
import { asDrawn, faceOn, place, placeUpright, unplace, type Placement } from '@/core/datum/placement';
import type { Point } from '@/core/geometry/vector';
import type { ElementOf, ElementRow } from '@/core/kinds/element';
import { roofHeightAt } from '@/core/kinds/roof';
import { levelsUp } from '@/core/model/levels';
import type { Model } from '@/core/model/model';
import { resolveBuilding } from '@/core/resolved/resolve';
import { plainShapes } from '@/project/tracing';
import { applied, column, door, idsFrom, levelId, planOf, refused, slab, upperId, uuid, wall } from '../testing/plan';
import { giveHeight, giveSlope } from './heights';
import { isUpright, makeMembers, makeUprightColumns, storeyAt } from './making';
import { fromPlan, onPlane, planeOf, type UprightPlane } from './plane';
import { takeMembers, type DrawnLine } from './takeMembers';

/** Stands on the line from (10, 20) at 30 degrees. */
const plane: UprightPlane = { at: [10, 20], turning: Math.PI / 6 };
const [c, s] = [Math.cos(Math.PI / 6), 0.5];
/** Levels of the test plan: 0 m and 3 m, each 3 m high. */
const building = (model: Model) =>
  resolveBuilding({ levels: levelsUp(model), elements: Object.values(model.element) as ElementRow[] });
const only = <K extends ElementRow['kind']>(model: Model, kind: K) => Array.from(model.ofKind(kind)) as ElementOf<K>[];

test('a point of the section goes to the project and back to nine places, wherever the section stands', () => {
  const far = fc.double({ min: -1e5, max: 1e5, noNaN: true });
  fc.assert(
    fc.property(
      far,
      far,
      fc.double({ min: -7, max: 7, noNaN: true }),
      far,
      fc.boolean(),
      (x, y, turning, along, mirrored) => {
        const placement: Placement = {
          ...asDrawn('mm'),
          origin: [1200, -300],
          target: [x, y],
          turning,
          upright: 2.5,
          mirrored,
        };
        const drawn: Point = [1200 + along, 4000];
        const [px, py, z] = placeUpright(placement, drawn);
        const stands = planeOf(placement)!;
        const back = fromPlan(stands, [px, py]);
        expect(Math.abs(back.off)).toBeLessThan(1e-9);
        const [bx, by] = unplace(faceOn(placement), [back.along, z]);
        expect(Math.hypot(bx - drawn[0], by - drawn[1]) * 0.001).toBeLessThan(1e-9);
        expect(onPlane(stands, place(faceOn(placement), drawn))).toEqual([px, py, z].map((v) => expect.closeTo(v, 8)));
      },
    ),
  );
  expect(planeOf(asDrawn('m'))).toBeNull();
});

test('a member stands at its true height: worked by hand for a plane at 30 degrees', () => {
  const model = planOf();
  const like = { ...plainShapes.beam, use: 'brace' as const };
  // From 2 m along at 0.5 m up to 6 m along at 2.5 m.
  applied(model, makeMembers(model, plane, [{ start: [2, 0.5], end: [6, 2.5], source: null, like }], idsFrom(100)));
  const [brace] = only(model, 'beam');
  expect(brace.shape.start).toEqual([expect.closeTo(10 + 2 * c, 9), expect.closeTo(20 + 2 * s, 9)]);
  expect(brace.shape.end).toEqual([expect.closeTo(10 + 6 * c, 9), expect.closeTo(20 + 6 * s, 9)]);
  expect([brace.shape.drop, brace.shape.endDrop]).toEqual([2.5, 0.5]);
  const [placed] = building(model).beams;
  expect([placed.startTop, placed.endTop]).toEqual([0.5, 2.5]);
  // It is seen where it was drawn: a brace lies about its line.
  const [seen] = seenFaceOn(building(model), plane) as ElementOf<'beam'>[];
  expect([...seen.shape.start, ...seen.shape.end]).toEqual([2, 0.5, 6, 2.5].map((v) => expect.closeTo(v, 9)));
});

test('a height belongs to the highest level below it, one below all to the lowest', () => {
  const levels = levelsUp(planOf());
  expect([-4, 0, 2.9, 2.99, 3, 40].map((z) => storeyAt(levels, z)?.id)).toEqual([
    levelId,
    levelId,
    levelId,
    upperId,
    upperId,
    upperId,
  ]);
  expect(storeyAt([], 1)).toBeUndefined();
});

test('a column from a foot to a head is as its level has it where it fits, and tied where it does not', () => {
  const model = planOf();
  const make = (low: number, high: number, along: number) =>
    makeUprightColumns(
      model,
      plane,
      [
        {
          ends: [
            [along, low],
            [along, high],
          ],
          like: plainShapes.column,
          source: null,
        },
      ],
      idsFrom(200 + along * 10),
    );
  applied(model, make(0, 3, 1));
  applied(model, make(4.2, 0.4, 3));
  const [plain, tied] = only(model, 'column').sort((a, b) => a.shape.position[0] - b.shape.position[0]);
  expect(plain.shape.ties).toBeUndefined();
  expect(tied.shape.ties).toEqual({ base: { level: levelId, offset: 0.4 }, top: { level: upperId, offset: 1.2 } });
  expect(
    building(model)
      .columns.map(({ base, top }) => [base, top])
      .sort(),
  ).toEqual([
    [0, 3],
    [0.4, 4.2],
  ]);
  expect(refused(make(1, 1.001, 5))).toMatch(/at one height/);
});

test('what stands upright to within a fiftieth is a column, what leans more is none', () => {
  expect(isUpright({ start: [1, 0], end: [1.05, 3] })).toBe(true);
  expect(isUpright({ start: [1, 3], end: [1.09, 0] })).toBe(false);
  expect(isUpright({ start: [1, 3], end: [4, 3] })).toBe(false);
});

test('heights read off a section are given to what is selected, and what cannot be is told', () => {
  const model = planOf(wall(1, [0, 0], [6, 0]), door(2, 1, 2), column(3, [0, 0]));
  applied(model, giveHeight(model, [uuid(2)], 'head', 2.4));
  applied(model, giveHeight(model, [uuid(2)], 'sill', 0.9));
  const window = only(model, 'opening')[0].shape;
  expect([window.sill, window.height]).toEqual([0.9, 1.5]);
  expect(refused(giveHeight(model, [uuid(2)], 'sill', 2.6))).toMatch(/head has to be the higher one/);
  expect(refused(giveHeight(model, [uuid(2)], 'sill', -0.2))).toMatch(/0\.20 m below its floor/);
  // A wall and a column at once; the zone and the door have no base.
  applied(model, giveHeight(model, [uuid(1), uuid(3), uuid(2)], 'top', 2.7));
  expect(building(model).walls[0].top).toBeCloseTo(2.7, 9);
  expect(building(model).columns[0].top).toBeCloseTo(2.7, 9);
  expect(refused(giveHeight(model, [uuid(3)], 'sill', 1))).toMatch(/has such a height/);
});

test('a roof plane gets the slope between two points of the section and goes through both', () => {
  const roof: ElementOf<'roof'> = {
    id: uuid(9),
    levelId,
    source: null,
    libraryId: null,
    kind: 'roof',
    shape: {
      outline: [
        [0, 0],
        [12, 0],
        [12, 6],
        [0, 6],
      ],
      eaves: 3,
      slope: 10,
      direction: 90,
      thickness: 0.2,
    },
  };
  const model = planOf(roof);
  // Along x at y = 3: from 3.0 m at x = 0 down from 6.5 m at x = 7: 26.565 degrees.
  const across: UprightPlane = { at: [0, 3], turning: 0 };
  applied(model, giveSlope(model, [uuid(9)], across, [7, 6.5], [0, 3]));
  const { shape } = only(model, 'roof')[0];
  expect(shape.slope).toBeCloseTo(26.565051, 5);
  expect(shape.direction).toBe(0);
  expect(roofHeightAt(shape, [0, 1])).toBeCloseTo(3, 9);
  expect(roofHeightAt(shape, [7, 5])).toBeCloseTo(6.5, 9);
  // The ends of a wall under it, along y at x = 4: 3 + 4 tan = 5 m.
  expect(roofHeightAt(shape, [4, 0])).toBeCloseTo(5, 9);
  const beside: UprightPlane = { at: [0, 40], turning: 0 };
  expect(refused(giveSlope(model, [uuid(9)], beside, [7, 6.5], [0, 3]))).toMatch(/34\.0 m beside the roof plane/);
  expect(refused(giveSlope(model, [uuid(9)], across, [2, 6.5], [2, 3]))).toMatch(/90\.0 degrees/);
  expect(refused(giveSlope(model, [], across, [0, 3], [7, 6.5]))).toMatch(/No roof plane is selected/);
});

/** The two lines of a member of a depth between two points. */
function drawn([x1, y1]: Point, [x2, y2]: Point, depth: number, path: number): DrawnLine[] {
  const size = Math.hypot(x2 - x1, y2 - y1);
  const [nx, ny] = [(-(y2 - y1) / size) * (depth / 2), ((x2 - x1) / size) * (depth / 2)];
  return [
    { from: [x1 + nx, y1 + ny], to: [x2 + nx, y2 + ny], path },
    { from: [x2 - nx, y2 - ny], to: [x1 - nx, y1 - ny], path: path + 1 },
  ];
}

/** A truss of 6 m by 1.5 m: chords, end posts and four diagonals, each drawn up to the chords' faces. */
const truss: DrawnLine[] = [
  ...drawn([0, 8], [6, 8], 0.16, 0),
  ...drawn([0, 9.5], [6, 9.5], 0.16, 2),
  ...drawn([0, 8.08], [0, 9.42], 0.1, 4),
  ...drawn([6, 8.08], [6, 9.42], 0.1, 6),
  ...[0, 1.5, 3, 4.5].flatMap((x, i) => {
    const [low, high] = i % 2 === 0 ? [8, 9.5] : [9.5, 8];
    const cut = 0.08 / 1.5;
    const at = (t: number): Point => [x + 1.5 * t, low + (high - low) * t];
    return drawn(at(cut), at(1 - cut), 0.08, 8 + 2 * i);
  }),
];

test('a truss drawn in double lines becomes its members, which meet in its nodes', () => {
  const taken = takeMembers(truss);
  if (!taken.ok) throw new Error(taken.message);
  expect(taken.value.map(({ depth }) => Number(depth!.toFixed(3))).sort()).toEqual([
    0.08, 0.08, 0.08, 0.08, 0.1, 0.1, 0.16, 0.16,
  ]);
  const ends = taken.value.flatMap(({ start, end }) => [start, end]).map(([x, y]) => `${x.toFixed(3)} ${y.toFixed(3)}`);
  // Posts and diagonals end on the chords' axes: nodes at 0, 3 and 6 m below, at 0, 1.5, 4.5 and 6 m above.
  expect([...new Set(ends)].sort()).toEqual([
    '0.000 8.000',
    '0.000 9.500',
    '1.500 9.500',
    '3.000 8.000',
    '4.500 9.500',
    '6.000 8.000',
    '6.000 9.500',
  ]);
});

test('lines without partners are axes themselves; too many, too short or none are told', () => {
  const single = takeMembers([
    { from: [0, 0], to: [4, 3], path: 7 },
    { from: [4, 3], to: [8, 0], path: 8 },
  ]);
  expect(single.ok && single.value.map(({ depth, paths }) => [depth, paths])).toEqual([
    [null, [7]],
    [null, [8]],
  ]);
  expect(refused(takeMembers([]))).toMatch(/no straight line/);
  const many = Array.from({ length: 2001 }, (_, i): DrawnLine => ({ from: [0, i], to: [1, i], path: i }));
  expect(refused(takeMembers(many))).toMatch(/2001 lines/);
});

test('what is seen in a section: a column, a wall that crosses, a slab cut by its opening', () => {
  const hole: Point[] = [
    [4, 1],
    [6, 1],
    [6, 5],
    [4, 5],
  ];
  const floor = slab(
    4,
    [
      [0, 0],
      [10, 0],
      [10, 6],
      [0, 6],
    ],
    [hole],
  );
  const model = planOf(column(1, [2, 3]), wall(2, [8, 0], [8, 6]), wall(3, [0, 6], [10, 6]), floor);
  const across: UprightPlane = { at: [0, 3], turning: 0 };
  const seen = seenFaceOn(building(model), across);
  const of = (n: number) => seen.filter(({ id }) => id.startsWith(uuid(n)));
  const [post] = of(1) as ElementOf<'column'>[];
  expect(post.shape.position).toEqual([expect.closeTo(2, 9), expect.closeTo(1.5, 9)]);
  const [cut] = of(2) as ElementOf<'wall'>[];
  expect([cut.shape.start, cut.shape.end, cut.shape.thickness]).toEqual([[8, 0], [8, 3], expect.closeTo(0.2, 9)]);
  // The wall along the far side lies 3 m from the plane.
  expect(of(3)).toEqual([]);
  const stretches = (of(4) as ElementOf<'slab'>[]).map(({ shape }) => [shape.outline[0][0], shape.outline[1][0]]);
  expect(stretches).toEqual([
    [0, 4],
    [6, 10],
  ]);
});
