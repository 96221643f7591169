import { acceptCandidates } from '@/core/decisions/decide';
import { applyChanges, type Model } from './model';
import fc from 'fast-check';
import type { ColumnCandidate } from '@/core/reading/candidate';
import { put, type Edit } from './edits';
import {
  changeLevel,
  elementsAt,
  hangsOn,
  insertLevel,
  levelsUp,
  plainLevel,
  removeLevel,
  repeatStorey,
  structuralTop,
  takeElevations,
  usesOf,
} from './levels';
import { follow, makeOwn } from './repeatLevels';
import { emptyState, type LevelRow, type ProjectState } from './state';
import type { Result } from '@/core/result';

const uuid = (n: number) => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;
let next = 500;
const newId = () => uuid((next += 1));
const level = (n: number, name: string, elevation: number, height: number, more: Partial<LevelRow> = {}): LevelRow => ({
  ...plainLevel,
  id: uuid(n),
  name,
  elevation,
  height,
  ...more,
});
const house = [
  level(1, 'Ground', 0, 3.9, { kind: 'ground' }),
  level(2, 'Upper', 3.9, 3.6),
  level(3, 'Roof', 7.5, 1.1, { kind: 'roof' }),
];
const with_ = (levels: LevelRow[]): Model =>
  applyChanges(
    emptyState,
    levels.map((row) => put('level', row)),
  ).state;
const after = (state: Model, edit: Result<Edit> | Edit): Model => {
  if ('ok' in edit && !edit.ok) throw new Error(edit.message);
  return applyChanges(state, ('ok' in edit ? (edit as { value: Edit }).value : edit).changes).state;
};
const refusal = (edit: Result<Edit>) => (edit.ok ? 'done' : edit.message);
const shown = (state: ProjectState) => levelsUp(state).map(({ name, elevation, height }) => [name, elevation, height]);
const column = (n: number, levelId: string | null) =>
  put('element', {
    id: uuid(n),
    levelId,
    source: null,
    libraryId: null,
    kind: 'column',
    shape: { position: [n, 0], rotation: 0, section: { shape: 'circle', diameter: 0.4 }, mark: '' },
  });
const drawing = (n: number, levelId: string | null, alsoOn: string[] = []) => ({
  id: uuid(n),
  name: `plan ${n}`,
  fileId: uuid(n + 100),
  fileName: 'x.dxf',
  revision: 1,
  levelId,
  alsoOn,
  discarded: false,
  setAside: false,
});

test('a level goes on top of the highest, or between, where those above are shifted by its height', () => {
  expect(
    shown(after(with_(house), insertLevel(with_(house), uuid(3), 'above', uuid(9), { name: 'Mast' }))).at(-1),
  ).toEqual(['Mast', 8.6, 1.1]);
  const between = after(
    with_(house),
    insertLevel(with_(house), uuid(1), 'above', uuid(9), { name: 'Gallery', height: 2.5 }),
  );
  expect(shown(between)).toEqual([
    ['Ground', 0, 3.9],
    ['Gallery', 3.9, 2.5],
    ['Upper', 6.4, 3.6],
    ['Roof', 10, 1.1],
  ]);
});

test('a basement goes below ground, a second one below it, and one between shifts those below', () => {
  let state = after(with_(house), insertLevel(with_(house), uuid(1), 'below', uuid(9), { height: 3.15 }));
  expect(shown(state)[0]).toEqual(['Basement', -3.15, 3.15]);
  state = after(state, insertLevel(state, uuid(9), 'below', uuid(10), { height: 2.4 }));
  expect(shown(state).slice(0, 2)).toEqual([
    ['Basement 2', -5.55, 2.4],
    ['Basement', -3.15, 3.15],
  ]);
  state = after(state, insertLevel(state, uuid(1), 'below', uuid(11), { name: 'Crawl space', height: 1 }));
  expect(shown(state).slice(0, 4)).toEqual([
    ['Basement 2', -6.55, 2.4],
    ['Basement', -4.15, 3.15],
    ['Crawl space', -1, 1],
    ['Ground', 0, 3.9],
  ]);
});

test('a storey is repeated upwards, those above are shifted, and the copies follow it', () => {
  const state = after(with_(house), repeatStorey(with_(house), uuid(2), 3, 3.2, newId));
  expect(shown(state)).toEqual([
    ['Ground', 0, 3.9],
    ['Upper', 3.9, 3.2],
    ['Upper 2', 7.1, 3.2],
    ['Upper 3', 10.3, 3.2],
    ['Upper 4', 13.5, 3.2],
    ['Roof', 16.7, 1.1],
  ]);
  expect(levelsUp(state).map(({ repeats }) => repeats)).toEqual([null, null, uuid(2), uuid(2), uuid(2), null]);
  // A copy repeated once more follows the level at the root.
  const copy = levelsUp(state)[2];
  const again = after(state, repeatStorey(state, copy.id, 1, 3.2, newId));
  expect(levelsUp(again).filter(({ repeats }) => repeats === uuid(2))).toHaveLength(4);
  for (const bad of [
    repeatStorey(state, uuid(2), 0, 3, newId),
    repeatStorey(state, uuid(2), 1.5, 3, newId),
    repeatStorey(state, uuid(2), 500, 3, newId),
  ])
    expect(refusal(bad)).toMatch(/whole number of storeys from 1 to 200/);
  expect(refusal(repeatStorey(state, uuid(2), 2, 0, newId))).toMatch(/more than zero/);
});

test('one height changed shifts those above, or only the next where they are to stay', () => {
  const state = with_(house);
  expect(shown(after(state, changeLevel(state, { ...house[0], height: 4.2 }, true)))).toEqual([
    ['Ground', 0, 4.2],
    ['Upper', 4.2, 3.6],
    ['Roof', 7.8, 1.1],
  ]);
  expect(shown(after(state, changeLevel(state, { ...house[0], height: 4.2 }, false)))).toEqual([
    ['Ground', 0, 4.2],
    ['Upper', 4.2, 3.3],
    ['Roof', 7.5, 1.1],
  ]);
  expect(shown(after(state, changeLevel(state, { ...house[1], elevation: 4 }, true)))).toEqual([
    ['Ground', 0, 4],
    ['Upper', 4, 3.6],
    ['Roof', 7.6, 1.1],
  ]);
  expect(shown(after(state, changeLevel(state, { ...house[1], elevation: 4 }, false)))).toEqual([
    ['Ground', 0, 4],
    ['Upper', 4, 3.5],
    ['Roof', 7.5, 1.1],
  ]);
  expect(shown(after(state, changeLevel(state, { ...house[2], height: 2 }, true))).at(-1)).toEqual(['Roof', 7.5, 2]);
  // Both at once: the level is moved first, its height counts from there.
  expect(shown(after(state, changeLevel(state, { ...house[1], elevation: 4, height: 3 }, true)))).toEqual([
    ['Ground', 0, 4],
    ['Upper', 4, 3],
    ['Roof', 7, 1.1],
  ]);
});

test('below ground the ground stays: a height moves the level down, and those below along with it', () => {
  const state = with_([level(8, 'Pit', -6, 3), level(9, 'Basement', -3, 3), ...house]);
  expect(shown(after(state, changeLevel(state, { ...state.level[uuid(9)], height: 3.15 }, true))).slice(0, 3)).toEqual([
    ['Pit', -6.15, 3],
    ['Basement', -3.15, 3.15],
    ['Ground', 0, 3.9],
  ]);
  expect(shown(after(state, changeLevel(state, { ...state.level[uuid(9)], height: 3.15 }, false))).slice(0, 3)).toEqual(
    [
      ['Pit', -6, 2.85],
      ['Basement', -3.15, 3.15],
      ['Ground', 0, 3.9],
    ],
  );
  expect(
    shown(after(state, changeLevel(state, { ...state.level[uuid(9)], elevation: -2.8 }, true))).slice(0, 3),
  ).toEqual([
    ['Pit', -5.8, 3],
    ['Basement', -2.8, 2.8],
    ['Ground', 0, 3.9],
  ]);
  expect(refusal(changeLevel(state, { ...state.level[uuid(9)], elevation: 1 }, true))).toMatch(/on or above Ground/);
  expect(refusal(changeLevel(state, { ...state.level[uuid(9)], height: 7 }, false))).toMatch(/on or below Pit/);
  // Alone underground there is nothing to keep.
  const alone = with_([level(9, 'Tunnel', -8, 4)]);
  expect(shown(after(alone, changeLevel(alone, { ...alone.level[uuid(9)], height: 5 }, true)))).toEqual([
    ['Tunnel', -8, 5],
  ]);
});

test.each([
  [
    'two levels at one elevation',
    changeLevel(with_(house), { ...house[1], elevation: 7.5 }, false),
    /Upper and Roof would both stand at 7\.500 m|Roof and Upper would both/,
  ],
  [
    'a height that swallows the next level',
    changeLevel(with_(house), { ...house[0], height: 8 }, false),
    /Upper would come to lie on or above Roof/,
  ],
  [
    'a move below the level under it',
    changeLevel(with_(house), { ...house[1], elevation: -1 }, true),
    /on or below Ground/,
  ],
  ['a height of nothing', changeLevel(with_(house), { ...house[0], height: 0 }, true), /more than zero/],
  [
    'a name that is taken',
    changeLevel(with_(house), { ...house[0], name: 'roof' }, true),
    /Two levels would be called/,
  ],
  ['the last level', removeLevel(with_([house[0]]), uuid(1), { kind: 'drop' }, newId), /only level/],
  [
    'a level that repeats itself',
    follow(with_([house[0], { ...house[1], repeats: uuid(1) }]), uuid(1), uuid(2)),
    /cannot repeat itself/,
  ],
] as [string, Result<Edit>, RegExp][])('refused with a sentence: %s', (_, edit, words) => {
  expect(refusal(edit)).toMatch(words);
});

test('the structure\u2019s top lies below the finished floor by the build-up', () => {
  expect(structuralTop(level(1, 'L', 3.9, 3, { buildUp: 0.12 }))).toBe(3.78);
});

describe('typical levels', () => {
  const typical = level(4, 'Upper 2', 11.1, 3.6, { repeats: uuid(2) });
  const state = applyChanges(with_([...house, typical]), [
    column(70, uuid(2)),
    column(71, uuid(2)),
    column(72, uuid(1)),
    column(73, null),
    put('drawing', drawing(50, uuid(2))),
    put('drawing', drawing(51, uuid(1), [uuid(4)])),
  ]).state;
  const ids = (now: Model, at: string) =>
    elementsAt(now, at)
      .map(({ id }) => Number(id.slice(-3)))
      .sort();

  test('a typical level shows what the level has that it repeats, until it is its own', () => {
    expect(ids(state, uuid(4))).toEqual([70, 71, 73]);
    expect(ids(applyChanges(state, [column(74, uuid(2))]).state, uuid(4))).toEqual([70, 71, 73, 74]);
    const own = after(state, makeOwn(state, uuid(4), newId));
    expect(own.level[uuid(4)].repeats).toBeNull();
    expect(elementsAt(own, uuid(4))).toHaveLength(3);
    expect(elementsAt(applyChanges(own, [column(74, uuid(2))]).state, uuid(4))).toHaveLength(3);
    expect(elementsAt(own, uuid(2))).toHaveLength(3);
  });

  test('its own elements go when it follows another, and undo brings them back', () => {
    const edit = follow(state, uuid(1), uuid(2));
    const followed = after(state, edit);
    expect(ids(followed, uuid(1))).toEqual([70, 71, 73]);
    if (!edit.ok) throw new Error(edit.message);
    const { inverse } = applyChanges(state, edit.value.changes);
    expect(applyChanges(followed, inverse).state).toEqual(state);
  });

  test('a drawing is shown where it hangs, on further levels, and on levels that repeat those', () => {
    expect([1, 2, 3, 4].map((n) => hangsOn(state, state.drawing[uuid(50)], uuid(n)))).toEqual([
      false,
      true,
      false,
      true,
    ]);
    expect([1, 2, 3, 4].map((n) => hangsOn(state, state.drawing[uuid(51)], uuid(n)))).toEqual([
      true,
      false,
      false,
      true,
    ]);
  });

  test('a level taken away leaves its things to another, or its elements go; what repeated it keeps copies', () => {
    expect(usesOf(state, uuid(2))).toMatchObject({
      elements: 2,
      drawings: [{ id: uuid(50) }],
      followers: [{ id: uuid(4) }],
    });
    const given = after(state, removeLevel(state, uuid(2), { kind: 'move', to: uuid(1) }, newId));
    expect(given.drawing[uuid(50)].levelId).toBe(uuid(1));
    expect(ids(given, uuid(1))).toEqual([70, 71, 72, 73]);
    expect(elementsAt(given, uuid(4))).toHaveLength(3);
    expect(shown(given).map(([name]) => name)).toEqual(['Ground', 'Roof', 'Upper 2']);
    const dropped = after(state, removeLevel(state, uuid(2), { kind: 'drop' }, newId));
    expect(dropped.drawing[uuid(50)].levelId).toBeNull();
    expect(dropped.element[uuid(70)]).toBeUndefined();
    expect(elementsAt(dropped, uuid(4))).toHaveLength(3);
    const also = after(state, removeLevel(state, uuid(4), { kind: 'drop' }, newId));
    expect(also.drawing[uuid(51)]).toMatchObject({ levelId: uuid(1), alsoOn: [] });
  });
});

test('what is read on a level that repeats another belongs to the other, and so does what is moved there', () => {
  const typical = level(4, 'Upper 2', 11.1, 3.6, { repeats: uuid(2) });
  const state = applyChanges(with_([...house, typical]), [
    column(70, uuid(1)),
    put('drawing', drawing(50, uuid(4))),
  ]).state;
  const candidate: ColumnCandidate = {
    kind: 'column',
    key: 'column:A',
    element: { position: [1, 2], rotation: 0, section: { shape: 'circle', diameter: 0.45 }, mark: '' },
    raw: { width: 0.45, depth: 0.45 },
    crossing: null,
    evidence: [],
    confidence: 0.9,
    handles: ['A'],
    doubt: null,
  };
  expect(
    Object.values(after(state, acceptCandidates(state, state.drawing[uuid(50)], [candidate], newId)).element).at(-1)
      ?.levelId,
  ).toBe(uuid(2));
  expect(
    after(state, removeLevel(state, uuid(1), { kind: 'move', to: uuid(4) }, newId)).element[uuid(70)].levelId,
  ).toBe(uuid(2));
});

test('elevations of a section move the levels they are meant for and add the others', () => {
  const state = with_(house);
  const taken = after(
    state,
    takeElevations(
      state,
      [
        { name: 'Basement', elevation: -3.15, levelId: null },
        { name: 'Upper floor', elevation: 4.1, levelId: uuid(2) },
        { name: 'Roof', elevation: 8, levelId: uuid(3) },
      ],
      newId,
    ),
  );
  expect(shown(taken)).toEqual([
    ['Basement', -3.15, 3.15],
    ['Ground', 0, 4.1],
    ['Upper', 4.1, 3.9],
    ['Roof', 8, 1.1],
  ]);
});

test('after any run of edits the heights are the distances to the next level, and the levels stand apart', () => {
  const step = fc.tuple(
    fc.integer({ min: 0, max: 5 }),
    fc.integer({ min: 0, max: 30 }),
    fc.double({ min: -6, max: 9, noNaN: true }),
    fc.boolean(),
  );
  fc.assert(
    fc.property(fc.array(step, { maxLength: 14 }), (steps) => {
      let state = with_(house);
      for (const [kind, which, amount, flag] of steps) {
        const all = levelsUp(state);
        const row = all[which % all.length];
        let edit;
        if (kind === 0)
          edit = insertLevel(state, row.id, flag ? 'above' : 'below', newId(), { height: Math.abs(amount) });
        else if (kind === 1) edit = repeatStorey(state, row.id, 1 + (which % 3), Math.abs(amount), newId);
        else if (kind === 2) edit = changeLevel(state, { ...row, height: amount }, flag);
        else if (kind === 3) edit = changeLevel(state, { ...row, elevation: row.elevation + amount }, flag);
        else if (kind === 4) edit = removeLevel(state, row.id, { kind: 'drop' }, newId);
        else edit = follow(state, row.id, all[0].id);

        if (edit.ok) state = after(state, edit);
        const up = levelsUp(state);
        for (let i = 0; i + 1 < up.length; i += 1) {
          expect(up[i + 1].elevation - up[i].elevation).toBeGreaterThan(0.0009);
          expect(up[i].height).toBeCloseTo(up[i + 1].elevation - up[i].elevation, 5);
        }
        for (const { repeats } of up) if (repeats !== null) expect(state.level[repeats].repeats).toBeNull();
      }
    }),
    { numRuns: 200 },
  );
});
