import { applyChanges, type Model } from './model';
import { put } from './edits';
import { emptyState, type DrawingRow, type LevelRow } from './state';
import { levelsUp, plainLevel } from './levels';
import { lacksLevel, levelOfTitle, repeatsOf, storeysIn, storeyTitle, takeTitle } from './storeyTitle';

test.each([
  ['+3.90 to +11.10', 'elevation', 3.9, 11.1],
  ['Plan +3,90 bis +11,10', 'elevation', 3.9, 11.1],
  ['\u00b10.00 \u2013 +7.20', 'elevation', 0, 7.2],
  ['2nd to 5th floor', 'number', 2, 5],
  ['Floors 2 - 5', 'number', 2, 5],
  ['2. bis 5. Obergeschoss', 'number', 2, 5],
  ['2.-4. OG', 'number', 2, 4],
  ['\u00c9tages 2 \u00e0 5', 'number', 2, 5],
  ['PLANTAS 3 A 7', 'number', 3, 7],
  ['Level 12\nto 18', 'number', 12, 18],
] as const)('%j is of several storeys by %s', (text, by, from, to) => {
  expect(storeysIn(text)).toMatchObject({ by, from, to });
});

test.each([
  'Scale 1:50 to 1:100',
  '5th to 2nd floor',
  'Room 2-5',
  '+11.10 to +3.90',
  'Ground floor',
  '2 to 5',
  'D2 - D5',
  '12.5 to 14 floor finish',
])('%j says nothing of several storeys', (text) => {
  expect(storeysIn(text)).toBeNull();
});

test('of several titles the one written largest counts', () => {
  const texts = [
    { text: '2nd to 5th floor', height: 0.5 },
    { text: 'Floors 1 to 3', height: 0.3 },
    { text: 'Reed Bank Centre', height: 0.9 },
  ];
  expect(storeyTitle(texts)).toMatchObject({ from: 2, to: 5 });
  expect(storeyTitle([texts[2]])).toBeNull();
});

const uuid = (n: number) => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;
let next = 500;
const newId = () => uuid((next += 1));
const level = (n: number, name: string, elevation: number, height: number): LevelRow => ({
  ...plainLevel,
  id: uuid(n),
  name,
  elevation,
  height,
});
const house = applyChanges(
  emptyState,
  [level(1, 'Ground', 0, 3.9), level(2, 'Upper', 3.9, 3.6), level(3, 'Roof', 7.5, 1.1)].map((row) => put('level', row)),
).state;
const drawing = { id: uuid(9), name: 'Upper plan', levelId: uuid(2) } as DrawingRow;
const shown = (state: Model) => levelsUp(state).map(({ name, elevation, repeats }) => [name, elevation, repeats]);
const after = (made: ReturnType<typeof takeTitle>): Model => {
  if (!made.ok) throw new Error(made.message);
  return applyChanges(house, made.value.changes).state;
};

test('a title by numbers repeats the level that its drawing hangs on; what is repeated is not asked again', () => {
  const title = storeysIn('2nd to 4th floor')!;
  const state = after(takeTitle(house, drawing, title, newId));
  expect(shown(state)).toEqual([
    ['Ground', 0, null],
    ['Upper', 3.9, null],
    ['Upper 2', 7.5, uuid(2)],
    ['Upper 3', 11.1, uuid(2)],
    ['Roof', 14.7, null],
  ]);
  expect(repeatsOf(state, drawing, title)).toBeNull();
  expect(repeatsOf(house, { ...drawing, levelId: null }, title)).toBeNull();
});

test('a title by heights repeats the level at the lower one up to the upper, in storeys as even as they go', () => {
  // 7.3 m in storeys of about 3.6 m are two of 3.65 m.
  const state = after(takeTitle(house, drawing, storeysIn('+3.90 to +11.20')!, newId));
  expect(levelsUp(state).map(({ elevation }) => Number(elevation.toFixed(6)))).toEqual([0, 3.9, 7.55, 11.2, 14.85]);
});

test('a title that begins where no level stands is told, and the level can be added', () => {
  const title = storeysIn('+7.80 to +11.40')!;
  expect(lacksLevel(house, title)).toBe(true);
  const refused = takeTitle(house, drawing, title, newId);
  expect(refused.ok ? '' : refused.message).toMatch(/^No level stands where .+7\.80 to \+11\.40. begins\./);
  const state = after(levelOfTitle(house, title, newId));
  expect(lacksLevel(state, title)).toBe(false);
  expect(lacksLevel(house, storeysIn('Floors 2 to 4')!)).toBe(false);
});
