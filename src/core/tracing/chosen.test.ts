import { candidateFor } from './testing/candidates';
import {
  beam,
  column,
  door,
  gridLine,
  idsFrom,
  levelId,
  applied,
  planOf,
  refused,
  upperId,
  uuid,
  wall,
} from './testing/plan';
import { matching, treeOf } from './sorts';
import { changeField, giveMarks, heldByKind, holdElements, putOnLevel, selectable, similarTo } from './chosen';
import { moveElements } from './moved';
import { removeElements } from './removed';
import { takeCandidates } from './take';
import type { DrawingRow } from '@/core/model/state';

const small = {
  ...column(3, [9, 0]),
  shape: { ...column(3, [9, 0]).shape, section: { shape: 'circle', diameter: 0.3 } as const },
};
const plan = () =>
  planOf(
    column(1, [0, 0]),
    column(2, [5, 0]),
    small,
    wall(4, [0, 5], [6, 5]),
    door(5, 4, 1),
    gridLine(6, 'A', [0, 0], [9, 0]),
  );

test('elements are selected by kind, and by being like others: of one kind and one size', () => {
  const model = plan();
  expect(selectable(model, levelId).filter(({ kind }) => kind === 'column')).toHaveLength(3);
  expect(similarTo(model, levelId, [uuid(1)]).sort()).toEqual([uuid(1), uuid(2)]);
  expect(similarTo(model, levelId, [uuid(3)])).toEqual([uuid(3)]);
});

test('a value is changed for all that have it; one that breaks something is refused', () => {
  const model = plan();
  applied(model, changeField(model, [uuid(1), uuid(2), uuid(4)], 'Width', 0.5));
  expect(model.element[uuid(2)].shape).toMatchObject({ section: { width: 0.5, depth: 0.4 } });
  expect(model.element[uuid(4)].shape).toMatchObject({ thickness: 0.2 });
  expect(refused(changeField(model, [uuid(5)], 'Width', 9))).toMatch(/beyond the end of its wall/);
});

test('elements go to another level with their openings; a grid line belongs to none', () => {
  const model = plan();
  applied(model, putOnLevel(model, [uuid(4), uuid(6)], upperId));
  expect([4, 5, 6].map((n) => model.element[uuid(n)].levelId)).toEqual([upperId, upperId, null]);
  expect(refused(putOnLevel(model, [uuid(6)], upperId))).toMatch(/all of them/);
});

test('what is held is neither moved, nor deleted, nor selected, until it is let go', () => {
  const model = plan();
  model.apply(holdElements(model, [uuid(1), uuid(4)], true).changes);
  expect(heldByKind(model).map(([kind, { length }]) => [kind, length])).toEqual([
    ['column', 1],
    ['wall', 1],
  ]);
  expect(refused(moveElements(model, [uuid(1)], [1, 0]))).toMatch(/is held, because somebody has checked it/);
  expect(removeElements(model, [uuid(1)]).changes).toEqual([]);
  expect(selectable(model, levelId).filter(({ kind }) => kind === 'column')).toHaveLength(2);
  model.apply(holdElements(model, [uuid(1), uuid(4)], false).changes);
  expect(model).toEqual(plan());
});

test('marks are given row by row from the top, or column by column from the left', () => {
  const grid = () => planOf(column(1, [0, 5]), column(2, [6, 5.1]), column(3, [0, 0]), beam(4, [6, 0], [8, 0]));
  const all = [1, 2, 3, 4].map(uuid);
  const marks = (model: ReturnType<typeof grid>) => all.map((id) => (model.element[id].shape as { mark: string }).mark);
  const rows = grid();
  applied(rows, giveMarks(rows, all, { pattern: 'C{n}', first: 1, order: 'rows' }));
  expect(marks(rows)).toEqual(['C1', 'C2', 'C3', 'C4']);
  const columns = grid();
  applied(columns, giveMarks(columns, all, { pattern: 'C{n}', first: 10, order: 'columns' }));
  expect(marks(columns)).toEqual(['C11', 'C12', 'C10', 'C13']);
  expect(refused(giveMarks(rows, all, { pattern: 'C', first: 1, order: 'rows' }))).toMatch(/\{n\}/);
});

describe('taking', () => {
  const drawing = { id: uuid(800), name: 'Ground plan', levelId, alsoOn: [] } as unknown as DrawingRow;

  test('what was read becomes part of the model with its source, once', () => {
    const model = planOf();
    const wanted = candidateFor('column', column(0, [3, 3]).shape);
    applied(model, takeCandidates(model, drawing, [wanted], idsFrom(50)));
    expect(model.element[uuid(50)]).toMatchObject({ levelId, source: { drawing: drawing.id, handles: ['1A'] } });
    expect(refused(takeCandidates(model, drawing, [wanted], idsFrom(60)))).toMatch(/in the model already/);
  });

  test('what stands there already is left out, of many as of one', () => {
    const model = planOf(column(1, [3, 3]));
    const [there, fresh] = [
      candidateFor('column', column(0, [3, 3]).shape),
      candidateFor('column', column(0, [7, 3]).shape, '2B'),
    ];
    expect(refused(takeCandidates(model, drawing, [there], idsFrom(50)))).toMatch(/stands there already/);
    applied(model, takeCandidates(model, drawing, [there, fresh], idsFrom(50)));
    expect([...model.ofKind('column')].map(({ shape }) => shape.position).sort()).toEqual([
      [3, 3],
      [7, 3],
    ]);
  });

  test('from a drawing that hangs on no level it is refused, with what to do', () => {
    const loose = { ...drawing, levelId: null };
    const wanted = candidateFor('column', column(0, [3, 3]).shape);
    expect(refused(takeCandidates(planOf(), loose, [wanted], idsFrom(50)))).toMatch(/Give it one at Datum/);
  });
});

test('what is on a level is a tree by kind and size, and words find their way through it', () => {
  const wide = { ...column(3, [8, 0]), shape: { ...column(3, [8, 0]).shape, mark: 'C7' } };
  const rows = [
    column(1, [0, 0]),
    column(2, [4, 0]),
    { ...wide, shape: { ...wide.shape, section: { shape: 'circle', diameter: 0.5 } } } as const,
    wall(4, [0, 0], [4, 0]),
    wall(5, [4, 0], [8, 0], { thickness: 0.3 }),
  ];
  expect(
    treeOf(rows).map(({ kind, ids, sorts }) => [
      kind,
      ids.length,
      sorts.map(({ words, ids: own }) => [words, own.length]),
    ]),
  ).toEqual([
    [
      'column',
      3,
      [
        ['400 \u00d7 400', 2],
        ['\u2300 500', 1],
      ],
    ],
    [
      'wall',
      2,
      [
        ['200 mm, inner', 1],
        ['300 mm, inner', 1],
      ],
    ],
  ]);
  expect(matching(rows, 'wall 300').map(({ id }) => id)).toEqual([uuid(5)]);
  expect(matching(rows, 'c7').map(({ id }) => id)).toEqual([uuid(3)]);
  expect(matching(rows, '  ')).toHaveLength(5);
});
