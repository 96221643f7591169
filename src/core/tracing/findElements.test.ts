import { put } from '@/core/model/edits';
import { Model } from '@/core/model/model';
import { findElements } from './findElements';
import { beam, column, levelId, planOf, uuid, wall } from './testing/plan';

const zone = {
  id: uuid(50),
  levelId,
  source: { drawing: uuid(7), handles: ['2F1', '2F2'] },
  libraryId: null,
  kind: 'zone' as const,
  shape: {
    name: 'Wet Lab',
    number: '0.10',
    outline: [
      [0, 0],
      [6, 0],
      [6, 4],
    ] as [number, number][],
    holes: [],
    height: null,
  },
};
const marked = (n: number, mark: string) => {
  const row = beam(n, [0, n], [6, n]);
  return { ...row, shape: { ...row.shape, mark } };
};

function model(): Model {
  const made: Model = planOf(marked(1, 'T1'), marked(2, 'T14'), column(3, [0, 0]), wall(4, [0, 0], [6, 0]));
  made.apply([put('element', zone)]);
  return made;
}
const ids = (...words: string[]) => findElements(model(), words).map(({ id }) => id);

test('elements are found by mark, room name and number, size, kind, level and handle', () => {
  expect(ids('t14')).toEqual([uuid(2)]);
  expect(ids('wet', 'lab')).toEqual([uuid(50)]);
  expect(ids('0.10')).toEqual([uuid(50)]);
  expect(ids('2f2')).toEqual([uuid(50)]);
  expect(ids('beam', '300')).toEqual([uuid(1), uuid(2)]);
  // A zone of half of 6 m x 4 m.
  expect(ids('12.00', 'zone')).toEqual([uuid(50)]);
  expect(ids('nothing', 'such')).toEqual([]);
  expect(ids()).toEqual([]);
});

test('what is just called so comes before what only begins so', () => {
  expect(ids('t1')).toEqual([uuid(1), uuid(2)]);
});

test('a changed row is found by what it is now, a level by its new name', () => {
  const now = model();
  const row = marked(1, 'T99');
  expect(findElements(now, ['t1'])[0].id).toBe(uuid(1));
  now.apply([put('element', row)]);
  expect(findElements(now, ['t99']).map(({ id }) => id)).toEqual([uuid(1)]);
  now.apply([put('level', { ...now.level[levelId], name: 'Mezzanine' })]);
  expect(findElements(now, ['mezzanine', 't99']).map(({ id }) => id)).toEqual([uuid(1)]);
});
