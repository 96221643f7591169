import * as v from 'valibot';
import type { Look, ViewRow } from './look';
import { viewRow } from './look';
import { Model } from './model';
import { emptyState } from './state';
import { forgetView, giveKey, keepView, lookNow, viewsOf } from './views';

const uuid = (n: number): string => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;
const look: Look = {
  levelId: uuid(1),
  faceOn: null,
  camera: { x: 1, y: 2, metresPerPixel: 0.01 },
  drawings: [uuid(2), uuid(3)],
  isolated: [{ drawing: uuid(3), layers: ['A-WALL'] }],
  beside: uuid(3),
  inSpace: true,
  orbit: null,
  space: { alone: false, cut: 1.2, through: true, axes: false },
};
let last = 10;
const newId = () => uuid((last += 1));

function kept(...names: string[]): Model {
  const model = new Model(emptyState);
  for (const name of names) model.apply(keepView(model, name, look, newId).changes);
  return model;
}

test('a view of the same name becomes the new one, and keeps its key', () => {
  const model = kept('Plant room', 'Stair');
  const [plant] = viewsOf(model);
  model.apply(giveKey(model, plant, 'q').changes);
  model.apply(keepView(model, ' plant ROOM ', { ...look, inSpace: false }, newId).changes);
  const rows = viewsOf(model);
  expect(rows.map(({ name, key }) => [name, key])).toEqual([
    ['plant ROOM', 'q'],
    ['Stair', null],
  ]);
  expect(rows[0].id).toBe(plant.id);
  expect(rows[0].look.inSpace).toBe(false);
  for (const row of rows) expect(v.is(viewRow, row)).toBe(true);
});

test('a letter recalls one view only; a deleted view comes back by undo', () => {
  const model = kept('A', 'B');
  const [a, b] = viewsOf(model);
  model.apply(giveKey(model, a, 'q').changes);
  model.apply(giveKey(model, b, 'q').changes);
  expect(viewsOf(model).map(({ key }) => key)).toEqual([null, 'q']);
  const back = model.apply(forgetView(viewsOf(model)[1]).changes);
  expect(viewsOf(model)).toHaveLength(1);
  model.apply(back);
  expect(viewsOf(model)[1].key).toBe('q');
});

test('what has gone meanwhile is left out', () => {
  const drawing = (id: string, discarded: boolean) => ({
    id,
    name: id,
    fileId: uuid(90),
    fileName: 'a.dxf',
    revision: 1,
    levelId: null,
    alsoOn: [],
    discarded,
    setAside: false,
  });
  const state = { ...emptyState, drawing: { [uuid(2)]: drawing(uuid(2), false), [uuid(3)]: drawing(uuid(3), true) } };
  const now = lookNow(state, { ...look, faceOn: uuid(2) });
  expect(now).toMatchObject({ levelId: null, faceOn: null, drawings: [uuid(2)], isolated: [], beside: null });
  // Where none of its drawings is left, all are seen.
  expect(lookNow(emptyState, look).drawings).toBeNull();
});

test('a view with a key that is no letter, or without a name, is none', () => {
  const row: ViewRow = { id: uuid(5), name: 'X', key: null, look };
  expect(v.is(viewRow, { ...row, key: 'Q' })).toBe(false);
  expect(v.is(viewRow, { ...row, key: '5' })).toBe(false);
  expect(v.is(viewRow, { ...row, name: ' ' })).toBe(false);
});
