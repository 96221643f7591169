import { seenFaceOn } from '@/core/bodies/faceOn';
import type { Point } from '@/core/geometry/vector';
import type { ElementOf, ElementRow } from '@/core/kinds/element';
import { roofHeightAt } from '@/core/kinds/roof';
import { levelsUp } from '@/core/model/levels';
import type { Model } from '@/core/model/model';
import { resolveBuilding } from '@/core/resolved/resolve';
import { plainShapes } from '@/project/tracing';
import { applied, door, idsFrom, levelId, planOf, refused, slab, upperId, uuid, wall } from '../testing/plan';
import { giveHeight } from './heights';
import { makeUprightOpenings } from './openings';
import type { UprightPlane } from './plane';
import { isSlope, makeUprightRoofs } from './roofs';
import type { DrawnLine } from './takeMembers';
import { takeOpenings } from './takeOpenings';

const like = plainShapes.opening;
const shapes = (model: Model) =>
  (Array.from(model.ofKind('opening')) as ElementOf<'opening'>[]).map(({ shape }) => shape);
const building = (model: Model) =>
  resolveBuilding({ levels: levelsUp(model), elements: Object.values(model.element) as ElementRow[] });

/** A front along x at y = 0.3 on two levels of 3 m, one that crosses it, and a curved one. */
const front = () =>
  planOf(
    wall(1, [10, 0.3], [2, 0.3]),
    { ...wall(2, [2, 0.3], [10, 0.3]), levelId: upperId },
    wall(3, [4, -2], [4, 6]),
    wall(4, [2, 0.1], [10, 0.1], { bulge: 0.2 }),
  );
/** Stands on y = 0 and looks along y; along it, 0 is at x = 1. */
const plane: UprightPlane = { at: [1, 0], turning: 0 };
const drawn = (a: Point, b: Point) => ({ corners: [a, b] as const, like, source: null });

test('a window drawn face on lies in the wall behind it: worked by hand for a wall that runs the other way', () => {
  const model = front();
  // 3 to 4.5 m along is x from 4 to 5.5; the wall starts at x = 10.
  applied(model, makeUprightOpenings(model, plane, [drawn([4.5, 2.2], [3, 0.9])], idsFrom(50)));
  const [window] = shapes(model);
  expect(window).toMatchObject({ wall: uuid(1), offset: 4.5, width: 1.5, sill: 0.9, height: 1.3 });
  // Above 3 m it is the wall of the upper level, which starts at x = 2.
  applied(model, makeUprightOpenings(model, plane, [drawn([3, 3], [3.9, 5.1])], idsFrom(60)));
  expect(shapes(model)[1]).toMatchObject({ wall: uuid(2), offset: 2, width: 0.9, sill: 0, height: 2.1 });
  // Both are seen where they were drawn, in a piece of wall as large as they are.
  const seen = seenFaceOn(building(model), plane);
  const host = (id: string) => seen.find((row) => row.id === id) as ElementOf<'wall'>;
  const openings = seen.filter((row): row is ElementOf<'opening'> => row.kind === 'opening');
  const outlines = openings.map(({ shape }) => {
    const { start, end, thickness } = host(shape.wall).shape;
    return [start[0], end[0], start[1] - thickness / 2, start[1] + thickness / 2].map((v) => Number(v.toFixed(6)));
  });
  expect(outlines.sort()).toEqual([
    [3, 3.9, 3, 5.1],
    [3, 4.5, 0.9, 2.2],
  ]);
});

test('an opening that no wall in the plane holds is refused, and of many those count that lie in one', () => {
  const model = front();
  const over = drawn([3, 2.5], [4, 3.5]);
  expect(refused(makeUprightOpenings(model, plane, [over], idsFrom(50)))).toMatch(/within one wall and one storey/);
  expect(refused(makeUprightOpenings(model, plane, [drawn([8.5, 1], [9.5, 2])], idsFrom(50)))).toMatch(/No straight/);
  expect(refused(makeUprightOpenings(model, plane, [drawn([3, 1], [4, 1])], idsFrom(50)))).toMatch(/no height/);
  const away: UprightPlane = { at: [1, 5], turning: 0 };
  expect(refused(makeUprightOpenings(model, away, [drawn([3, 1], [4, 2])], idsFrom(50)))).toMatch(/within 1 m/);
  const edit = makeUprightOpenings(model, plane, [over, drawn([3, 1], [4, 2])], idsFrom(50));
  expect(edit.ok && edit.value.label).toMatch(/1 lie in no wall/);
});

test('a wall that the plane cuts through its door shows the door', () => {
  const model = planOf(wall(1, [4, -2], [4, 6]), door(2, 1, 1.5, 1));
  const seen = seenFaceOn(building(model), plane);
  const [opening] = seen.filter(({ kind }) => kind === 'opening');
  const { start, end, thickness } = seen.find(({ id }) => id === `${uuid(1)}#1`)!.shape as ElementOf<'wall'>['shape'];
  expect(opening.id).toBe(uuid(2));
  // The wall is 0.2 m thick at 3 m along; the door is 2 m high.
  expect([start, end, thickness]).toEqual([[2.9, 1], [3.1, 1], 2]);
});

test('the sill of a window is measured from the foot of its wall, where that has one of its own', () => {
  const model = planOf(wall(1, [0, 0], [6, 0], { ties: { base: { level: levelId, offset: 0.5 } } }), door(2, 1, 2));
  applied(model, giveHeight(model, [uuid(2)], 'sill', 1.3));
  expect(shapes(model)[0].sill).toBeCloseTo(0.8, 9);
});

/** The four sides of a rectangle as loose lines. */
function rectangle([x1, y1]: Point, [x2, y2]: Point, path: number): DrawnLine[] {
  const corners: Point[] = [
    [x1, y1],
    [x2, y1],
    [x2, y2],
    [x1, y2],
  ];
  return corners.map((from, i) => ({ from, to: corners[(i + 1) % 4], path: path + i }));
}

test('rectangles with their panes and bars are one window each; what is open or too small is none', () => {
  const taken = takeOpenings([
    ...rectangle([1, 0.9], [2.5, 2.1], 0),
    // A pane within the frame, and a bar from frame to frame.
    ...rectangle([1.06, 0.96], [1.7, 2.04], 4),
    { from: [1.75, 0.9], to: [1.75, 2.1], path: 8 },
    ...rectangle([4, 0], [4.9, 2.1], 10),
    ...rectangle([6, 1], [6.1, 1.1], 20),
    ...rectangle([8, 0], [9, 2], 30).slice(0, 3),
  ]);
  if (!taken.ok) throw new Error(taken.message);
  expect(taken.value).toEqual([
    {
      corners: [
        [1, 0.9],
        [2.5, 2.1],
      ],
      paths: [0, 1, 3, 8, 2, 4, 5, 7, 6].map(() => expect.any(Number)),
    },
    {
      corners: [
        [4, 0],
        [4.9, 2.1],
      ],
      paths: [10, 11, 13, 12].map(() => expect.any(Number)),
    },
  ]);
  expect(new Set(taken.value[0].paths)).toEqual(new Set([0, 1, 2, 3, 4, 5, 6, 7, 8]));
  expect(refused(takeOpenings([{ from: [0, 0], to: [1, 0], path: 0 }]))).toMatch(/No rectangle/);
});

test('a roof plane by its slope in a section goes as far across as what stands beneath it', () => {
  const floor: Point[] = [
    [0, 2],
    [9, 2],
    [9, 8],
    [0, 8],
  ];
  const model = planOf({ ...slab(1, floor), levelId: upperId });
  // Across at y = 3, from (0, 6.2) up to (4, 8.2): atan(2 / 4) = 26.565 degrees.
  const across: UprightPlane = { at: [0, 3], turning: 0 };
  const roof = {
    ends: [
      [4, 8.2],
      [0, 6.2],
    ] as const,
    like: plainShapes.roof,
    source: null,
  };
  applied(model, makeUprightRoofs(model, across, [roof], idsFrom(50)));
  const [made] = Array.from(model.ofKind('roof')) as ElementOf<'roof'>[];
  expect(made.shape.outline).toEqual([
    [0, 2],
    [4, 2],
    [4, 8],
    [0, 8],
  ]);
  expect(made.shape.slope).toBeCloseTo(26.565051, 5);
  expect(made.levelId).toBe(upperId);
  expect([0, 4].map((x) => 3 + roofHeightAt(made.shape, [x, 5]))).toEqual([6.2, 8.2].map((z) => expect.closeTo(z, 9)));
  // On a section that runs the other way the same slope falls along it.
  const back: UprightPlane = { at: [9, 3], turning: Math.PI };
  const turned = {
    ...roof,
    ends: [
      [5, 8.2],
      [9, 6.2],
    ] as const,
  };
  const other = planOf({ ...slab(1, floor), levelId: upperId });
  applied(other, makeUprightRoofs(other, back, [turned], idsFrom(60)));
  const [again] = Array.from(other.ofKind('roof')) as ElementOf<'roof'>[];
  expect([0, 4].map((x) => 3 + roofHeightAt(again.shape, [x, 5]))).toEqual([6.2, 8.2].map((z) => expect.closeTo(z, 9)));
  expect(
    refused(
      makeUprightRoofs(
        model,
        across,
        [
          {
            ...roof,
            ends: [
              [1, 3],
              [1, 8],
            ],
          },
        ],
        idsFrom(70),
      ),
    ),
  ).toMatch(/90\.0/);
  const beyond = {
    ...roof,
    ends: [
      [20, 6],
      [24, 8],
    ] as const,
  };
  expect(refused(makeUprightRoofs(model, across, [beyond], idsFrom(70)))).toMatch(
    /Nothing of the model stands beneath/,
  );
  expect([isSlope(lines([0, 0], [4, 0.02])), isSlope(lines([0, 0], [4, 2])), isSlope(lines([0, 0], [0.1, 4]))]).toEqual(
    [false, true, false],
  );
});

const lines = (start: Point, end: Point) => ({ start, end });
