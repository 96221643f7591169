import { acceptCandidates } from './decide';
import { applyChanges, Model } from '@/core/model/model';
import { conflictsOf } from './conflicts';
import { drawingRow, gridLine, idsFrom, read } from './testing/readings';
import { bringLibrary, libraryFileOf, readLibraryFile } from '@/core/model/libraryFile';
import { emptyState } from '@/core/model/state';

const newId = idsFrom(100);
const column = (key: string, x: number, width = 0.4) =>
  read('column', key, { position: [x, 0], rotation: 0, section: { shape: 'rectangle', width, depth: 0.4 }, mark: '' });

test('what the model has at a place already is a conflict for another drawing, not for the one it came from', () => {
  const first = [column('1', 0), column('2', 6), gridLine('3', 'A', 0)];
  const state = applyChanges(emptyState, acceptCandidates(new Model(), drawingRow(1), first, newId).changes).state;
  expect(conflictsOf(state, drawingRow(1), first)).toEqual(new Map());
  const second = [
    column('8', 0.05, 0.5),
    column('9', 12),
    gridLine('10', 'A', 0),
    gridLine('11', 'a', 3),
    gridLine('12', 'B', 6),
    gridLine('13', 'B', 9),
  ];
  expect([...conflictsOf(state, drawingRow(2), second)]).toEqual([
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
    acceptCandidates(new Model(), drawingRow(1), [column('1', 0), column('2', 6, 0.25)], newId).changes,
  ).state;
  const file = readLibraryFile(JSON.stringify(libraryFileOf(one)));
  if (!file.ok) throw new Error(file.message);
  expect(file.value.entries.map(({ name }) => name)).toEqual(['250x400', '400x400']);
  const two = applyChanges(
    emptyState,
    acceptCandidates(new Model(), drawingRow(1), [column('1', 0)], newId).changes,
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
