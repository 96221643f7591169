import type { ElementRow } from '@/core/kinds/element';
import { put } from '@/core/model/edits';
import { Model } from '@/core/model/model';
import { moveElements } from './moved';
import { removeElements } from './removed';

const uuid = (n: number) => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;
const common = { levelId: null, source: null };
const wall: ElementRow = {
  ...common,
  id: uuid(1),
  kind: 'wall',
  shape: { start: [0, 0], end: [6, 0], thickness: 0.2, height: null, bulge: 0, outer: false },
};
const door: ElementRow = {
  ...common,
  id: uuid(2),
  kind: 'opening',
  shape: { wall: uuid(1), use: 'door', offset: 2, width: 1, height: 2, sill: 0 },
};
const decision = {
  id: `${uuid(9)}/k`,
  drawingId: uuid(9),
  key: 'k',
  verdict: 'accepted' as const,
  elementId: uuid(2),
  seen: null,
};

function modelled(): Model {
  const model = new Model();
  model.apply([put('element', wall), put('element', door), put('decision', decision)]);
  return model;
}

test('an opening goes with its wall; without it, it slides along', () => {
  const model = modelled();
  model.apply(moveElements(model, [uuid(1), uuid(2)], [1, 5]).changes);
  expect(model.element[uuid(1)].shape).toMatchObject({ start: [1, 5], end: [7, 5] });
  expect(model.element[uuid(2)].shape).toMatchObject({ offset: 2 });
  const edit = moveElements(model, [uuid(2)], [1, 3]);
  expect(edit.label).toBe('Move 1 opening');
  model.apply(edit.changes);
  expect(model.element[uuid(2)].shape).toMatchObject({ offset: 3 });
});

test('a wall is deleted with its openings and their decisions, each once, and undo brings all back', () => {
  const model = modelled();
  const edit = removeElements(model, [uuid(1), uuid(2)]);
  expect(edit.label).toBe('Delete 1 wall, 1 opening');
  expect(new Set(edit.changes.map(({ id }) => id)).size).toBe(edit.changes.length);
  const back = model.apply(edit.changes);
  expect([model.count('element'), model.count('decision')]).toEqual([0, 0]);
  model.apply(back);
  expect(model).toEqual(modelled());
});
