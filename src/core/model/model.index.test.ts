import fc from 'fast-check';
import type { Point } from '@/core/geometry/vector';
import type { ElementKind, ElementRow, Shapes } from '@/core/kinds/element';
import { boxOfElement, kinds } from '@/core/kinds/kinds';
import { put, remove, type Change } from './edits';
import { Model, type Diff } from './model';
import { emptyState } from './state';

const uuid = (n: number) => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;
const levels = [uuid(901), uuid(902), null];

/** Few ids and few coordinates, so that elements are replaced, share ends and hang on one another often. */
const id = fc.integer({ min: 1, max: 14 }).map(uuid);
const point = fc.tuple(fc.integer({ min: 0, max: 4 }), fc.integer({ min: 0, max: 4 }));
const common = fc.record({
  id,
  levelId: fc.constantFrom(...levels),
  source: fc.constantFrom(null, { drawing: uuid(801), handles: ['A'] }, { drawing: uuid(802), handles: [] }),
  libraryId: fc.constantFrom(null, uuid(701), uuid(702)),
});
const section = { shape: 'rectangle', width: 0.3, depth: 0.5 } as const;
const shape = fc.oneof(
  point.map((position) => ({ kind: 'column', shape: { position, rotation: 0, section, mark: '' } }) as const),
  fc
    .tuple(point, point)
    .map(([start, end]) => ({ kind: 'beam', shape: { start, end, section, mark: 'B', drop: 0.1 } }) as const),
  fc
    .tuple(point, point)
    .map(
      ([start, end]) =>
        ({ kind: 'wall', shape: { start, end, thickness: 0.2, height: null, bulge: 0, outer: false } }) as const,
    ),
  id.map(
    (wall) =>
      ({ kind: 'opening', shape: { wall, use: 'door', offset: 0.1, width: 0.9, height: 2.1, sill: 0 } }) as const,
  ),
  fc
    .tuple(point, point)
    .map(([start, end]) => ({ kind: 'grid', shape: { label: 'A', kind: 'line', start, end } }) as const),
);
const element = fc.tuple(common, shape).map(([row, own]) => ({ ...row, ...own }) as ElementRow);
const decision = fc.tuple(fc.integer({ min: 1, max: 6 }), fc.option(id)).map(([n, elementId]): Change =>
  put('decision', {
    id: `${uuid(801)}/k${n}`,
    drawingId: uuid(801),
    key: `k${n}`,
    verdict: 'accepted',
    elementId,
    seen: [n],
  }),
);
const change = fc.oneof(
  { weight: 5, arbitrary: element.map((row): Change => put('element', row)) },
  { weight: 2, arbitrary: id.map((gone): Change => remove('element', gone)) },
  { weight: 1, arbitrary: decision },
  { weight: 1, arbitrary: fc.integer({ min: 1, max: 6 }).map((n) => remove('decision', `${uuid(801)}/k${n}`)) },
);
const edits = fc.array(fc.array(change, { minLength: 1, maxLength: 8 }), { maxLength: 8 });

const endsOf = <K extends ElementKind>(kind: K, shape: Shapes[K]): Point[] => kinds[kind].ends(shape);

const ids = (rows: Iterable<{ id: string }>) => Array.from(rows, (row) => row.id).sort();

/** Everything the indices say, found by looking at every row. */
function byLooking(model: Model) {
  const all = Object.values(model.element);
  const hostOf = (row: ElementRow) => {
    const wall = row.kind === 'opening' ? model.element[row.shape.wall] : undefined;
    return wall?.kind === 'wall' ? wall.shape : null;
  };
  const where = (test: (row: ElementRow) => boolean) => ids(all.filter(test));
  const endsAt = (row: ElementRow, x: number, y: number) =>
    endsOf(row.kind, row.shape).some((end) => end[0] === x && end[1] === y);
  return {
    levels: levels.map((level) => where((row) => row.levelId === level)),
    openings: Array.from({ length: 14 }, (_, i) =>
      where((row) => row.kind === 'opening' && row.shape.wall === uuid(i + 1)),
    ),
    users: [uuid(701), uuid(702)].map((entry) => where((row) => row.libraryId === entry)),
    sources: [uuid(801), uuid(802)].map((drawing) => where((row) => row.source?.drawing === drawing)),
    kinds: (['column', 'beam', 'wall', 'opening', 'grid'] as const).map((kind) => where((row) => row.kind === kind)),
    decisions: Array.from({ length: 14 }, (_, i) =>
      ids(Object.values(model.decision).filter(({ elementId }) => elementId === uuid(i + 1))),
    ),
    nodes: levels.map((level) =>
      [0, 1, 2, 3, 4].map((x) => where((row) => row.levelId === level && endsAt(row, x, 2))),
    ),
    boxes: levels.map((level) =>
      where((row) => {
        const box = boxOfElement(row, hostOf(row));
        return (
          row.levelId === level && box !== null && box[0] <= 2.5 && box[2] >= 0.5 && box[1] <= 1.5 && box[3] >= 0.5
        );
      }),
    ),
    counts: [all.length, Object.keys(model.decision).length],
  };
}

const byIndex = (model: Model): ReturnType<typeof byLooking> => ({
  levels: levels.map((level) => ids(model.index.onLevel(level))),
  openings: Array.from({ length: 14 }, (_, i) => ids(model.index.openingsOf(uuid(i + 1)))),
  users: [uuid(701), uuid(702)].map((entry) => ids(model.index.madeOf(entry))),
  sources: [uuid(801), uuid(802)].map((drawing) => ids(model.index.fromDrawing(drawing))),
  kinds: (['column', 'beam', 'wall', 'opening', 'grid'] as const).map((kind) => ids(model.ofKind(kind))),
  decisions: Array.from({ length: 14 }, (_, i) => ids(model.decisionsOf(uuid(i + 1)))),
  nodes: levels.map((level) => [0, 1, 2, 3, 4].map((x) => ids(model.index.endingAt(level, [x, 2])))),
  boxes: levels.map((level) => ids(model.index.touching(level, [0.5, 0.5, 2.5, 1.5]))),
  counts: [model.count('element'), model.count('decision')],
});

test('after every random edit each index says what looking at all rows says, and what one made anew says', () => {
  fc.assert(
    fc.property(edits, (run) => {
      const model = new Model();
      for (const changes of run) {
        model.apply(changes);
        const found = byIndex(model);
        expect(found).toEqual(byLooking(model));
        expect(found).toEqual(byIndex(new Model(model)));
      }
    }),
    { numRuns: 150 },
  );
});

test('a large edit loads boxes anew, and they still say what looking says', () => {
  const model = new Model();
  const columns = (from: number, to: number, y: number) =>
    Array.from({ length: to - from }, (_, i) =>
      put('element', {
        id: uuid(from + i),
        levelId: levels[0],
        source: null,
        kind: 'column',
        shape: { position: [i % 5, y], rotation: 0, section, mark: '' },
      }),
    );
  model.apply(columns(1, 200, 1));
  expect(byIndex(model).boxes).toEqual(byLooking(model).boxes);
  model.apply(columns(50, 180, 3));
  expect(byIndex(model).boxes).toEqual(byLooking(model).boxes);
  model.apply(columns(60, 62, 1));
  expect(byIndex(model).boxes).toEqual(byLooking(model).boxes);
});

test('undo of everything returns the first state, and every edit is told once, with what it changed', () => {
  fc.assert(
    fc.property(edits, edits, (before, after) => {
      const model = new Model();
      for (const changes of before) model.apply(changes);
      const first = new Model(model);
      const heard: Diff[] = [];
      model.subscribe((diff) => heard.push(diff));
      const inverses = after.map((changes) => model.apply(changes));
      expect(heard).toHaveLength(after.length);
      for (const [i, { rows }] of heard.entries()) expect(rows).toHaveLength(after[i].length);
      for (const inverse of inverses.reverse()) model.apply(inverse);
      expect(model).toEqual(first);
      expect(byIndex(model)).toEqual(byIndex(first));
    }),
  );
});

test('versions grow with what changed and with nothing else', () => {
  const model = new Model(emptyState);
  const column = put('element', {
    id: uuid(1),
    levelId: levels[0],
    source: null,
    kind: 'column',
    shape: { position: [0, 0], rotation: 0, section, mark: '' },
  });
  model.apply([column]);
  expect([model.version('element'), model.version('decision')]).toEqual([1, 0]);
  expect(levels.map((level) => model.levelVersion(level))).toEqual([1, 0, 0]);
  model.apply([put('element', { ...(column.row as ElementRow), levelId: levels[1] })]);
  // An element that goes from one level to another changes both.
  expect(levels.map((level) => model.levelVersion(level))).toEqual([2, 1, 0]);
});
