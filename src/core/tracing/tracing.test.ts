import fc from 'fast-check';
import { area } from '@/core/geometry/polygon';
import { distance, type Point } from '@/core/geometry/vector';
import { kinds } from '@/core/kinds/kinds';
import { wallLength } from '@/core/kinds/wall';
import { put, type Change } from '@/core/model/edits';
import type { Model } from '@/core/model/model';
import { alignElements } from './align';
import { clipOf, inARow, pasteClip, repeatElements, toPoints } from './copied';
import { addCorner, bendEdge, dragGrip, removeCorner } from './corners';
import { mirrorElements, moveElements, turnElements } from './moved';
import { joinElements, splitElement } from './parts';
import { closeCorner, reachTo } from './reach';
import { removeElements } from './removed';
import { setOffEdges, setOffElements } from './setOff';
import {
  applied,
  beam,
  column,
  door,
  gridLine,
  idsFrom,
  planOf,
  refused,
  slab,
  upperId,
  uuid,
  wall,
} from './testing/plan';

const decision = {
  id: `${uuid(9)}/k`,
  drawingId: uuid(9),
  key: 'k',
  verdict: 'accepted' as const,
  elementId: uuid(2),
  seen: null,
};
const shapeOf = (model: Model, n: number) => model.element[uuid(n)]?.shape as Record<string, unknown>;
const rounded = (value: unknown): unknown =>
  JSON.parse(JSON.stringify(value, (_, v: unknown) => (typeof v === 'number' ? Number(v.toFixed(9)) + 0 : v)));

describe('moving', () => {
  test('an opening goes with its wall; without it, it slides along', () => {
    const model = planOf(wall(1, [0, 0], [6, 0]), door(2, 1, 2));
    applied(model, moveElements(model, [uuid(1), uuid(2)], [1, 5]));
    expect(shapeOf(model, 1)).toMatchObject({ start: [1, 5], end: [7, 5] });
    expect(shapeOf(model, 2)).toMatchObject({ offset: 2 });
    const edit = moveElements(model, [uuid(2)], [1, 3]);
    expect(edit).toMatchObject({ ok: true, value: { label: 'Move 1 opening' } });
    applied(model, edit);
    expect(shapeOf(model, 2)).toMatchObject({ offset: 3 });
  });

  test('what is joined at a node moves with it, or is torn off; openings in what follows stay where they are', () => {
    const corner = () => planOf(wall(1, [0, 0], [6, 0]), wall(2, [6, 0], [6, 4]), door(3, 2, 1), column(4, [6, 0]));
    const joined = corner();
    applied(joined, moveElements(joined, [uuid(1)], [0, -1]));
    expect(shapeOf(joined, 2)).toMatchObject({ start: [6, -1], end: [6, 4] });
    // The door stood 1 m from the old start, so 2 m from the new one; the column stays.
    expect(shapeOf(joined, 3)).toMatchObject({ offset: 2 });
    expect(shapeOf(joined, 4)).toMatchObject({ position: [6, 0] });
    const torn = corner();
    applied(torn, moveElements(torn, [uuid(1)], [0, -1], 'torn'));
    expect(shapeOf(torn, 2)).toMatchObject({ start: [6, 0] });
  });

  test('a column takes the ends of beams and walls along; a line that follows at both ends is carried by both', () => {
    const model = planOf(column(1, [0, 0]), column(2, [6, 0]), beam(3, [0, 0], [6, 0]));
    applied(model, moveElements(model, [uuid(1), uuid(2)], [0, 2]));
    expect(shapeOf(model, 3)).toMatchObject({ start: [0, 2], end: [6, 2] });
  });

  test('a quarter turn and a mirror, by hand', () => {
    const model = planOf(beam(1, [1, 0], [3, 0]), column(2, [2, 1]));
    applied(model, turnElements(model, [uuid(1), uuid(2)], [1, 0], Math.PI / 2));
    expect(rounded(shapeOf(model, 1))).toMatchObject({ start: [1, 0], end: [1, 2] });
    expect(rounded(shapeOf(model, 2))).toMatchObject({ position: [0, 1], rotation: 90 });
    applied(model, mirrorElements(model, [uuid(1)], [0, 0], [1, 1]));
    expect(rounded(shapeOf(model, 1))).toMatchObject({ start: [0, 1], end: [2, 1] });
    expect(refused(mirrorElements(model, [uuid(1)], [1, 1], [1, 1]))).toMatch(/two points/i);
  });
});

test('a wall is deleted with its openings and their decisions, each once, and undo brings all back', () => {
  const made = () => {
    const model = planOf(wall(1, [0, 0], [6, 0]), door(2, 1, 2));
    model.apply([put('decision', decision)]);
    return model;
  };
  const model = made();
  const edit = removeElements(model, [uuid(1), uuid(2)]);
  expect(edit.label).toBe('Delete 1 wall, 1 opening');
  expect(new Set(edit.changes.map(({ id }) => id)).size).toBe(edit.changes.length);
  const back = model.apply(edit.changes);
  expect([model.count('element'), model.count('decision')]).toEqual([0, 0]);
  model.apply(back);
  expect(model).toEqual(made());
});

describe('copying', () => {
  test('a wall is copied with its door, which is in the copy; grid lines get labels of their own', () => {
    const model = planOf(wall(1, [0, 0], [6, 0]), door(2, 1, 2), gridLine(3, 'A', [0, 0], [9, 0]));
    applied(model, repeatElements(model, [uuid(1), uuid(3)], inARow([0, 4], 2), idsFrom(50)));
    expect([...model.ofKind('wall')].map(({ shape }) => shape.start[1]).sort()).toEqual([0, 4, 8]);
    for (const { id, shape } of model.ofKind('opening'))
      expect([...model.index.openingsOf(shape.wall)].map((one) => one.id)).toEqual([id]);
    expect([...model.ofKind('grid')].map(({ shape }) => shape.label).sort()).toEqual(['A', "A'", "A''"]);
  });

  test('along the grid: copies come to the other crossings, not onto what is copied', () => {
    expect(
      toPoints(
        [1, 1],
        [
          [1, 1],
          [4, 1],
          [4, 5],
        ],
      ),
    ).toEqual([
      [3, 0],
      [3, 4],
    ]);
    const model = planOf(column(1, [0, 0]));
    expect(refused(repeatElements(model, [uuid(1)], [[0, 0]], idsFrom(50)))).toMatch(/stands there already/);
  });

  test('a clip is pasted to several levels at once, in another project without what its library has not got', () => {
    const from = planOf(wall(1, [0, 0], [6, 0]), door(2, 1, 2));
    const clip = clipOf(from, [uuid(1)], [0, 0]);
    clip.elements[0] = { ...clip.elements[0], libraryId: uuid(77) };
    const to = planOf();
    applied(to, pasteClip(to, clip, [10, 0], Object.keys(to.level), idsFrom(60)));
    expect([...to.ofKind('wall')].map(({ levelId, shape }) => [levelId === upperId, shape.start])).toEqual(
      expect.arrayContaining([
        [false, [10, 0]],
        [true, [10, 0]],
      ]),
    );
    // The library of the other project has an entry of that thickness now, once.
    expect(to.count('library')).toBe(1);
    for (const { libraryId } of to.ofKind('wall')) expect(libraryId).toBe(Object.keys(to.library)[0]);
    expect(refused(pasteClip(to, { elements: [], base: [0, 0] }, [0, 0], [upperId], idsFrom(1)))).toMatch(/copied/);
  });
});

describe('cutting back, lengthening and corners', () => {
  test('a wall reaches to a line, at the end that is nearer; its door stays in plan', () => {
    const model = planOf(wall(1, [0, 0], [6, 0]), door(2, 1, 3));
    applied(
      model,
      reachTo(
        model,
        uuid(1),
        [0.5, 0],
        [
          [1, -5],
          [1, 5],
        ],
      ),
    );
    expect(shapeOf(model, 1)).toMatchObject({ start: [1, 0], end: [6, 0] });
    expect(shapeOf(model, 2)).toMatchObject({ offset: 2 });
    applied(
      model,
      reachTo(
        model,
        uuid(1),
        [5, 0],
        [
          [9, 0],
          [10, 1],
        ],
      ),
    );
    expect(shapeOf(model, 1)).toMatchObject({ end: [9, 0] });
  });

  test('an arc goes on along its circle', () => {
    // A quarter of the circle of radius 2 about zero, from east to north, lengthened to the line x = -sqrt(2).
    const model = planOf(wall(1, [2, 0], [0, 2], { bulge: Math.tan(Math.PI / 8) }));
    const x = -Math.SQRT2;
    applied(
      model,
      reachTo(
        model,
        uuid(1),
        [0, 2],
        [
          [x, 0],
          [x, 1],
        ],
      ),
    );
    expect(rounded(shapeOf(model, 1))).toMatchObject(rounded({ end: [x, Math.SQRT2] }) as object);
    // 135 degrees of radius 2.
    expect(wallLength(shapeOf(model, 1) as never)).toBeCloseTo((2 * Math.PI * 3) / 4, 9);
  });

  test('a cut beyond the other end, a parallel line and an opening that would hang out are refused', () => {
    const model = planOf(wall(1, [0, 0], [6, 0]), door(2, 1, 3));
    expect(
      refused(
        reachTo(
          model,
          uuid(1),
          [5, 0],
          [
            [-1, -5],
            [-1, 5],
          ],
        ),
      ),
    ).toMatch(/nothing would be left/);
    expect(
      refused(
        reachTo(
          model,
          uuid(1),
          [5, 0],
          [
            [0, 1],
            [5, 1],
          ],
        ),
      ),
    ).toMatch(/parallel/);
    expect(
      refused(
        reachTo(
          model,
          uuid(1),
          [5, 0],
          [
            [3.5, -5],
            [3.5, 5],
          ],
        ),
      ),
    ).toMatch(/beyond the end of its wall/);
  });

  test('a corner is closed where the two lines meet: one cut back, one lengthened', () => {
    const model = planOf(wall(1, [0, 0], [6, 0]), wall(2, [5, 1], [5, 4]));
    applied(model, closeCorner(model, uuid(1), uuid(2)));
    expect([shapeOf(model, 1), shapeOf(model, 2)]).toMatchObject([
      { start: [0, 0], end: [5, 0] },
      { start: [5, 0], end: [5, 4] },
    ]);
    expect([...model.index.endingAt(model.element[uuid(1)].levelId, [5, 0])]).toHaveLength(2);
  });
});

describe('splitting and joining', () => {
  test('a wall is split with its openings dealt out, and joined to what it was', () => {
    const model = planOf(wall(1, [0, 0], [6, 0]), door(2, 1, 1), door(3, 1, 4));
    applied(model, splitElement(model, uuid(1), [3, 0.1], idsFrom(50)));
    expect([shapeOf(model, 1), shapeOf(model, 50)]).toMatchObject([{ end: [3, 0] }, { start: [3, 0], end: [6, 0] }]);
    expect([shapeOf(model, 2), shapeOf(model, 3)]).toMatchObject([
      { wall: uuid(1), offset: 1 },
      { wall: uuid(50), offset: 1 },
    ]);
    applied(model, joinElements(model, [uuid(1), uuid(50)]));
    expect(model).toEqual(planOf(wall(1, [0, 0], [6, 0]), door(2, 1, 1), door(3, 1, 4)));
  });

  test('an arc is split by length, both parts on its circle', () => {
    const model = planOf(wall(1, [2, 0], [0, 2], { bulge: Math.tan(Math.PI / 8) }));
    applied(model, splitElement(model, uuid(1), [Math.SQRT2, Math.SQRT2], idsFrom(50)));
    for (const n of [1, 50]) expect(wallLength(shapeOf(model, n) as never)).toBeCloseTo(Math.PI / 2, 9);
    applied(model, joinElements(model, [uuid(1), uuid(50)]));
    expect(wallLength(shapeOf(model, 1) as never)).toBeCloseTo(Math.PI, 9);
  });

  test('what was accepted from the drawing stays accepted when its element is joined to another', () => {
    const model = planOf(wall(1, [0, 0], [3, 0]), wall(2, [3, 0], [6, 0]));
    model.apply([put('decision', decision)]);
    applied(model, joinElements(model, [uuid(1), uuid(2)]));
    expect(Object.values(model.decision)).toMatchObject([{ elementId: uuid(1) }]);
  });

  test('a cut through a door, a cut at an end, and two walls round a corner are refused', () => {
    const model = planOf(wall(1, [0, 0], [6, 0]), door(2, 1, 2.5), wall(3, [6, 0], [6, 4]));
    expect(refused(splitElement(model, uuid(1), [3, 0], idsFrom(50)))).toMatch(/through an opening/);
    expect(refused(splitElement(model, uuid(1), [6, 0], idsFrom(50)))).toMatch(/between its ends/);
    expect(refused(joinElements(model, [uuid(1), uuid(3)]))).toMatch(/one line/);
  });
});

describe('outlines and lines beside', () => {
  const rectangle: Point[] = [
    [0, 0],
    [4, 0],
    [4, 3],
    [0, 3],
  ];

  test('a wall is set off as a copy to its left; a slab grows outwards, edges each by their own', () => {
    const model = planOf(wall(1, [0, 0], [6, 0]), slab(2, rectangle));
    applied(model, setOffElements(model, [uuid(1), uuid(2)], 0.5, idsFrom(50)));
    expect(shapeOf(model, 50)).toMatchObject({ start: [0, 0.5], end: [6, 0.5] });
    expect(Math.abs(area(shapeOf(model, 2).outline as Point[]))).toBeCloseTo(5 * 4, 9);
    applied(model, setOffEdges(model, uuid(2), [1, 0, -0.5, 0]));
    // 5 wide; 4 high, 1 lower below and half a metre lower above.
    expect(Math.abs(area(shapeOf(model, 2).outline as Point[]))).toBeCloseTo(5 * 4.5, 9);
    expect(refused(setOffElements(model, [uuid(2)], -3, idsFrom(60)))).toMatch(/vanish/);
  });

  test('corners are added, removed and dragged; an edge is bent to an arc', () => {
    const model = planOf(slab(1, rectangle));
    applied(model, addCorner(model, uuid(1), [2, -1]));
    expect(Math.abs(area(shapeOf(model, 1).outline as Point[]))).toBeCloseTo(12 + 2, 9);
    applied(model, dragGrip(model, uuid(1), '0/1', [2, -2]));
    expect(Math.abs(area(shapeOf(model, 1).outline as Point[]))).toBeCloseTo(12 + 4, 9);
    applied(model, removeCorner(model, uuid(1), [2, -1.9]));
    expect(shapeOf(model, 1).outline).toEqual(rectangle);
    // Half a circle of radius 1.5 over the right edge, in chords that leave it by 1 mm at most.
    applied(model, bendEdge(model, uuid(1), [5.5, 1.5]));
    expect(Math.abs(area(shapeOf(model, 1).outline as Point[]))).toBeCloseTo(12 + (Math.PI * 1.5 ** 2) / 2, 1);
  });

  test('an outline that would cross itself is refused, and three corners stay', () => {
    const model = planOf(
      slab(1, rectangle),
      slab(2, [
        [10, 0],
        [12, 0],
        [11, 2],
      ]),
    );
    expect(refused(dragGrip(model, uuid(1), '0/0', [5, 2]))).toMatch(/crosses itself/);
    expect(refused(removeCorner(model, uuid(2), [11, 2]))).toMatch(/three corners/);
  });

  test('a wall bent through a point is an arc through it', () => {
    const model = planOf(wall(1, [0, 0], [2, 0]));
    applied(model, bendEdge(model, uuid(1), [1, -1]));
    expect(shapeOf(model, 1).bulge).toBeCloseTo(1, 9);
    expect(wallLength(shapeOf(model, 1) as never)).toBeCloseTo(Math.PI, 9);
  });
});

test('a dragged end takes what ends there with it, and shares the node exactly', () => {
  const model = planOf(wall(1, [0, 0], [6, 0]), wall(2, [6, 0], [6, 4]));
  applied(model, dragGrip(model, uuid(1), 'end', [6.1, 0.2]));
  expect([shapeOf(model, 1).end, shapeOf(model, 2).start]).toEqual([
    [6.1, 0.2],
    [6.1, 0.2],
  ]);
  applied(model, dragGrip(model, uuid(1), 'end', [5, 0], 'torn'));
  expect(shapeOf(model, 2).start).toEqual([6.1, 0.2]);
});

test('columns and walls are aligned to a line; what hangs on them follows', () => {
  const model = planOf(
    column(1, [0.03, 1]),
    column(2, [-0.02, 5]),
    beam(3, [0.03, 1], [-0.02, 5]),
    wall(4, [0.1, 6], [0.2, 9]),
  );
  applied(
    model,
    alignElements(
      model,
      [uuid(1), uuid(2), uuid(4)],
      [
        [0, 0],
        [0, 1],
      ],
    ),
  );
  expect([shapeOf(model, 1).position, shapeOf(model, 2).position]).toEqual([
    [0, 1],
    [0, 5],
  ]);
  expect(shapeOf(model, 3)).toMatchObject({ start: [0, 1], end: [0, 5] });
  const { start, end } = shapeOf(model, 4) as { start: Point; end: Point };
  expect([start[0], end[0]].map((v) => Math.abs(v) < 1e-12)).toEqual([true, true]);
  // A turn keeps the length: the square root of 9.01.
  expect(distance(start, end)).toBeCloseTo(Math.sqrt(9.01), 12);
});

describe('whatever is done', () => {
  const number = fc.double({ min: -20, max: 20, noNaN: true });
  const point = fc.tuple(number, number);
  const plan = () =>
    planOf(
      wall(1, [0, 0], [6, 0]),
      wall(2, [6, 0], [6, 4]),
      door(3, 1, 2),
      column(4, [6, 0]),
      beam(5, [0, 4], [6, 4]),
      slab(6, [
        [0, 0],
        [6, 0],
        [6, 4],
        [0, 4],
      ]),
      gridLine(7, 'A', [0, 0], [9, 0]),
    );
  const act = fc.oneof(
    fc.record({ does: fc.constant('move' as const), n: fc.integer({ min: 1, max: 7 }), p: point }),
    fc.record({ does: fc.constant('turn' as const), n: fc.integer({ min: 1, max: 7 }), p: point }),
    fc.record({ does: fc.constant('mirror' as const), n: fc.integer({ min: 1, max: 7 }), p: point }),
    fc.record({ does: fc.constant('split' as const), n: fc.integer({ min: 1, max: 7 }), p: point }),
    fc.record({ does: fc.constant('grip' as const), n: fc.integer({ min: 1, max: 7 }), p: point }),
    fc.record({ does: fc.constant('copy' as const), n: fc.integer({ min: 1, max: 7 }), p: point }),
    fc.record({ does: fc.constant('reach' as const), n: fc.integer({ min: 1, max: 7 }), p: point }),
    fc.record({ does: fc.constant('off' as const), n: fc.integer({ min: 1, max: 7 }), p: point }),
  );
  const newId = idsFrom(1000);
  const editOf = (model: Model, { does, n, p }: { does: string; n: number; p: Point }) => {
    const ids = [uuid(n)];
    switch (does) {
      case 'move':
        return moveElements(model, ids, p);
      case 'turn':
        return turnElements(model, ids, p, p[0]);
      case 'mirror':
        return mirrorElements(model, ids, p, [p[0] + 1, p[1] + 2]);
      case 'split':
        return splitElement(model, ids[0], p, newId);
      case 'grip':
        return dragGrip(model, ids[0], 'end', p);
      case 'copy':
        return repeatElements(model, ids, [p], newId);
      case 'reach':
        return reachTo(model, ids[0], p, [p, [p[0] + 1, p[1] - 1]]);
      default:
        return setOffElements(model, ids, p[0] / 10, newId);
    }
  };

  test('undo of a random sequence restores the exact state, and nothing broken is ever stored', () => {
    fc.assert(
      fc.property(fc.array(act, { maxLength: 12 }), (acts) => {
        const model = plan();
        const back: Change[][] = [];
        for (const one of acts) {
          const edit = editOf(model, one);
          if (!edit.ok) continue;
          back.push(model.apply(edit.value.changes));
          for (const element of Object.values(model.element)) {
            const { checks } = kinds[element.kind] as { checks: (shape: unknown, host: unknown) => string[] };
            expect(checks(element.shape, model.index.hostOf(element))).toEqual([]);
          }
        }
        for (const changes of back.toReversed()) model.apply(changes);
        expect(model).toEqual(plan());
      }),
      { numRuns: 150 },
    );
  });

  test('areas and lengths are kept by moving, turning and mirroring, and joined nodes stay joined', () => {
    const carried = fc.record({ does: fc.constantFrom('move', 'turn', 'mirror'), p: point });
    fc.assert(
      fc.property(fc.array(carried, { maxLength: 6 }), (acts) => {
        const model = plan();
        const all = Array.from({ length: 7 }, (_, i) => uuid(i + 1));
        for (const { does, p } of acts) {
          let edit;
          if (does === 'move') edit = moveElements(model, all, p);
          else if (does === 'turn') edit = turnElements(model, all, p, p[1]);
          else edit = mirrorElements(model, all, p, [p[0] - 2, p[1] + 1]);
          applied(model, edit);
        }
        const outline = shapeOf(model, 6).outline as Point[];
        expect(Math.abs(area(outline))).toBeCloseTo(24, 6);
        expect(wallLength(shapeOf(model, 1) as never)).toBeCloseTo(6, 6);
        expect(shapeOf(model, 3).offset).toBe(2);
        expect(shapeOf(model, 1).end).toEqual(shapeOf(model, 2).start);
      }),
      { numRuns: 100 },
    );
  });
});
