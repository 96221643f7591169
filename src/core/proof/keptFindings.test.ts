import * as fc from 'fast-check';
import type { ElementRow } from '@/core/kinds/element';
import { put, remove, type Change } from '@/core/model/edits';
import { writeModel } from '@/core/handover/model/writeModel';
import { resolveBuilding } from '@/core/resolved/resolve';
import { beam, column, door, levelId, planOf, slab, uuid, wall } from '@/core/tracing/testing/plan';
import { KeptFindings } from './keptFindings';
import { prove } from './prove';

/** Two rooms side by side with a column at each corner. */
const plan = (): ElementRow[] => [
  wall(1, [0, 0], [6, 0]),
  wall(2, [6, 0], [6, 4]),
  wall(3, [6, 4], [0, 4]),
  wall(4, [0, 4], [0, 0]),
  wall(5, [6, 0], [12, 0]),
  wall(6, [12, 0], [12, 4]),
  wall(7, [12, 4], [6, 4]),
  door(20, 1, 2),
  door(21, 2, 1.5),
  column(30, [0, 0]),
  column(31, [12, 4]),
  beam(40, [0, 4], [12, 4]),
  slab(50, [
    [0, 0],
    [12, 0],
    [12, 4],
    [0, 4],
  ]),
];

const told = (findings: ReturnType<typeof prove>): string[] =>
  findings.map(({ rule, message, elements }) => `${rule}: ${message} ${[...elements].sort().join()}`).sort();

const small = fc.integer({ min: -4, max: 14 }).map((n) => n * 0.97);
const point = fc.tuple(small, small);
const change: fc.Arbitrary<Change> = fc.oneof(
  fc.tuple(fc.integer({ min: 1, max: 9 }), point, point).map(([n, a, b]) => put('element', wall(n, a, b))),
  fc.tuple(fc.integer({ min: 30, max: 35 }), point).map(([n, at]) => put('element', column(n, at))),
  fc.tuple(fc.integer({ min: 40, max: 44 }), point, point).map(([n, a, b]) => put('element', beam(n, a, b))),
  fc.tuple(fc.integer({ min: 20, max: 23 }), small).map(([n, at]) => put('element', door(n, 1, Math.abs(at)))),
  fc.integer({ min: 30, max: 44 }).map((n) => remove('element', uuid(n))),
);

test('after any edits it tells what is found when everything is asked again', () => {
  fc.assert(
    fc.property(fc.array(fc.array(change, { minLength: 1, maxLength: 3 }), { minLength: 1, maxLength: 6 }), (edits) => {
      const model = planOf(...plan(), ...far());
      const kept = new KeptFindings(model);
      kept.all();
      for (const changes of edits) {
        model.apply(changes);
        const building = resolveBuilding({
          levels: Object.values(model.level),
          elements: Object.values(model.element),
          unbounded: true,
        });
        const anew = prove(writeModel({ building, drawingName: (id) => id }));
        kept.soon();
        expect(told(kept.all())).toEqual(told(anew));
      }
    }),
    { numRuns: 60 },
  );
});

/** Enough elements elsewhere that a change is one of a few. */
const far = (): ElementRow[] => Array.from({ length: 120 }, (_, i) => column(500 + i, [100 + 3 * (i % 12), 5 * i]));

test('what lies far from a change is not asked again', () => {
  const model = planOf(...plan(), ...far());
  const kept = new KeptFindings(model);
  kept.all();
  // A column in the place of another, far away, is put there behind its back.
  const [first, second] = [model.element[uuid(500)], model.element[uuid(501)]];
  if (first.kind !== 'column' || second.kind !== 'column') throw new Error('These are columns');
  Object.assign(model.element, { [uuid(501)]: { ...second, shape: first.shape } });
  model.apply([put('element', column(32, [6, 0]))]);
  expect(kept.soon().some(({ rule }) => rule === 'doubled')).toBe(false);
  // A change of a level asks about everything.
  model.apply([put('level', { ...model.level[levelId], height: 3.2 })]);
  expect(kept.soon().some(({ rule }) => rule === 'doubled')).toBe(true);
});
