import type { ElementOf } from '@/core/kinds/element';
import { put } from '@/core/model/edits';
import { plainLevel } from '@/core/model/levels';
import { applyChanges, Model } from '@/core/model/model';
import { emptyState } from '@/core/model/state';
import { luminairesIn, relit } from './relit';

const uuid = (n: number) => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;
let next = 100;
const newId = () => uuid((next += 1));

const zone: ElementOf<'zone'> = {
  id: uuid(2),
  levelId: uuid(1),
  source: null,
  kind: 'zone',
  shape: {
    name: 'Lab',
    number: '',
    outline: [
      [0, 0],
      [6, 0],
      [6, 4],
      [0, 4],
    ],
    holes: [
      [
        [2, 1],
        [3, 1],
        [3, 2],
        [2, 2],
      ],
    ],
    height: null,
  },
};
const lamp = (n: number, position: [number, number], levelId = uuid(1)) =>
  put('element', {
    id: uuid(n),
    levelId,
    source: null,
    kind: 'luminaire',
    shape: { position, rise: 2.8, rotation: 0, tilt: 0, photometry: 'panel', output: 1 },
  });

test('a field takes the place of what hangs in the room, and of nothing else', () => {
  const level = (n: number, elevation: number) =>
    put('level', { ...plainLevel, id: uuid(n), name: `Level ${n}`, elevation, height: 3 });
  const model = new Model(
    applyChanges(emptyState, [
      level(1, 0),
      level(9, 3),
      put('element', zone),
      lamp(3, [1, 1]),
      // In the hole, beside the room, over it on another level.
      lamp(4, [2.5, 1.5]),
      lamp(5, [8, 1]),
      lamp(6, [1, 1], uuid(9)),
    ]).state,
  );
  expect(luminairesIn(model, zone).map(({ id }) => id)).toEqual([uuid(3)]);
  const field = { places: [[1, 2] as const, [5, 2] as const], rotation: 90, rise: 2.5, photometry: 'linear' };
  const edit = relit(model, zone, field, newId);
  expect(edit.label).toBe('Light Lab by 2 luminaires');
  const after = new Model(applyChanges(model, edit.changes).state);
  expect([...after.ofKind('luminaire')].map(({ id }) => id)).toEqual(
    expect.arrayContaining([uuid(4), uuid(5), uuid(6)]),
  );
  expect(
    luminairesIn(after, zone).map(({ shape, levelId }) => [shape.position, shape.rise, shape.rotation, levelId]),
  ).toEqual([
    [[1, 2], 2.5, 90, uuid(1)],
    [[5, 2], 2.5, 90, uuid(1)],
  ]);
});
