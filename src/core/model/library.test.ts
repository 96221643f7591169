import { acceptCandidates } from '@/core/decisions/decide';
import { placeDrawing } from './drawings';
import { applyChanges } from './model';
import type { Section } from '@/core/kinds/section';
import type { Shapes } from '@/core/kinds/element';
import fc from 'fast-check';
import type { Candidate } from '@/core/reading/candidate';
import { put, type Change, type Edit } from './edits';
import {
  nameBy,
  plainNaming,
  plainPane,
  putEntry,
  removeEntries,
  renameAll,
  shelveAll,
  uValueOf,
  usersOf,
  type LibraryRow,
} from './library';
import { emptyState, type ProjectState } from './state';

const uuid = (n: number) => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;
let next = 100;
const newId = () => uuid((next += 1));
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
const project = {
  id: uuid(1),
  name: 'P',
  displayUnit: 'm' as const,
  places: null,
  angles: 'east' as const,
  survey: null,
  axes: [],
  naming: null,
  reading: null,
  structure: null,
  site: null,
};
const start = applyChanges(emptyState, [put('project', project)]).state;
const apply = (state: ProjectState, { changes }: { changes: Change[] } | Edit) => applyChanges(state, changes).state;

const read = <K extends keyof Shapes>(kind: K, key: string, element: Shapes[K], more: object = {}) =>
  ({
    kind,
    key: `${kind}:${key}`,
    element,
    evidence: [],
    confidence: 0.9,
    handles: [key],
    doubt: null,
    ...more,
  }) as unknown as Candidate;
const column = (key: string, section: Section) =>
  read('column', key, { position: [0, 0], rotation: 0, section, mark: '' });
const wall = (key: string, thickness: number) =>
  read('wall', key, { start: [0, 0], end: [6, 0], thickness, height: null, bulge: 0, outer: false });
const ell: Section = {
  shape: 'polygon',
  outline: [
    [0, 0],
    [0.6, 0],
    [0.6, 0.2],
    [0.2, 0.2],
    [0.2, 0.8],
    [0, 0.8],
  ],
};
const square: Section = { shape: 'rectangle', width: 0.4, depth: 0.4 };
const namesOf = (state: ProjectState) =>
  Object.values(state.library)
    .map(({ name }) => name)
    .sort();

test('accepting makes sections and constructions of the sizes, one for each, named by the patterns', () => {
  const candidates = [
    column('1', square),
    column('2', square),
    column('3', { shape: 'circle', diameter: 0.45 }),
    column('4', ell),
    wall('5', 0.2),
    wall('6', 0.1),
    wall('7', 0.2),
    read('beam', '8', {
      start: [0, 0],
      end: [6, 0],
      section: { shape: 'rectangle', width: 0.3, depth: 0.6 },
      mark: 'B1',
    }),
    read('slab', '9', {
      outline: [
        [0, 0],
        [6, 0],
        [6, 6],
      ],
      holes: [],
      thickness: 0.22,
    }),
  ];
  const windows = read(
    'opening',
    '10',
    { wall: '', use: 'window', offset: 1, width: 1, height: 1.2, sill: 0.9 },
    { host: 'wall:5', at: [1, 0], outline: [] },
  );
  const state = apply(start, acceptCandidates(start, drawing, [...candidates, windows], newId));
  expect(namesOf(state)).toEqual([
    '300x600',
    '400x400',
    'D450',
    'Glazing 1',
    'Shape 1',
    'Slab 220',
    'Wall 100',
    'Wall 200',
  ]);
  // Every element with a size names its entry, and equal sizes name the same.
  expect(Object.values(state.element).every(({ libraryId }) => libraryId !== null)).toBe(true);
  const twoHundred = Object.values(state.library).find(({ name }) => name === 'Wall 200')!;
  expect(
    usersOf(state, twoHundred.id)
      .map(({ source }) => source!.handles[0])
      .sort(),
  ).toEqual(['5', '7']);
  // A later drawing finds what is there.
  const again = acceptCandidates(state, { ...drawing, id: uuid(60) }, [column('1', square)], newId);
  expect(again.changes.filter(({ table }) => table === 'library')).toEqual([]);
});

test('names: patterns, numbers, names that are taken, inches', () => {
  const made = { kind: 'section' as const, section: { shape: 'rectangle' as const, width: 0.3048, depth: 0.6096 } };
  expect(nameBy('C {w} by {d}', made, new Set(), false)).toBe('C 304.8 by 609.6');
  expect(nameBy('C{w}x{d}', made, new Set(), true)).toBe('C12x24');
  expect(nameBy('Col {n}', made, new Set(['col 1', 'col 2']), false)).toBe('Col 3');
  expect(nameBy('C', made, new Set(['c']), false)).toBe('C (2)');
  const state = apply(start, acceptCandidates(start, drawing, [column('1', square), wall('2', 0.2)], newId));
  expect(namesOf(apply(state, renameAll(state, { ...plainNaming, rectangle: 'RC {w}/{d}' })))).toEqual([
    'RC 400/400',
    'Wall 200',
  ]);
});

test('an entry that changes changes what is made of it, and taken back both are as before', () => {
  const state = apply(
    start,
    acceptCandidates(
      start,
      drawing,
      [column('1', square), column('2', square), column('3', { shape: 'circle', diameter: 0.45 })],
      newId,
    ),
  );
  const entry = Object.values(state.library).find(({ name }) => name === '400x400')! as LibraryRow & {
    kind: 'section';
  };
  const edit = putEntry(state, { ...entry, section: { shape: 'rectangle', width: 0.4, depth: 0.5 } });
  const { state: changed, inverse } = applyChanges(state, edit.changes);
  expect(
    Object.values(changed.element)
      .map((element) => element.kind === 'column' && element.shape.section)
      .sort((a, b) => JSON.stringify(a).localeCompare(JSON.stringify(b))),
  ).toEqual([
    { shape: 'circle', diameter: 0.45 },
    { shape: 'rectangle', width: 0.4, depth: 0.5 },
    { shape: 'rectangle', width: 0.4, depth: 0.5 },
  ]);
  expect(applyChanges(changed, inverse).state).toEqual(state);
});

test('an entry taken out leaves sizes as they are; collected again it is there again', () => {
  const state = apply(start, acceptCandidates(start, drawing, [wall('1', 0.2)], newId));
  const layer = put('role', {
    id: `${drawing.id}/W`,
    drawingId: drawing.id,
    layer: 'W',
    role: 'wall',
    suggested: false,
    shown: true,
    libraryId: Object.keys(state.library)[0],
  });
  const meant = apply(state, { changes: [layer] });
  const without = apply(meant, removeEntries(meant, Object.values(meant.library)));
  expect(without.library).toEqual({});
  expect(Object.values(without.role)[0].libraryId).toBeNull();
  expect(Object.values(without.element)[0]).toMatchObject({ libraryId: null, shape: { thickness: 0.2 } });
  expect(namesOf(apply(without, shelveAll(without, newId)))).toEqual(['Wall 200']);
});

test('a drawing rescaled under its elements leaves no element under a section of another size', () => {
  const placement = {
    id: drawing.id,
    unit: 'm' as const,
    scale: 1,
    confirmed: true,
    origin: [0, 0] as [number, number],
    target: [0, 0] as [number, number],
    turning: 0,
    mirrored: false,
    upright: null,
  };
  const before = apply(start, { changes: [put('placement', placement)] });
  const state = apply(
    before,
    acceptCandidates(before, drawing, [column('1', { shape: 'rectangle', width: 400, depth: 400 })], newId),
  );
  const rescaled = apply(state, placeDrawing(state, { ...placement, unit: 'mm' }, 'x', Object.values(state.element)));
  expect(Object.values(rescaled.element)[0]).toMatchObject({ libraryId: null, shape: { section: { width: 0.4 } } });
});

test('thermal transmittance by ISO 6946, and none where a conductivity is missing', () => {
  const layers = [
    { name: 'Concrete', thickness: 0.2, conductivity: 2 },
    { name: 'Mineral wool', thickness: 0.1, conductivity: 0.035 },
  ];
  // 0.13 + 0.2 / 2 + 0.1 / 0.035 + 0.04 = 3.127142857 m2 K/W.
  expect(uValueOf({ id: '', name: '', kind: 'wall', thickness: 0.3, layers })).toBeCloseTo(1 / 3.127142857, 9);
  // Upward through a slab: 0.10 in place of 0.13.
  expect(uValueOf({ id: '', name: '', kind: 'slab', thickness: 0.3, layers })).toBeCloseTo(1 / 3.097142857, 9);
  expect(
    uValueOf({ id: '', name: '', kind: 'wall', thickness: 0.2, layers: [{ ...layers[0], conductivity: null }] }),
  ).toBeNull();
  expect(uValueOf({ id: '', name: '', kind: 'glazing', ...plainPane })).toBe(1.1);
});

test('of any columns the library has one entry a size, each under a name of its own, and taken back nothing is left', () => {
  const side = fc.integer({ min: 2, max: 6 }).map((n) => n / 10);
  const section = fc.oneof(
    fc.record({ shape: fc.constant('rectangle' as const), width: side, depth: side }),
    fc.record({ shape: fc.constant('circle' as const), diameter: side }),
  );
  fc.assert(
    fc.property(
      fc.array(section, { minLength: 1, maxLength: 30 }),
      fc.constantFrom('{w}x{d}', 'C', 'Col {n}', '{w}'),
      (sections, pattern) => {
        const named = apply(start, {
          changes: [put('project', { ...project, naming: { ...plainNaming, rectangle: pattern, circle: pattern } })],
        });
        const { state, inverse } = applyChanges(
          named,
          acceptCandidates(
            named,
            drawing,
            sections.map((each, i) => column(String(i), each)),
            newId,
          ).changes,
        );
        const sizes = new Set(sections.map((each) => JSON.stringify(each, ['shape', 'width', 'depth', 'diameter'])));
        expect(Object.keys(state.library)).toHaveLength(sizes.size);
        expect(new Set(namesOf(state).map((name) => name.toLowerCase())).size).toBe(sizes.size);
        for (const element of Object.values(state.element))
          if (element.kind === 'column')
            expect((state.library[element.libraryId!] as LibraryRow & { kind: 'section' }).section).toEqual(
              element.shape.section,
            );
        expect(applyChanges(state, inverse).state).toEqual(named);
      },
    ),
    { numRuns: 60 },
  );
});

test('a hollow section is an entry of its own, named by its walls too', () => {
  const of = (n: number, wall?: number): Change =>
    put('element', {
      id: uuid(n),
      levelId: null,
      source: null,
      kind: 'column',
      shape: { position: [n, 0], rotation: 0, section: { shape: 'rectangle', width: 0.2, depth: 0.1, wall }, mark: '' },
    });
  const state = apply(start, { changes: [of(201), of(202, 0.008), of(203, 0.008), of(204, 0.01)] });
  const named = apply(state, shelveAll(state, newId));
  expect(
    Object.values(named.library)
      .map(({ name }) => name)
      .sort(),
  ).toEqual(['200x100', '200x100x10', '200x100x8']);
});
