import { acceptCandidates, rejectCandidates, reopenCandidates } from '@/core/decisions/decide';
import { placeDrawing } from './drawings';
import { applyChanges, Model } from './model';
import { columnOutline } from '@/core/kinds/column';
import type { ElementRow } from '@/core/kinds/element';
import { moveElement } from '@/core/kinds/kinds';
import fc from 'fast-check';
import * as v from 'valibot';
import type { ColumnCandidate } from '@/core/reading/candidate';
import { changesSchema, editSchema, put, remove, type Change } from './edits';
import { plainLevel } from './levels';
import { emptyState, type ProjectState } from './state';

const uuid = (n: number) => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;
const level = (n: number, elevation: number) => ({ ...plainLevel, id: uuid(n), name: `L${n}`, elevation, height: 3 });
const drawing = {
  id: uuid(50),
  name: 'plan',
  fileId: uuid(51),
  fileName: 'plan.dxf',
  revision: 1,
  levelId: uuid(1),
  alsoOn: [],
  discarded: false,
  setAside: false,
};
const candidate = (key: string): ColumnCandidate => ({
  kind: 'column',
  key,
  element: { position: [1, 2], rotation: 0, section: { shape: 'circle', diameter: 0.45 }, mark: '' },
  raw: { width: 0.45, depth: 0.45 },
  crossing: null,
  evidence: [],
  confidence: 0.9,
  handles: ['A'],
  doubt: null,
});
let next = 100;
const newId = () => uuid((next += 1));
const with_ = (state: ProjectState, changes: Change[]) => applyChanges(state, changes).state;

test('the inverse of any run of changes leads back to the state before', () => {
  const change = fc
    .tuple(fc.integer({ min: 1, max: 6 }), fc.integer({ min: -9, max: 9 }), fc.boolean())
    .map(([n, elevation, gone]): Change => (gone ? remove('level', uuid(n)) : put('level', level(n, elevation))));
  fc.assert(
    fc.property(fc.array(change, { maxLength: 20 }), fc.array(change, { maxLength: 20 }), (before, after) => {
      const start = with_(emptyState, before);
      const { state, inverse } = applyChanges(start, after);
      expect(with_(state, inverse)).toEqual(start);
    }),
  );
});

test('accepting makes elements with their source, once; rejecting takes them away; judging again leaves nothing', () => {
  const both = [candidate('column:A'), candidate('column:B')];
  const accept = acceptCandidates(new Model(), drawing, both, newId);
  expect(accept.label).toBe('Accept 2 columns');
  const accepted = with_(emptyState, accept.changes);
  expect(Object.values(accepted.element)).toHaveLength(2);
  expect(Object.values(accepted.element)[0]).toMatchObject({
    levelId: drawing.levelId,
    source: { drawing: drawing.id, handles: ['A'] },
  });
  expect(acceptCandidates(accepted, drawing, both, newId).changes).toEqual([]);
  const rejected = with_(accepted, rejectCandidates(accepted, drawing, [both[0]]).changes);
  expect(Object.values(rejected.element)).toHaveLength(1);
  // What remains is the size in the library.
  expect({ ...with_(rejected, reopenCandidates(rejected, drawing, both).changes), library: {} }).toEqual(emptyState);
});

test('elements taken along with their drawing keep their place in it: mm instead of m, about a new zero', () => {
  const placement = {
    id: drawing.id,
    unit: 'm' as const,
    scale: 1,
    confirmed: false,
    origin: [0, 0] as [number, number],
    target: [0, 0] as [number, number],
    turning: 0,
    mirrored: false,
    upright: null,
  };
  const column: ElementRow = {
    id: uuid(70),
    levelId: null,
    source: { drawing: drawing.id, handles: [] },
    kind: 'column',
    shape: { position: [6000, 3000], rotation: 0, section: { shape: 'rectangle', width: 400, depth: 600 }, mark: '' },
  };
  const state = with_(emptyState, [put('placement', placement), put('element', column as never)]);
  const next_ = { ...placement, unit: 'mm' as const, origin: [1000, 1000] as [number, number] };
  const moved = with_(state, placeDrawing(state, next_, 'x', [column]).changes).element[column.id] as ElementRow;
  expect(moved.kind === 'column' && moved.shape.position.map((value) => Number(value.toFixed(9)))).toEqual([5, 2]);
  expect(moved.kind === 'column' && moved.shape.section).toEqual({ shape: 'rectangle', width: 0.4, depth: 0.6 });
  expect(with_(state, placeDrawing(state, next_, 'x').changes).element[column.id]).toEqual(column);
});

test('a turned element turns its angles, and an uneven map is refused', () => {
  const arc: ElementRow = {
    id: uuid(71),
    levelId: null,
    source: null,
    kind: 'grid',
    shape: { label: 'R', kind: 'arc', centre: [1, 0], radius: 2, startAngle: 0, endAngle: 90 },
  };
  const turned = moveElement(arc, [0, 1, -1, 0, 0, 0]);
  expect(turned.shape).toMatchObject({ radius: 2, startAngle: 90, endAngle: 180 });
  expect(() => moveElement(arc, [2, 0, 0, 1, 0, 0])).toThrow();
  // Mirrored about the y axis the quarter from 0 to 90 degrees becomes the one from 90 to 180, still counter-clockwise.
  expect(moveElement(arc, [-1, 0, 0, 1, 0, 0]).shape).toMatchObject({ centre: [-1, 0], startAngle: 90, endAngle: 180 });
  const ell: ElementRow = {
    id: uuid(72),
    levelId: null,
    source: null,
    kind: 'column',
    shape: {
      position: [2, 0],
      rotation: 30,
      mark: '',
      section: {
        shape: 'polygon',
        outline: [
          [0, 0],
          [2, 0],
          [0, 1],
        ],
      },
    },
  };
  const image = moveElement(ell, [-1, 0, 0, 1, 0, 0]);
  const corners = (row: ElementRow) =>
    (row.kind === 'column' ? columnOutline(row.shape) : []).map(([x, y]) => [
      Number(x.toFixed(9)) + 0,
      Number(y.toFixed(9)) + 0,
    ]);
  expect(corners(image).sort()).toEqual(
    corners(ell)
      .map(([x, y]) => [-x + 0, y])
      .sort(),
  );
});

test.each([
  ['an id that is none', { table: 'level', id: 'x', row: { ...level(1, 0), id: 'x' } }],
  ['a row under another id', { table: 'level', id: uuid(2), row: level(1, 0) }],
  ['a height of zero', { table: 'level', id: uuid(1), row: { ...level(1, 0), height: 0 } }],
  ['a coordinate that is not finite', { table: 'level', id: uuid(1), row: { ...level(1, 0), elevation: Infinity } }],
  ['a table that is none', { table: 'files', id: uuid(1), row: null }],
  ['a field too many', { table: 'level', id: uuid(1), row: { ...level(1, 0), more: 1 } }],
])('an edit with %s is refused at the border', (_, change) => {
  expect(v.is(editSchema, { label: 'x', changes: [change] })).toBe(false);
  expect(v.is(editSchema, { label: 'x', changes: [put('level', level(1, 0))] })).toBe(true);
});

test('rows logged before levels had kinds and placements scales are read with what they were', () => {
  const { kind: _, buildUp: __, slab: ___, repeats: ____, ...before } = level(1, 0);
  expect(v.parse(changesSchema, [{ table: 'level', id: before.id, row: before }])[0].row).toEqual(level(1, 0));
  const placement = { id: uuid(9), unit: 'mm', confirmed: true, origin: [0, 0], target: [0, 0], turning: 0 };
  expect(v.parse(changesSchema, [{ table: 'placement', id: uuid(9), row: placement }])[0].row).toEqual({
    ...placement,
    scale: 1,
    mirrored: false,
    upright: null,
  });
});
