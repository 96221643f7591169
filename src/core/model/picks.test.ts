import { cutOut } from './drawings';
import { applyChanges } from './model';
import fc from 'fast-check';
import { put, type Edit } from './edits';
import type { Likeness } from '@/core/sorting/alike';
import { keepLines, picksOf, setBlockRoles, teach } from './picks';
import { emptyState, type ProjectState } from './state';

const uuid = (n: number) => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;
let next = 100;
const newId = () => uuid((next += 1));
const drawing = {
  id: uuid(1),
  name: 'plan',
  fileId: uuid(51),
  fileName: 'plan.dxf',
  revision: 1,
  levelId: null,
  alsoOn: [],
  discarded: false,
  setAside: false,
};
const start = applyChanges(emptyState, [put('drawing', drawing)]).state;
const after = (state: ProjectState, edit: Edit) => applyChanges(state, edit.changes).state;
const words = (state: ProjectState, id = drawing.id) => {
  const { blocks, lines } = picksOf(state, id);
  return [
    ...blocks.map(({ name, role }) => `${name} ${role}`),
    ...lines.map(({ name, role, handles }) => `${name} ${role} ${handles.join(' ')}`),
  ];
};

test('a block has one role: given again it changes, given none it is left to its layers', () => {
  const one = after(
    start,
    setBlockRoles(
      start,
      drawing,
      new Map([
        ['DOOR', 'door'],
        ['POST', 'column'],
      ]),
      newId,
    ),
  );
  expect(words(one)).toEqual(['DOOR door', 'POST column']);
  expect(setBlockRoles(one, drawing, new Map([['POST', 'column']]), newId).changes).toEqual([]);
  const two = after(one, setBlockRoles(one, drawing, new Map([['POST', 'ignore']]), newId));
  expect(words(two)).toEqual(['DOOR door', 'POST ignore']);
  expect(words(after(two, setBlockRoles(two, drawing, new Map([['POST', null]]), newId)))).toEqual(['DOOR door']);
});

test('a line is in one set only: picked again it leaves the other, and an empty set goes; a set of the same name grows', () => {
  const one = after(start, keepLines(start, drawing, 'Posts', 'column', ['A', 'B'], newId));
  const two = after(one, keepLines(one, drawing, 'Fence', 'outdoor', ['B', 'C'], newId));
  expect(words(two)).toEqual(['Fence outdoor B C', 'Posts column A']);
  const three = after(two, keepLines(two, drawing, 'fence', 'outdoor', ['A', 'C', 'D'], newId));
  expect(words(three)).toEqual(['Fence outdoor B C A D']);
});

test('a plan cut out of a sheet has the sheet\u2019s picked roles as its own', () => {
  const one = after(start, setBlockRoles(start, drawing, new Map([['POST', 'column']]), newId));
  const edit = cutOut(
    one,
    drawing,
    'Part',
    [
      [0, 0],
      [1, 0],
      [1, 1],
    ],
    newId,
  );
  const state = after(one, edit);
  const cut = Object.values(state.drawing).find(({ name }) => name === 'Part')!;
  expect(words(state, cut.id)).toEqual(['POST column']);
  expect(words(state)).toEqual(['POST column']);
});

test('however lines are picked, each is in one set at most, with the role it was given last', () => {
  const pick = fc.record({
    name: fc.constantFrom('One', 'Two', 'Three'),
    role: fc.constantFrom('wall' as const, 'column' as const),
    handles: fc.uniqueArray(fc.constantFrom(...'ABCDEFGH'), { minLength: 1, maxLength: 5 }),
  });
  fc.assert(
    fc.property(fc.array(pick, { maxLength: 12 }), (steps) => {
      const last = new Map<string, string>();
      let state = start;
      for (const { name, role, handles } of steps) {
        state = after(state, keepLines(state, drawing, name, role, handles, newId));
        for (const handle of handles) last.set(handle, name);
      }
      const held = picksOf(state, drawing.id).lines.flatMap(({ name, handles }) =>
        handles.map((handle) => [handle, name] as const),
      );
      expect(held.length).toBe(new Set(held.map(([handle]) => handle)).size);
      expect(new Map(held)).toEqual(last);
    }),
  );
});

test('a lesson said again of the same is said anew, each has a name of its own, and the way back is exact', () => {
  const like = (layer: string): Likeness => ({
    form: 'outline',
    corners: 4,
    layer,
    colour: null,
    size: [1.6, 0.16],
    written: null,
  });
  const first = after(
    start,
    teach(
      start,
      drawing,
      [
        { role: 'column', like: like('A') },
        { role: 'column', like: like('B') },
      ],
      newId,
    ),
  );
  const second = after(first, teach(first, drawing, [{ role: 'beam', like: like('A') }], newId));
  const lessons = (state: ProjectState) =>
    picksOf(state, drawing.id).alike.map(({ name, role, like: { layer } }) => `${name}: ${role} on ${layer}`);
  expect(lessons(first)).toEqual(['Column like this: column on A', 'Column like this 2: column on B']);
  expect(lessons(second)).toEqual(['Column like this: beam on A', 'Column like this 2: column on B']);
  const edit = teach(start, drawing, [{ role: 'column', like: like('A') }], newId);
  const { state, inverse } = applyChanges(start, edit.changes);
  expect(applyChanges(state, inverse).state).toEqual(start);
});
