import fc from 'fast-check';
import { defaultLimits } from '@/core/drawing/limits';
import { block, dxf, groups, insert, line, readText } from '@/core/drawing/testing/dxf';
import { flatten } from '../flatten';
import { pathCount, type Primitives } from '../primitives';
import { applyRecipe, applyStep, type Kitchen } from './apply';
import { findPlans } from './clusters';
import { freshStep, portable, recipeSchema, stepKinds, type Recipe, type Step } from './steps';
import { suggestRecipe } from './suggest';
import * as v from 'valibot';

function kitchenOf(parts: Parameters<typeof dxf>[0], metresPerUnit = 0.001): Kitchen {
  const { drawing } = readText(dxf(parts));
  return { drawing, raw: flatten(drawing), metresPerUnit, limits: defaultLimits };
}

/** The vertices of all paths, in the drawing's coordinates. */
const linesOf = (p: Primitives) =>
  Array.from({ length: pathCount(p) }, (_, i) =>
    Array.from({ length: p.start[i + 1] - p.start[i] }, (__, k) =>
      [0, 1].map((axis) => Number((p.xy[2 * (p.start[i] + k) + axis] + p.origin[axis]).toFixed(6)) + 0),
    ),
  );
const doStep = (kitchen: Kitchen, step: Step) => applyStep(kitchen, kitchen.raw, step);

const circle = (x: number, y: number, r: number, layer = '0') =>
  groups([0, 'CIRCLE'], [8, layer], [10, x], [20, y], [40, r]);

test('kinds, layers and blocks go out with all that draws them', () => {
  const dimension = groups(
    [0, 'DIMENSION'],
    [8, 'D'],
    [2, '*D1'],
    [10, 0],
    [20, 5],
    [13, 0],
    [23, 0],
    [14, 9],
    [24, 0],
    [70, 33],
  );
  const kitchen = kitchenOf({
    blocks:
      block(
        '*D1',
        line(0, 5, 9, 5) + line(0, 0, 0, 5) + groups([0, 'TEXT'], [8, '0'], [10, 4], [20, 5], [40, 1], [1, '9']),
      ) +
      block('CHAIR', line(0, 0, 1, 0)) +
      block('DESK', line(0, 0, 3, 0) + insert('CHAIR', 1, 1)),
    entities: dimension + insert('DESK', 20, 0) + line(0, 0, 9, 0, 'A-WALL') + line(0, 1, 9, 1, 'A-FURN-2'),
  });
  const dimensions = doStep(kitchen, { kind: 'leaveOutKinds', groups: ['dimensions'] });
  expect([
    dimensions.count.entities,
    pathCount(dimensions.result.primitives),
    dimensions.result.primitives.texts.length,
  ]).toEqual([1, 4, 0]);
  const chairs = doStep(kitchen, { kind: 'leaveOutBlocks', patterns: ['ch*'] });
  expect([chairs.count.entities, pathCount(chairs.result.primitives)]).toEqual([1, 5]);
  // The chair stands in the desk.
  expect(doStep(kitchen, { kind: 'leaveOutBlocks', patterns: ['DESK'] }).count.entities).toBe(2);
  expect(
    linesOf(doStep(kitchen, { kind: 'leaveOutLayers', patterns: ['*FURN*'] }).result.primitives),
  ).not.toContainEqual([
    [0, 1],
    [9, 1],
  ]);
});

test('a region keeps what lies mostly inside, or drops it', () => {
  const kitchen = kitchenOf({
    entities:
      line(1, 1, 9, 9) +
      line(8, 8, 30, 30) +
      line(20, 20, 25, 20) +
      groups([0, 'TEXT'], [8, '0'], [10, 5], [20, 2], [40, 1], [1, 'in']),
  });
  const square: [number, number][] = [
    [0, 0],
    [10, 0],
    [10, 10],
    [0, 10],
  ];
  const inside = doStep(kitchen, { kind: 'region', keep: 'inside', polygon: square });
  expect([linesOf(inside.result.primitives), inside.result.primitives.texts.length, inside.count.entities]).toEqual([
    [
      [
        [1, 1],
        [9, 9],
      ],
      [
        [8, 8],
        [30, 30],
      ],
    ],
    1,
    1,
  ]);
  expect(linesOf(doStep(kitchen, { kind: 'region', keep: 'outside', polygon: square }).result.primitives)).toEqual([
    [
      [20, 20],
      [25, 20],
    ],
  ]);
});

const room = (x: number, y: number, w: number, h: number) =>
  [line(x, y, x + w, y), line(x + w, y, x + w, y + h), line(x + w, y + h, x, y + h), line(x, y + h, x, y)].join('');
const plan = (x: number, y: number) => [0, 1, 2, 3].map((i) => room(x + i * 5000, y, 5000, 6000)).join('');

test('strays are small and far, whatever their distance: three of them 1,204 m away and more', () => {
  const kitchen = kitchenOf({
    entities:
      plan(0, 0) +
      groups([0, 'POINT'], [8, '0'], [10, 20000 + 1204000], [20, 0]) +
      circle(-5e5, 0, 20) +
      line(3e5, 3e5, 3e5 + 5, 3e5),
  });
  const { count, result } = doStep(kitchen, { kind: 'strays' });
  expect(count).toEqual({ entities: 3, words: '3 strays up to 1,204 m away' });
  expect(pathCount(result.primitives)).toBe(16);
  // A plan beside it is no stray, nor is a small thing near.
  expect(
    doStep(kitchenOf({ entities: plan(0, 0) + plan(90000, 0) + circle(22000, 0, 20) }), { kind: 'strays' }).count
      .entities,
  ).toBe(0);
});

test('five plans on a sheet with a frame are found, each with its texts, and the frame is none', () => {
  const spots: [number, number][] = [
    [0, 0],
    [40000, 0],
    [80000, 0],
    [0, 30000],
    [40000, 30000],
  ];
  const title = groups([0, 'TEXT'], [8, '0'], [10, 1000], [20, -1500], [40, 300], [1, 'Ground floor']);
  const kitchen = kitchenOf({
    entities: spots.map(([x, y]) => plan(x, y)).join('') + title + room(-8000, -8000, 120000, 52000),
  });
  const plans = findPlans(kitchen.raw).map(({ box }) => box.map((value, i) => value + kitchen.raw.origin[i % 2]));
  expect(plans.map((box) => box.map(Math.round).join()).sort()).toEqual(
    spots.map(([x, y]) => [x, y === 0 && x === 0 ? -1500 : y, x + 20000, y + 6000].join()).sort(),
  );
});

test('what is drawn twice is drawn once, backwards, in other starts and overlapping too; layers are kept apart', () => {
  const outline = (points: number[][], bulges: number[] = []) =>
    groups(
      [0, 'LWPOLYLINE'],
      [8, '0'],
      [90, points.length],
      [70, 1],
      ...points.flatMap(([x, y], i): [number, number][] => [
        [10, x],
        [20, y],
        ...(bulges[i] ? [[42, bulges[i]] as [number, number]] : []),
      ]),
    );
  const kitchen = kitchenOf({
    entities:
      line(0, 0, 1000, 0) +
      line(1000, 0.4, 0, 0) +
      line(0, 0, 1000, 0, 'B') +
      outline(
        [
          [0, 9000],
          [400, 9000],
          [400, 9400],
        ],
        [0.5, 0, 0],
      ) +
      outline(
        [
          [400, 9400],
          [400, 9000],
          [0, 9000],
        ],
        [0, -0.5, 0],
      ) +
      outline(
        [
          [400, 9000],
          [400, 9400],
          [0, 9000],
        ],
        [0, 0, 0.5],
      ) +
      circle(5000, 0, 200) +
      circle(5000, 0.2, 200) +
      line(0, 5000, 600, 5000) +
      line(500, 5000, 900, 5000) +
      line(900.5, 5000, 1200, 5000) +
      line(1300, 5000, 1500, 5000),
  });
  const { result } = doStep(kitchen, { kind: 'duplicates', tolerance: 0.001 });
  const found = linesOf(result.primitives);
  expect(found.slice(0, 2)).toEqual([
    [
      [0, 0],
      [1000, 0],
    ],
    [
      [0, 0],
      [1000, 0],
    ],
  ]);
  expect(found.filter((path) => path.length === 3)).toHaveLength(1);
  expect(found.filter((path) => path[0][1] === 5000)).toEqual([
    [
      [0, 5000],
      [1200, 5000],
    ],
    [
      [1300, 5000],
      [1500, 5000],
    ],
  ]);
  expect(pathCount(result.primitives)).toBe(6);
});

test('lines within an angle of the main directions, those of a turned wing too, are turned into them about their middles', () => {
  const at = (degrees: number, length: number, x: number, y: number) => {
    const a = (degrees * Math.PI) / 180;
    return line(x, y, x + length * Math.cos(a), y + length * Math.sin(a));
  };
  const kitchen = kitchenOf({
    entities:
      plan(0, 0) +
      [0, 1, 2, 3].map((i) => at(17, 9000, 40000, i * 3000) + at(107, 6000, 40000 + i * 100, 0)).join('') +
      at(0.2, 10000, 0, 20000) +
      at(107.25, 8000, 60000, 0) +
      at(5, 3000, 0, 30000),
  });
  const { result, count } = doStep(kitchen, { kind: 'straighten', angle: 0.3 });
  expect(count.entities).toBe(2);
  const found = linesOf(result.primitives);
  const flat = found.find((path) => path[0][1] > 19000 && path[0][1] < 21000)!;
  // The middle of the line at 0.2 degrees is 5000 sin(0.2 degrees) = 17.45 above its start.
  expect(flat[0][1]).toBeCloseTo(20000 + 5000 * Math.sin((0.2 * Math.PI) / 180), 4);
  expect(flat[0][1]).toBeCloseTo(flat[1][1], 6);
  const steep = found.find((path) => path[0][0] > 59000)!;
  expect((Math.atan2(steep[1][1] - steep[0][1], steep[1][0] - steep[0][0]) * 180) / Math.PI).toBeCloseTo(107, 6);
});

test('gaps close at the corner of their lines, in the middle of parallels, and at a corner that stands; layers are kept apart', () => {
  const kitchen = kitchenOf({
    entities:
      line(0, 0, 995, 0) +
      line(1000, 4, 1000, 2000) +
      line(0, 5000, 500, 5000) +
      line(506, 5000, 900, 5000) +
      line(0, 9000, 100, 9000) +
      line(100, 9000, 100, 9500) +
      line(103, 9000, 300, 9000) +
      line(0, 7000, 500, 7000, 'A') +
      line(505, 7000, 900, 7000, 'B'),
  });
  const { result, count } = doStep(kitchen, { kind: 'closeGaps', tolerance: 0.01 });
  expect(count).toEqual({ entities: 3, words: '3 gaps' });
  expect(linesOf(result.primitives).slice(0, 7)).toEqual([
    [
      [0, 0],
      [1000, 0],
    ],
    [
      [1000, 0],
      [1000, 2000],
    ],
    [
      [0, 5000],
      [503, 5000],
    ],
    [
      [503, 5000],
      [900, 5000],
    ],
    [
      [0, 9000],
      [100, 9000],
    ],
    [
      [100, 9000],
      [100, 9500],
    ],
    [
      [100, 9000],
      [300, 9000],
    ],
  ]);
});

test('arcs are chopped by angle and by sagitta, curves made as fine as asked, heights set to zero', () => {
  const kitchen = kitchenOf({
    entities:
      circle(0, 0, 1000) +
      groups([0, 'ELLIPSE'], [8, '0'], [10, 5000], [20, 0], [11, 1000], [21, 0], [40, 0.5]) +
      groups([0, 'LINE'], [8, '0'], [10, 0], [20, 0], [30, 300], [11, 5], [21, 0], [31, 300]),
  });
  const byAngle = doStep(kitchen, { kind: 'chopArcs', by: 'angle', value: 15 }).result.primitives;
  expect(linesOf(byAngle)[0]).toHaveLength(24);
  // s = r (1 - cos(step / 2)) = 5 mm of 1000 mm: a step of at most 2 acos(0.995) = 11.46 degrees, 16 to the half
  // circle.
  expect(linesOf(doStep(kitchen, { kind: 'chopArcs', by: 'sagitta', value: 0.005 }).result.primitives)[0]).toHaveLength(
    32,
  );
  const fine = applyRecipe(kitchen, [{ id: 'c', on: true, step: { kind: 'curves', sagitta: 0.0001 } }]);
  const coarse = applyRecipe(kitchen, [{ id: 'c', on: true, step: { kind: 'curves', sagitta: 0.05 } }]);
  expect(linesOf(fine.primitives)[1].length).toBeGreaterThan(4 * linesOf(coarse.primitives)[1].length);
  const flat = doStep(kitchen, { kind: 'flattenHeights' });
  expect([flat.count.entities, [...flat.result.primitives.elevation]]).toEqual([1, [0, 0, 0]]);
});

const recipe: Recipe = [
  { id: 'a', on: true, step: { kind: 'duplicates', tolerance: 0.001 } },
  { id: 'b', on: true, step: { kind: 'straighten', angle: 0.3 } },
  { id: 'c', on: true, step: { kind: 'closeGaps', tolerance: 0.01 } },
  { id: 'd', on: true, step: { kind: 'chopArcs', by: 'sagitta', value: 0.005 } },
  { id: 'e', on: true, step: { kind: 'strays' } },
];

test('each step applied twice changes nothing more, on any lines', () => {
  const coordinate = fc.integer({ min: 0, max: 400 }).map((n) => n * 4);
  const side = fc.tuple(coordinate, coordinate, coordinate, coordinate, fc.integer({ min: 0, max: 9 }));
  fc.assert(
    fc.property(fc.array(side, { minLength: 2, maxLength: 40 }), (sides) => {
      const kitchen = kitchenOf({
        entities: plan(0, 0) + sides.map(([a, b, c, d, hair]) => line(a, b, c + hair, d)).join(''),
      });
      for (const { step } of recipe) {
        const once = applyStep(kitchen, kitchen.raw, step).result.primitives;
        const twice = applyStep(kitchen, once, step);
        expect({ step: step.kind, again: twice.count.entities, lines: linesOf(twice.result.primitives) }).toEqual({
          step: step.kind,
          again: 0,
          lines: linesOf(once),
        });
      }
    }),
    { numRuns: 60 },
  );
});

test('a step that is off changes nothing, and the order of steps counts', () => {
  const kitchen = kitchenOf({ entities: line(0, 0, 1000, 0) + line(1006, 0, 2000, 0) });
  const gaps: Recipe[number] = { id: 'g', on: true, step: { kind: 'closeGaps', tolerance: 0.01 } };
  const merge: Recipe[number] = { id: 'm', on: true, step: { kind: 'duplicates', tolerance: 0.001 } };
  expect(linesOf(applyRecipe(kitchen, [gaps, merge]).primitives)).toEqual([
    [
      [0, 0],
      [2000, 0],
    ],
  ]);
  expect(linesOf(applyRecipe(kitchen, [merge, gaps]).primitives)).toHaveLength(2);
  expect(applyRecipe(kitchen, [{ ...gaps, on: false }]).primitives).toBe(kitchen.raw);
});

test('what the file shows is suggested, with counts, and no more once it is taken', () => {
  const kitchen = kitchenOf({
    entities:
      plan(0, 0) +
      line(0, 0, 5000, 0) +
      line(30000, 0, 34995, 0) +
      line(35000, 4, 35000, 2000) +
      groups([0, 'POINT'], [8, '0'], [10, 1e6], [20, 0]),
  });
  const found = suggestRecipe(kitchen, []);
  expect(found.map(({ step }) => step.kind)).toEqual(['strays', 'duplicates', 'closeGaps']);
  expect(found[2].count.words).toBe('1 gap');
  expect(
    suggestRecipe(
      kitchen,
      found.map(({ step }, i) => ({ id: String(i), on: true, step })),
    ),
  ).toEqual([]);
});

test('every kind of step starts with values that a recipe allows; only regions stay with their drawing', () => {
  const all = stepKinds.map((kind, i) => ({ id: String(i), on: true, step: freshStep(kind) }));
  expect(v.safeParse(recipeSchema, all).success).toBe(true);
  expect(portable(all).map(({ step }) => step.kind)).toEqual(stepKinds.filter((kind) => kind !== 'region'));
  expect(v.safeParse(recipeSchema, [{ id: 'x', on: true, step: { kind: 'closeGaps', tolerance: 0 } }]).success).toBe(
    false,
  );
});
