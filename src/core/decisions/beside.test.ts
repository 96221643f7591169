import { applyChanges, Model } from '@/core/model/model';
import { emptyState } from '@/core/model/state';
import { besideOther, type StoreyDrawing } from './beside';
import { conflictsOf, joinCandidates } from './conflicts';
import { acceptCandidates, reopenCandidates } from './decide';
import { drawingRow, gridLine, idsFrom, read } from './testing/readings';

const column = (key: string, x: number, width = 0.4, depth = 0.4, rotation = 0) =>
  read('column', key, { position: [x, 0], rotation, section: { shape: 'rectangle', width, depth }, mark: '' });
const wall = (key: string, from: number, to: number, y: number, thickness = 0.2) =>
  read('wall', key, { start: [from, y], end: [to, y], thickness, height: null, bulge: 0, outer: false });

const words = (own: StoreyDrawing, other: StoreyDrawing) =>
  [...besideOther(own, other).unlike].map(([key, said]) => `${key} ${said.words}`);

describe('drawings of one storey beside one another', () => {
  test('columns are alike turned by a quarter with their sides changed; others are told with their size', () => {
    const plan = {
      name: 'A-1',
      candidates: [column('1', 0, 0.3, 0.5), column('2', 6), column('3', 12), column('4', 99)],
    };
    const framing = {
      name: 'S-1',
      candidates: [column('a', 0.02, 0.5, 0.3, 90), column('b', 6, 0.3), column('c', 18)],
    };
    // The one at 99 m lies outside everything that the other drawing shows.
    expect(besideOther(plan, framing).alike).toEqual(new Map([['column', 1]]));
    expect(words(plan, framing)).toEqual(['column:2 300 \u00d7 400 in S-1', 'column:3 not in S-1']);
    expect(words(framing, plan)).toEqual(['column:b 400 \u00d7 400 in A-1', 'column:c not in A-1']);
  });

  test('walls are the same however they are parted, and a structural drawing does not miss partitions', () => {
    const plan = {
      name: 'Ground',
      candidates: [wall('1', 0, 12, 0), wall('2', 0, 6, 4, 0.15), wall('3', 0, 6, 2, 0.1)],
    };
    const framing = {
      name: 'Structure ground',
      candidates: [wall('a', 0, 6, 0), wall('b', 6, 12, 0), wall('c', 0, 6, 4)],
    };
    expect(words(plan, framing)).toEqual(['wall:2 200 mm in Structure ground']);
    expect(words(framing, plan)).toEqual(['wall:c 150 mm in Ground']);
    expect(words(plan, { ...framing, name: 'Other' })).toContain('wall:3 not in Other');
  });

  test('grid lines differ where a label lies elsewhere or a line is called otherwise', () => {
    const plan = { name: 'A', candidates: [gridLine('1', 'A', 0), gridLine('2', 'B', 6), gridLine('3', 'C', 12)] };
    const other = { name: 'S', candidates: [gridLine('a', 'a', 0), gridLine('b', 'B', 6.3), gridLine('c', '3', 12)] };
    expect(words(plan, other)).toEqual(['grid:2 another line is called B in S', 'grid:3 called 3 in S']);
  });

  test('what the other drawing shows nothing of is not missing there', () => {
    expect(words({ name: 'A', candidates: [column('1', 0)] }, { name: 'S', candidates: [wall('a', 0, 6, 0)] })).toEqual(
      [],
    );
  });
});

test('a candidate kept as what the model has is a source of that element, and goes with it', () => {
  const newId = idsFrom(100);
  const first = [column('1', 0), gridLine('2', 'A', 0)];
  const one = applyChanges(emptyState, acceptCandidates(new Model(), drawingRow(1), first, newId).changes).state;
  const second = [column('8', 0.03, 0.5), gridLine('9', 'A', 0), column('10', 6)];
  const edit = joinCandidates(new Model(one), drawingRow(2), second);
  const two = applyChanges(one, edit.changes).state;
  expect(edit.changes).toHaveLength(2);
  expect(Object.values(two.element)).toHaveLength(2);
  expect([...conflictsOf(new Model(two), drawingRow(2), second)]).toEqual([]);
  // Judged again by the first drawing, the element goes, and what the second one said of it.
  const back = applyChanges(two, reopenCandidates(new Model(two), drawingRow(1), [first[0]]).changes).state;
  expect(Object.values(back.element).map(({ kind }) => kind)).toEqual(['grid']);
  expect(Object.keys(back.decision)).toHaveLength(2);
});
