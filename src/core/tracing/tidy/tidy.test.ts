import fc from 'fast-check';
import { distance, type Point } from '@/core/geometry/vector';
import type { ElementRow } from '@/core/kinds/element';
import { Model } from '@/core/model/model';
import { put } from '@/core/model/edits';
import { beam, column, door, idsFrom, levelId, planOf, refused, slab, uuid, wall } from '../testing/plan';
import { tidy, tidyEdit } from './tidy';
import { tidySteps, type TidyOrder, type TidyStep } from './workpiece';

const order = (steps: readonly TidyStep[] = tidySteps, more: Partial<TidyOrder> = {}): TidyOrder => ({
  steps,
  tolerance: 0.03,
  angle: Math.PI / 360,
  axes: 0,
  grid: [],
  newId: idsFrom(5000),
  ...more,
});

/** The model after a tidy-up of everything in it. */
function tidied(model: Model, by: TidyOrder): { model: Model; left: number } {
  const found = tidyEdit(model, tidy(Object.values(model.element), by));
  if (found.ok) model.apply(found.value.edit.changes);
  return { model, left: found.ok ? found.value.left : 0 };
}
const shapeOf = (model: Model, n: number) => model.element[uuid(n)]?.shape as Record<string, unknown> | undefined;

test('ends within the tolerance are pulled to the column there, else to where most come together', () => {
  const { model } = tidied(
    planOf(
      column(1, [6, 0]),
      wall(2, [0, 0], [6.01, 0.01]),
      wall(3, [5.99, 0], [6, 4]),
      wall(4, [0.02, 0.01], [0, 4]),
      wall(5, [0, 0], [-3, 0]),
    ),
    order(['ends']),
  );
  expect([shapeOf(model, 2)!.end, shapeOf(model, 3)!.start]).toEqual([
    [6, 0],
    [6, 0],
  ]);
  expect(shapeOf(model, 4)!.start).toEqual([0, 0]);
  // 50 mm apart are two places.
  const { model: apart } = tidied(planOf(wall(1, [0, 0], [6, 0]), wall(2, [6.05, 0], [6, 4])), order(['ends']));
  expect(shapeOf(apart, 2)!.start).toEqual([6.05, 0]);
});

test('what is there twice becomes one, with the openings of both, whichever way it was drawn', () => {
  const model = planOf(
    wall(1, [0, 0], [6, 0]),
    wall(2, [6, 0], [0, 0.01]),
    door(3, 2, 1),
    column(4, [9, 0]),
    column(5, [9, 0.01]),
  );
  tidied(model, order(['doubles']));
  expect(Object.keys(model.element).sort()).toEqual([uuid(1), uuid(3), uuid(4)]);
  // One metre from the end at (6, 0) is four metres from the start, less its width of one.
  const { wall: host, offset } = shapeOf(model, 3) as { wall: string; offset: number };
  expect([host, offset.toFixed(3)]).toEqual([uuid(1), '4.000']);
});

test('walls that lie over one another are joined; those that only touch are not', () => {
  const model = planOf(
    wall(1, [0, 0], [4, 0]),
    wall(2, [3, 0.01], [8, 0.01]),
    wall(3, [8, 5], [9, 5]),
    wall(4, [9, 5], [10, 5]),
  );
  tidied(model, order(['overlaps']));
  expect(shapeOf(model, 1)).toMatchObject({ start: [0, 0], end: [8, 0.01] });
  expect([shapeOf(model, 2), shapeOf(model, 3), shapeOf(model, 4)].map(Boolean)).toEqual([false, true, true]);
});

test('lines within half a degree of an axis are straightened together, so that their node stays one', () => {
  const model = planOf(wall(1, [0, 0], [5, 0.02]), wall(2, [5, 0.02], [9, 0.01]), wall(3, [5, 0.02], [5.01, 4]));
  tidied(model, order(['straighten']));
  const [a, b, c] = [1, 2, 3].map((n) => shapeOf(model, n) as { start: Point; end: Point });
  expect([a.end, b.start, c.start].every((p) => distance(p, a.end) === 0)).toBe(true);
  // The mean of 0, 0.02 and 0.01.
  expect([a.start, a.end, b.end].map(([, y]) => y.toFixed(6))).toEqual(['0.010000', '0.010000', '0.010000']);
  expect(c.start[0]).toBeCloseTo(c.end[0], 12);
});

test('places near a grid line come to lie on it, near a crossing on the crossing', () => {
  const grid: TidyOrder['grid'] = [
    { start: [0, -5], end: [0, 20] },
    { start: [-5, 0], end: [20, 0] },
  ];
  const model = planOf(column(1, [0.02, -0.01]), beam(2, [0.02, -0.01], [6, 0.02]), column(3, [6, 0.02]));
  tidied(model, order(['grid'], { grid }));
  expect(shapeOf(model, 1)!.position).toEqual([0, 0]);
  expect(shapeOf(model, 2)).toMatchObject({ start: [0, 0], end: [6, 0] });
});

test('a free end is extended to the middle of the wall that it nearly reaches, and that is cut there', () => {
  // The second stops 10 mm before the face of the first, whose middle is 100 mm further.
  const model = planOf(wall(1, [0, 0], [6, 0]), wall(2, [3, 0.11], [3, 4]));
  tidied(model, order(['extend', 'cut']));
  expect(shapeOf(model, 2)!.start).toEqual([3, 0]);
  const ends = [...model.ofKind('wall')].map(({ shape }) => `${shape.start} ${shape.end}`).sort();
  expect(ends).toEqual(['0,0 3,0', '3,0 3,4', '3,0 6,0']);
  expect([...model.index.endingAt(levelId, [3, 0])]).toHaveLength(3);
});

test('a crossing within a door leaves the wall whole', () => {
  const model = planOf(wall(1, [0, 0], [6, 0]), door(2, 1, 2.5), wall(3, [3, -2], [3, 2]));
  tidied(model, order(['cut']));
  expect(shapeOf(model, 1)).toMatchObject({ start: [0, 0], end: [6, 0] });
  expect([...model.ofKind('wall')]).toHaveLength(3);
});

test('slivers go, doubled corners of outlines too, and what is held stays as it is', () => {
  const model = planOf(
    wall(1, [0, 0], [0.02, 0]),
    slab(2, [
      [0, 0],
      [4, 0],
      [4.001, 0.001],
      [4, 3],
      [0, 3],
    ]),
    {
      ...wall(3, [0, 0.01], [5, 0.02]),
      held: true,
    },
  );
  tidied(model, order(['outlines', 'slivers', 'straighten', 'ends']));
  expect(shapeOf(model, 1)).toBeUndefined();
  expect((shapeOf(model, 2)!.outline as Point[]).length).toBe(4);
  expect(shapeOf(model, 3)).toMatchObject({ start: [0, 0.01], end: [5, 0.02] });
});

test('a door stays when what is left of its wall beside a crossing is a sliver and goes', () => {
  // Parted at (8.958, 9), the first piece of wall 3 is 44 mm long; its door is in the second.
  const model = planOf(
    wall(1, [6, 0], [9, 12]),
    wall(2, [0, 9], [12, 9]),
    wall(3, [9, 8.986], [0, 12]),
    wall(4, [3, 12], [9, 9]),
    door(103, 3, 0.5, 0.4),
  );
  const { left } = tidied(model, order());
  expect(left).toBe(0);
  const shape = shapeOf(model, 103)!;
  const host = Object.values(model.element).find(({ id }) => id === shape.wall);
  expect(host?.kind).toBe('wall');
  // Where it was: half a metre and half its width along from (9, 8.986) towards (0, 12), and still 0.4 m wide.
  const along: Point = [-9 / Math.hypot(9, 3.014), 3.014 / Math.hypot(9, 3.014)];
  const { start, end } = host!.shape as { start: Point; end: Point };
  const u: Point = [(end[0] - start[0]) / distance(start, end), (end[1] - start[1]) / distance(start, end)];
  const middle = Number(shape.offset) + 0.2;
  expect(start[0] + middle * u[0]).toBeCloseTo(9 + 0.7 * along[0], 1);
  expect(start[1] + middle * u[1]).toBeCloseTo(8.986 + 0.7 * along[1], 1);
  expect(shape.width).toBe(0.4);
});

test('an element that tidying would break stays as it is, and is told', () => {
  // The door fills its wall: pulled shorter, the wall could not hold it.
  const model = planOf(wall(1, [0, 0], [1.02, 0]), door(2, 1, 0, 1.02), column(3, [1, 0]));
  const found = tidy(Object.values(model.element), order(['ends']));
  expect(refused(tidyEdit(model, found))).toMatch(/without breaking it.*beyond the end of its wall/);
  const more = planOf(...Object.values(model.element), wall(4, [1, 0.01], [1, 4]));
  const { left } = tidied(more, order(['ends']));
  expect([left, shapeOf(more, 1)!.end, shapeOf(more, 4)!.start]).toEqual([1, [1.02, 0], [1, 0]]);
});

test('applied twice it changes nothing more, whatever there is, and every opening keeps a wall', () => {
  const near = fc.tuple(
    fc.integer({ min: 0, max: 4 }),
    fc.integer({ min: 0, max: 4 }),
    fc.integer({ min: -20, max: 20 }),
    fc.integer({ min: -20, max: 20 }),
  );
  const place = ([x, y, dx, dy]: number[]): Point => [x * 3 + dx / 1000, y * 3 + dy / 1000];
  fc.assert(
    fc.property(fc.array(fc.tuple(near, near), { minLength: 1, maxLength: 14 }), (pairs) => {
      const rows = pairs
        .map(([a, b], i): ElementRow => wall(i + 1, place(a), place(b)))
        .filter((row) => row.kind === 'wall' && distance(row.shape.start, row.shape.end) > 0.5);
      const model = planOf(...rows);
      for (const row of rows.slice(0, 3)) {
        const n = Number(row.id.slice(-3));
        model.apply([put('element', door(100 + n, n, 0.5, 0.4))]);
      }
      const by = order();
      const found = tidy(Object.values(model.element), by);
      const doors = [...model.ofKind('opening')].map(({ id }) => id);
      tidied(model, by);
      // No door is lost but one that lies over another when two walls become one.
      const merged = new Set(found.merged.map(([gone]) => gone));
      expect(doors.filter((id) => model.element[id] === undefined && !merged.has(id))).toEqual([]);
      const once = JSON.stringify(Object.values(model.element));
      const again = tidy(Object.values(model.element), by);
      // Elements that it left alone, because they would break, it finds again.
      const edit = tidyEdit(model, again);
      if (edit.ok && edit.value.left === 0) model.apply(edit.value.edit.changes);
      if (!edit.ok || edit.value.left === 0) expect(JSON.stringify(Object.values(model.element))).toBe(once);
      for (const opening of model.ofKind('opening')) expect(model.index.hostOf(opening)).not.toBeNull();
    }),
    { numRuns: 150 },
  );
});
