import { acceptCandidates } from './decide';
import { applyChanges, Model } from '@/core/model/model';
import type { Shapes } from '@/core/kinds/element';
import type { Candidate } from '@/core/reading/candidate';
import { conflictsOf } from './conflicts';
import { bringLibrary, libraryFileOf, readLibraryFile } from '@/core/model/libraryFile';
import { emptyState } from '@/core/model/state';

const uuid = (n: number) => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;
let next = 100;
const newId = () => uuid((next += 1));
const drawing = (n: number) => ({
  id: uuid(n),
  name: 'plan',
  fileId: uuid(51),
  fileName: 'plan.dxf',
  revision: 1,
  levelId: null,
  alsoOn: [],
  discarded: false,
  setAside: false,
});
const read = <K extends keyof Shapes>(kind: K, key: string, element: Shapes[K]) =>
  ({
    kind,
    key: `${kind}:${key}`,
    element,
    evidence: [],
    confidence: 0.9,
    handles: [key],
    doubt: null,
  }) as unknown as Candidate;
const column = (key: string, x: number, width = 0.4) =>
  read('column', key, { position: [x, 0], rotation: 0, section: { shape: 'rectangle', width, depth: 0.4 }, mark: '' });
const line = (key: string, label: string, x: number) =>
  read('grid', key, { label, kind: 'line', start: [x, 0], end: [x, 9] });

test('what the model has at a place already is a conflict for another drawing, not for the one it came from', () => {
  const first = [column('1', 0), column('2', 6), line('3', 'A', 0)];
  const state = applyChanges(emptyState, acceptCandidates(new Model(), drawing(1), first, newId).changes).state;
  expect(conflictsOf(state, drawing(1), first)).toEqual(new Map());
  const second = [
    column('8', 0.05, 0.5),
    column('9', 12),
    line('10', 'A', 0),
    line('11', 'a', 3),
    line('12', 'B', 6),
    line('13', 'B', 9),
  ];
  expect([...conflictsOf(state, drawing(2), second)]).toEqual([
    ['column:8', 'the model has a column here already, 400 \u00d7 400'],
    ['grid:10', 'the model has grid line A already'],
    ['grid:11', 'another line is called a'],
    ['grid:12', 'another line is called B'],
    ['grid:13', 'another line is called B'],
  ]);
});

test('a library goes out as a file and comes into another project; names that are there stay as they are', () => {
  const one = applyChanges(
    emptyState,
    acceptCandidates(new Model(), drawing(1), [column('1', 0), column('2', 6, 0.25)], newId).changes,
  ).state;
  const file = readLibraryFile(JSON.stringify(libraryFileOf(one)));
  if (!file.ok) throw new Error(file.message);
  expect(file.value.entries.map(({ name }) => name)).toEqual(['250x400', '400x400']);
  const two = applyChanges(
    emptyState,
    acceptCandidates(new Model(), drawing(1), [column('1', 0)], newId).changes,
  ).state;
  const { edit, known } = bringLibrary(two, file.value, newId);
  expect(known).toEqual(['400x400']);
  expect(
    Object.values(applyChanges(two, edit.changes).state.library)
      .map(({ name }) => name)
      .sort(),
  ).toEqual(['250x400', '400x400']);
  for (const text of [
    '{',
    '{"format":"other"}',
    '{"format":"zircon-frame-library","version":1,"entries":[{"kind":"wall","name":"W","thickness":-1,"layers":[]}]}',
  ])
    expect(readLibraryFile(text)).toMatchObject({
      ok: false,
      message: expect.stringMatching(/not JSON|not a library/),
    });
});
