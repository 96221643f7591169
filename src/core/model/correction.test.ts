import { asDrawn, type Placement } from '@/core/datum/placement';
import type { Point } from '@/core/geometry/vector';
import type { ElementOf, ElementRow } from '@/core/kinds/element';
import { carriedBy, hangingOn } from './correction';
import { put } from './edits';
import { plainLevel } from './levels';
import { Model } from './model';
import type { DrawingRow, PlacementRow } from './state';

const uuid = (n: number): string => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;
const drawing: DrawingRow = {
  id: uuid(1),
  name: 'plan',
  fileId: uuid(2),
  fileName: 'plan.dxf',
  revision: 1,
  levelId: uuid(3),
  alsoOn: [],
  discarded: false,
  setAside: false,
};
const level = { ...plainLevel, id: uuid(3), name: 'Ground', elevation: 0, height: 3 };
const placement: PlacementRow = { ...asDrawn('m'), id: drawing.id, confirmed: false, origin: [0, 0], target: [0, 0] };
const from = { drawing: drawing.id, handles: ['1'] };
const common = { levelId: level.id, libraryId: null };
const wall = (n: number, source: ElementRow['source'], start: Point, end: Point): ElementOf<'wall'> => ({
  ...common,
  id: uuid(n),
  source,
  kind: 'wall',
  shape: { start, end, thickness: 200, height: null, bulge: 0, outer: false },
});
const door: ElementOf<'opening'> = {
  ...common,
  id: uuid(12),
  source: null,
  kind: 'opening',
  shape: { wall: uuid(10), use: 'door', offset: 1000, width: 0.9, height: 2.1, sill: 0 },
};
const support = (n: number, position: Point): ElementOf<'support'> => ({
  ...common,
  id: uuid(n),
  source: null,
  kind: 'support',
  shape: { position, rise: 0, fixed: ['z'] },
});
const column: ElementOf<'column'> = {
  ...common,
  id: uuid(15),
  source: null,
  kind: 'column',
  shape: { position: [3000, 3000], rotation: 0, section: { shape: 'circle', diameter: 0.4 }, mark: '' },
};

/** A plan in millimetres that was taken for metres: 6 km wide. */
function wrong(): Model {
  const model = new Model();
  model.apply([
    put('level', level),
    put('drawing', drawing),
    put('placement', placement),
    put('element', wall(10, from, [0, 0], [6000, 0])),
    put('element', door),
    put('element', support(13, [3000, 1000])),
    put('element', support(14, [9000, 9000])),
    put('element', column),
  ]);
  return model;
}
const outline: Point[] = [
  [-500, -500],
  [6500, -500],
  [6500, 4500],
  [-500, 4500],
];

test('what hangs on a drawing: what came from it, openings in its walls, and what was drawn by hand inside of it', () => {
  const { read, drawn } = hangingOn(wrong(), drawing, outline);
  expect(read.map(({ id }) => id)).toEqual([uuid(10)]);
  // The support 9 km away hangs on something else.
  expect(drawn.map(({ id }) => id).sort()).toEqual([uuid(12), uuid(13), uuid(15)]);
  expect(hangingOn(wrong(), { ...drawing, levelId: null }, outline).drawn).toEqual([]);
});

test('put right to millimetres, places and read sizes shrink a thousandfold, and typed sizes stay', () => {
  const model = wrong();
  const { read, drawn } = hangingOn(model, drawing, outline);
  const after: Placement = { ...(placement as Placement), unit: 'mm' };
  const carried = new Map(
    carriedBy(model, [...read, ...drawn], placement as Placement, after).map((row) => [row.id, row]),
  );
  const shape = <K extends ElementRow['kind']>(n: number) => (carried.get(uuid(n)) as ElementOf<K>).shape;
  expect(shape<'wall'>(10).end[0]).toBeCloseTo(6, 9);
  expect(shape<'wall'>(10).thickness).toBeCloseTo(0.2, 9);
  expect(shape<'opening'>(12)).toMatchObject({ offset: expect.closeTo(1, 9), width: 0.9 });
  expect(shape<'support'>(13).position).toEqual([expect.closeTo(3, 9), expect.closeTo(1, 9)]);
  expect(shape<'column'>(15)).toMatchObject({
    position: [expect.closeTo(3, 9), expect.closeTo(3, 9)],
    section: { shape: 'circle', diameter: 0.4 },
  });
});

test('members of a section keep to its plane when it is put on another line, and scale about its zero', () => {
  const model = wrong();
  const stands: Placement = { ...asDrawn('mm'), target: [0, 0], turning: 0, upright: 0 };
  const brace: ElementRow = {
    ...common,
    id: uuid(20),
    source: from,
    kind: 'beam',
    shape: {
      start: [2, 0],
      end: [4, 0],
      section: { shape: 'circle', diameter: 0.1 },
      mark: '',
      drop: 2,
      endDrop: 1,
      use: 'brace',
    },
  };
  // To the line from (10, 5) along y: 2 m and 4 m along it, at 1 m and 2 m.
  const moved = carriedBy(model, [brace], stands, { ...stands, target: [10, 5], turning: Math.PI / 2 })[0];
  expect((moved as ElementOf<'beam'>).shape).toMatchObject({
    start: [expect.closeTo(10, 9), expect.closeTo(7, 9)],
    end: [expect.closeTo(10, 9), expect.closeTo(9, 9)],
    drop: expect.closeTo(2, 9),
    endDrop: expect.closeTo(1, 9),
  });
  // Drawn in centimetres after all: ten times as large, from its zero: 10 m and 20 m high, 7 m and 17 m above the top.
  const grown = carriedBy(model, [brace], stands, { ...stands, unit: 'cm' })[0];
  expect((grown as ElementOf<'beam'>).shape).toMatchObject({
    start: [expect.closeTo(20, 9), expect.closeTo(0, 9)],
    end: [expect.closeTo(40, 9), expect.closeTo(0, 9)],
    drop: expect.closeTo(-7, 9),
    endDrop: expect.closeTo(-17, 9),
  });
});
