import { judgeUnit } from '@/core/datum/evidence/judge';
import { mirrorWise } from '@/core/datum/evidence/mirrorWise';
import { asDrawn, placementTransform, type Placement } from '@/core/datum/placement';
import { dxf, groups, line, readText } from '@/core/drawing/testing/dxf';
import { plainDisplay, type Display } from '@/core/underlay/display';
import { flatten } from '@/core/underlay/flatten';
import { buildIndex, openIndex } from '@/core/underlay/pieces';
import { buildSegments } from '@/core/underlay/segments';
import type { Underlay } from '@/project/underlays';
import type { BoardDrawing } from './scene';
import { gridHolds, holdsNear, lineAt, straightAt } from './snapping';

function boardDrawing(
  id: string,
  entities: string,
  placement: Placement,
  display: Partial<Display> = {},
  hide: string[] = [],
): BoardDrawing {
  const { drawing } = readText(dxf({ entities }));
  const primitives = flatten(drawing);
  const layers = drawing.layers.map(({ name }) => ({ name, hidden: false, empty: false }));
  const underlay: Underlay = {
    fileId: id,
    basis: '',
    layers,
    blocks: [],
    primitives,
    index: openIndex(buildIndex(primitives)),
    segments: buildSegments(primitives),
    unit: judgeUnit(drawing, primitives),
    mirror: mirrorWise(primitives),
    counts: {},
  };
  return {
    id,
    name: id,
    underlay,
    placement,
    transform: placementTransform(placement, primitives.origin),
    hidden: Uint8Array.from(layers, ({ name }) => (hide.includes(name) ? 1 : 0)),
    display: { ...plainDisplay, ...display },
  };
}

const millimetres: Placement = asDrawn('mm');
const turned: Placement = { ...asDrawn('mm'), origin: [1000, 0], target: [20, 5], turning: Math.PI / 2 };

test('what is held on to is told in the project and in the drawing, through placement and turning', () => {
  // (3000, 0) is 2 m from the origin along x; a quarter turn makes that 2 m up from the target.
  const [held] = holdsNear([boardDrawing('a', line(1000, 0, 3000, 0, 'WALL'), turned)], [20.01, 7.01], 0.01);
  expect(held).toMatchObject({ kind: 'end', words: 'end of line on WALL', drawingId: 'a', drawingPoint: [3000, 0] });
  expect(held.point.map((v) => Math.round(v * 1e6) / 1e6)).toEqual([20, 7]);
});

test('a held drawing is still there to snap to, but no click finds its lines', () => {
  const entities = line(0, 0, 5000, 0, 'WALL');
  const [free, held] = [
    boardDrawing('free', entities, millimetres),
    boardDrawing('held', entities, millimetres, { held: true }),
  ];
  expect(holdsNear([held], [5, 0], 0.01)[0].words).toBe('end of line on WALL');
  expect(lineAt([held], [2.5, 0.01], 0.01)).toBeNull();
  expect(lineAt([held, free], [2.5, 0.01], 0.01)).toMatchObject({ drawingId: 'free', path: 0 });
});

test('a click finds the nearest line within six pixels, arcs where they are, and none of a hidden layer', () => {
  const entities =
    line(0, 0, 5000, 0, 'A') +
    line(0, 40, 5000, 40, 'B') +
    groups([0, 'ARC'], [8, 'C'], [10, 0], [20, 10000], [40, 1000], [50, 0], [51, 90]);
  const shown = boardDrawing('d', entities, millimetres);
  expect(lineAt([shown], [2.5, 0.03], 0.01)).toMatchObject({ drawingId: 'd', path: 1 });
  expect(lineAt([shown], [2.5, 0.01], 0.01)).toMatchObject({ drawingId: 'd', path: 0 });
  expect(lineAt([shown], [2.5, -0.07], 0.01)).toBeNull();
  expect(lineAt([boardDrawing('d', entities, millimetres, {}, ['A'])], [2.5, 0.01], 0.01)).toMatchObject({
    drawingId: 'd',
    path: 1,
  });
  const on = Math.SQRT1_2;
  expect(lineAt([shown], [on, 10 + on], 0.01)).toMatchObject({ drawingId: 'd', path: 2 });
  // The rest of its circle is not drawn.
  expect(lineAt([shown], [-on, 10 - on], 0.01)).toBeNull();
});

test('a straight line is picked with its ends in the project and in the drawing; an arc is none', () => {
  const found = straightAt(
    [
      boardDrawing(
        'a',
        line(1000, 0, 3000, 0, 'WALL') +
          groups([0, 'ARC'], [8, 'C'], [10, 0], [20, 10000], [40, 1000], [50, 0], [51, 90]),
        turned,
      ),
    ],
    [20.02, 6],
    0.01,
  );
  expect(found).toMatchObject({
    drawingId: 'a',
    drawn: [
      [1000, 0],
      [3000, 0],
    ],
    words: 'line on WALL',
  });
  expect([found!.from, found!.to].map((p) => p.map((v) => Math.round(v * 1e6) / 1e6))).toEqual([
    [20, 5],
    [20, 7],
  ]);
  expect(
    straightAt(
      [boardDrawing('a', groups([0, 'ARC'], [8, 'C'], [10, 0], [20, 0], [40, 1000], [50, 0], [51, 90]), millimetres)],
      [1, 0],
      0.01,
    ),
  ).toBeNull();
});

test('crossings of the model\u2019s grid can be held on to', () => {
  const grid = [
    { label: '3', kind: 'line' as const, start: [10, -5] as [number, number], end: [10, 20] as [number, number] },
    { label: 'B', kind: 'line' as const, start: [-5, 7] as [number, number], end: [30, 7] as [number, number] },
  ];
  const elements = grid.map((shape, i) => ({
    id: String(i),
    levelId: null,
    source: null,
    kind: 'grid' as const,
    shape,
  }));
  expect(gridHolds(elements, [10.05, 7.05], 0.01)).toMatchObject([
    { words: 'crossing 3/B of the grid', point: [10, 7], drawingId: '' },
  ]);
  expect(gridHolds(elements, [11, 7], 0.01)).toEqual([]);
});
