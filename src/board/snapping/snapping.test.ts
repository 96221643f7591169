import type { Point } from '@/core/geometry/vector';
import { mirrorWise } from '@/core/datum/evidence/mirrorWise';
import { asDrawn, placementTransform, type Placement } from '@/core/datum/placement';
import { dxf, groups, line, readText } from '@/core/drawing/testing/dxf';
import { plainDisplay, type Display } from '@/core/underlay/display';
import { flatten } from '@/core/underlay/flatten';
import { buildIndex, openIndex } from '@/core/underlay/pieces';
import { buildSegments } from '@/core/underlay/segments';
import type { Underlay } from '@/project/underlays';
import { Model } from '@/core/model/model';
import { put } from '@/core/model/edits';
import type { BoardDrawing, BoardScene } from '../scene';
import { axesSnaps } from './axesSnaps';
import { equalSnaps } from './equalSnaps';
import { gridSnaps } from './gridSnaps';
import { holdsAt } from './held';
import { lineAt, straightAt } from './lineAt';
import { modelSnaps } from './modelSnaps';
import { textAt } from './textAt';
import { underlaySnaps } from './underlaySnaps';

const look = (at: Point, metresPerPixel = 0.01, base: Point | null = null) => ({ at, metresPerPixel, reach: 12, base });

const holdsNear = (drawings: BoardDrawing[], at: [number, number], metresPerPixel: number) =>
  holdsAt([underlaySnaps(() => drawings)], look(at, metresPerPixel));

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
    mirror: mirrorWise(primitives),
    counts: {},
    schedules: false,
  };
  return {
    id,
    name: id,
    underlay,
    placement,
    transform: placementTransform(placement, primitives.origin),
    hidden: Uint8Array.from(layers, ({ name }) => (hide.includes(name) ? 1 : 0)),
    building: new Uint8Array(layers.length),
    display: { ...plainDisplay, ...display },
  };
}

const millimetres: Placement = asDrawn('mm');
const turned: Placement = { ...asDrawn('mm'), origin: [1000, 0], target: [20, 5], turning: Math.PI / 2 };

test('what is held on to is told in the project and in the drawing, through placement and turning', () => {
  // (3000, 0) is 2 m from the origin along x; a quarter turn makes that 2 m up from the target.
  const [held] = holdsNear([boardDrawing('a', line(1000, 0, 3000, 0, 'WALL'), turned)], [20.01, 7.01], 0.01);
  expect(held).toMatchObject({ words: 'end of line on WALL', drawingId: 'a', drawingPoint: [3000, 0] });
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

const uuid = (n: number) => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;
const common = { levelId: null, source: null };
const gridLine = (n: number, label: string, start: [number, number], end: [number, number]) =>
  put('element', { ...common, id: uuid(n), kind: 'grid', shape: { label, kind: 'line', start, end } });

test('crossings of the model\u2019s grid can be held on to, and follow its lines', () => {
  const model = new Model();
  model.apply([gridLine(1, '3', [10, -5], [10, 20]), gridLine(2, 'B', [-5, 7], [30, 7])]);
  const snaps = gridSnaps(() => model);
  expect(snaps(look([10.05, 7.05]))).toMatchObject([
    { words: 'crossing 3/B of the grid', point: [10, 7], drawingId: '' },
  ]);
  expect(snaps(look([11, 7]))).toEqual([]);
  model.apply([gridLine(1, '3', [11, -5], [11, 20])]);
  expect(snaps(look([11, 7]))).toMatchObject([{ point: [11, 7] }]);
});

describe('points of the model', () => {
  const model = new Model();
  const wall = { start: [0, 0], end: [6, 0], thickness: 0.2, height: null, bulge: 0, outer: false } as const;
  model.apply([
    put('element', { ...common, id: uuid(1), kind: 'wall', shape: { ...wall } }),
    put('element', {
      ...common,
      id: uuid(2),
      kind: 'column',
      shape: { position: [6, 3], rotation: 0, section: { shape: 'circle', diameter: 0.4 }, mark: 'C1' },
    }),
  ]);
  const scene = { model, levelId: null, heights: null, axes: null } as unknown as BoardScene;
  const holds = (at: [number, number]) => holdsAt([modelSnaps(() => scene)], look(at)).map(({ words }) => words);

  test('are the ends, middles and centre lines of walls, and the middles of columns', () => {
    expect(holds([0.03, 0.02])[0]).toBe('end of wall');
    expect(holds([3, 0.02])[0]).toBe('middle of wall');
    expect(holds([1.5, 0.06])).toEqual(['face of wall', 'on wall']);
    expect(holds([6.02, 3])).toEqual(['middle of column C1']);
    expect(holds([3, 1])).toEqual([]);
  });

  test('come before those of the underlay at the same place', () => {
    const drawn = boardDrawing('a', line(0, 0, 6000, 0, 'WALL'), millimetres);
    const found = holdsAt([underlaySnaps(() => [drawn]), modelSnaps(() => scene)], look([0.03, 0]));
    expect(found.slice(0, 2).map(({ words }) => words)).toEqual(['end of wall', 'end of line on WALL']);
  });
});

test('a place as far again as the last two columns, and halfway between them, can be held on to', () => {
  const model = new Model();
  const column = (n: number, x: number) =>
    put('element', {
      ...common,
      id: uuid(n),
      kind: 'column',
      shape: { position: [x, 0], rotation: 0, section: { shape: 'circle', diameter: 0.4 }, mark: '' },
    });
  model.apply([column(1, 0), column(2, 5.4)]);
  const scene = {
    model,
    levelId: null,
    heights: null,
    axes: null,
    unit: { unit: 'm', places: 2 },
  } as unknown as BoardScene;
  const snaps = equalSnaps(() => scene);
  expect(snaps(look([10.82, 0.03]))).toMatchObject([{ point: [10.8, 0], words: 'as far again: 5.40 m' }]);
  expect(snaps(look([-5.4, 0]))).toMatchObject([{ point: [-5.4, 0] }]);
  expect(snaps(look([2.7, 0.02]))).toMatchObject([{ point: [2.7, 0], words: 'halfway of 5.40 m between two' }]);
  expect(snaps(look([4, 0]))).toEqual([]);
});

test('the axes worked along can be held on to: their zero, and the feet on them', () => {
  const axes = { id: uuid(9), name: 'Wing', origin: [10, 5] as const, angle: Math.PI / 6 };
  const scene = { heights: null, axes } as unknown as BoardScene;
  const snaps = axesSnaps(() => scene);
  expect(snaps(look([10, 5]))[0].words).toBe('zero of Wing');
  // Two metres along the x axis at 30 degrees, 5 cm off it.
  const [c, s] = [Math.cos(Math.PI / 6), Math.sin(Math.PI / 6)];
  const [foot] = snaps(look([10 + 2 * c - 0.05 * s, 5 + 2 * s + 0.05 * c]));
  expect(foot.words).toBe('on the x axis of Wing');
  expect(foot.point.map((value) => Number(value.toFixed(9)))).toEqual(
    [10 + 2 * c, 5 + 2 * s].map((value) => Number(value.toFixed(9))),
  );
});

test('among 8,000 lines through one point the crossing is found, and no more than a fixed number is offered', () => {
  const fan = Array.from({ length: 8000 }, (_, i) => {
    const angle = (Math.PI * i) / 8000;
    const [x, y] = [5000 * Math.cos(angle), 5000 * Math.sin(angle)];
    return line(-x, -y, x, y, 'FAN');
  }).join('');
  const found = holdsNear([boardDrawing('fan', fan, millimetres)], [0.01, 0.01], 0.01);
  expect(found.length).toBeLessThanOrEqual(8);
  expect(found.some(({ point: [x, y] }) => Math.hypot(x, y) < 1e-6)).toBe(true);
});

test('a text is found where its letters stand, the smaller of two over one another, none of hidden layers or held drawings', () => {
  // Four letters of 500 mm, about 1.2 m long, and two of 200 mm within.
  const text = (x: number, height: number, words: string, layer: string) =>
    groups([0, 'TEXT'], [8, layer], [10, x], [20, 0], [40, height], [1, words]);
  const entities = text(0, 500, 'ROOM', 'T') + text(300, 200, 'B1', 'T') + text(5000, 500, 'NOTE', 'H');
  const plan = boardDrawing('a', entities, millimetres, {}, ['H']);
  const found = (at: Point, drawing = plan) => textAt([drawing], at)?.text ?? null;
  expect([found([1, 0.25]), found([0.4, 0.1]), found([0.4, 0.35])]).toEqual([0, 1, 0]);
  expect([found([1.5, 0.25]), found([1, 0.6]), found([5.5, 0.25])]).toEqual([null, null, null]);
  expect(found([1, 0.25], boardDrawing('a', entities, millimetres, { held: true }))).toBeNull();
});
