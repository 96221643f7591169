import type { ElementOf } from '@/core/kinds/element';
import { dropsOf } from '@/core/kinds/beam';
import { fitZones, pointInside } from './fitted';
import * as v from 'valibot';
import { removeLevel } from '../model/levels';
import { elementRow } from '../model/state';
import { area } from '../geometry/polygon';
import { putOnLevel } from './chosen';
import { moveElements } from './moved';
import { joinElements, splitElement } from './parts';
import { runAlike, turnedRound, turnRound } from './memberAxes';
import { tieEnds } from './ties';
import { applied, beam, column, idsFrom, levelId, planOf, refused, upperId, uuid, wall } from './testing/plan';

const common = { levelId, source: null, libraryId: null };
const shapeOf = (model: ReturnType<typeof planOf>, n: number) =>
  model.element[uuid(n)].shape as ElementOf<'beam'>['shape'];

describe('ties', () => {
  test('are set and taken, of the kinds that have such an end, in one edit', () => {
    const model = planOf(column(1, [0, 0]), wall(2, [0, 0], [5, 0]), beam(3, [0, 0], [5, 0]));
    applied(model, tieEnds(model, [uuid(1), uuid(2), uuid(3)], 'top', { level: upperId, offset: -0.2 }));
    expect([1, 2, 3].map((n) => (model.element[uuid(n)].shape as { ties?: unknown }).ties)).toEqual([
      { top: { level: upperId, offset: -0.2 } },
      { top: { level: upperId, offset: -0.2 } },
      undefined,
    ]);
    applied(model, tieEnds(model, [uuid(1)], 'top', null));
    expect(model.element[uuid(1)].shape).toEqual(column(1, [0, 0]).shape);
    expect(refused(tieEnds(model, [uuid(3)], 'base', null))).toMatch(/Nothing selected/);
    expect(refused(tieEnds(model, [uuid(1)], 'top', { level: uuid(777), offset: 0 }))).toMatch(
      /level that is not there/,
    );
  });

  test('go along to another level, as many storeys away, and go with the level that they name', () => {
    const tied = {
      ...column(1, [0, 0]),
      shape: { ...column(1, [0, 0]).shape, ties: { base: { level: levelId, offset: 1 } } },
    };
    const model = planOf(tied);
    applied(model, putOnLevel(model, [uuid(1)], upperId));
    expect(shapeOf(model, 1).ties).toEqual({ base: { level: upperId, offset: 1 } });
    applied(model, putOnLevel(model, [uuid(1)], levelId));
    applied(model, tieEnds(model, [uuid(1)], 'top', { level: upperId, offset: 0 }));
    applied(model, removeLevel(model, upperId, { kind: 'drop' }, idsFrom(500)));
    expect(shapeOf(model, 1).ties).toEqual({ base: { level: levelId, offset: 1 } });
  });
});

describe('inclined members', () => {
  const brace = (n: number, drop: number, endDrop: number): ElementOf<'beam'> => ({
    ...beam(n, [0, 0], [4, 0]),
    shape: { ...beam(n, [0, 0], [4, 0]).shape, drop, endDrop },
  });

  test('are split with their height, and joined again to what they were', () => {
    const model = planOf(brace(1, 0, 2));
    applied(model, splitElement(model, uuid(1), [1, 0.3], idsFrom(2)));
    // A quarter along a fall of 2 m.
    expect([dropsOf(shapeOf(model, 1)), dropsOf(shapeOf(model, 2))]).toEqual([
      [0, 0.5],
      [0.5, 2],
    ]);
    applied(model, joinElements(model, [uuid(1), uuid(2)]));
    expect([shapeOf(model, 1).end, dropsOf(shapeOf(model, 1))]).toEqual([
      [4, 0],
      [0, 2],
    ]);
  });

  test('of another slope are not joined', () => {
    const low: ElementOf<'beam'> = { ...beam(2, [4, 0], [8, 0]), shape: { ...beam(2, [4, 0], [8, 0]).shape, drop: 2 } };
    const model = planOf(brace(1, 0, 2), low);
    expect(refused(joinElements(model, [uuid(1), uuid(2)]))).toMatch(/heights or slopes differ/);
  });

  test('turned round twice are what they were; once, start and end, left and right have changed places', () => {
    const shape = { ...brace(1, 0.5, 2).shape, justification: 'left', angle: 30 } as const;
    const once = turnedRound(shape);
    expect(once).toMatchObject({
      start: [4, 0],
      end: [0, 0],
      drop: 2,
      endDrop: 0.5,
      justification: 'right',
      angle: -30,
    });
    expect(turnedRound(once)).toEqual(shape);
  });

  test('run alike: along the axes, and what lies across to their left', () => {
    const model = planOf(beam(1, [5, 0], [0, 0]), beam(2, [0, 0], [0, 5]), beam(3, [9, 5], [9, 0]));
    applied(model, runAlike(model, [uuid(1), uuid(2), uuid(3)], 0));
    expect([1, 2, 3].map((n) => shapeOf(model, n).start)).toEqual([
      [0, 0],
      [0, 0],
      [9, 0],
    ]);
    expect(refused(runAlike(model, [uuid(1)], 0))).toMatch(/alike already/);
    applied(model, turnRound(model, [uuid(1)]));
    expect(shapeOf(model, 1).start).toEqual([5, 0]);
  });
});

test('a support and a load at a column go along with it, and the end of a line load with its beam', () => {
  const at = { ...common, levelId };
  const model = planOf(
    column(1, [0, 0]),
    { ...at, id: uuid(2), kind: 'support', shape: { position: [0, 0], rise: 0, fixed: ['z'] } },
    { ...at, id: uuid(3), kind: 'lineLoad', shape: { case: 'Q', start: [0, 0], end: [5, 0], rise: 0, q: [0, 0, -1] } },
  );
  applied(model, moveElements(model, [uuid(1)], [1, 1]));
  expect([model.element[uuid(2)].shape, model.element[uuid(3)].shape]).toMatchObject([
    { position: [1, 1] },
    { start: [1, 1], end: [5, 0] },
  ]);
});

describe('zones', () => {
  const walls = [wall(1, [0, 0], [6, 0]), wall(2, [6, 0], [6, 4]), wall(3, [6, 4], [0, 4]), wall(4, [0, 4], [0, 0])];
  const zone: ElementOf<'zone'> = {
    ...common,
    id: uuid(9),
    kind: 'zone',
    shape: {
      name: 'Lab',
      number: '1',
      outline: [
        [0.1, 0.1],
        [4.9, 0.1],
        [4.9, 3.9],
        [0.1, 3.9],
      ],
      holes: [],
      height: null,
    },
  };

  test('are put to the walls that are about them now, and keep what they are', () => {
    const model = planOf(...walls, zone);
    applied(model, fitZones(model, [uuid(9)], 0.05));
    const shape = model.element[uuid(9)].shape as ElementOf<'zone'>['shape'];
    expect([Number(Math.abs(area(shape.outline)).toFixed(9)), shape.name]).toEqual([
      Number((5.8 * 3.8).toFixed(9)),
      'Lab',
    ]);
    // Nothing else comes with the region: the server takes an element as its kind has it, and no more.
    expect(v.is(elementRow, model.element[uuid(9)])).toBe(true);
    expect(refused(fitZones(model, [uuid(9)], 0.05))).toMatch(/fit their walls already/);
  });

  test('that no walls close stay as they are, and it is said', () => {
    const model = planOf(...walls.slice(0, 3), zone);
    expect(refused(fitZones(model, [uuid(9)], 0.05))).toMatch(/leave gaps/);
  });

  test('have a point inside of them whatever their shape', () => {
    // An angle whose centre of area lies outside, and a ring.
    const angle: [number, number][] = [
      [0, 0],
      [10, 0],
      [10, 1],
      [1, 1],
      [1, 10],
      [0, 10],
    ];
    const [x, y] = pointInside({ outline: angle });
    expect(x > 0 && x < (y < 1 ? 10 : 1) && y > 0 && y < 10).toBe(true);
    const ring = pointInside({
      outline: [
        [0, 0],
        [9, 0],
        [9, 9],
        [0, 9],
      ],
      holes: [
        [
          [3, 3],
          [6, 3],
          [6, 6],
          [3, 6],
        ],
      ],
    });
    expect(ring[0] < 3 || ring[0] > 6).toBe(true);
  });
});
