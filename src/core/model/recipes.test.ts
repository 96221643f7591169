import { copyRecipe, cutOut, displayOf, heldWords, recipeOf, setRecipe } from './drawings';
import { roleId } from './roles';
import { applyChanges } from './model';
import * as v from 'valibot';
import type { Recipe } from '@/core/underlay/recipe/steps';
import { editSchema, put, type Change } from './edits';
import { emptyState, type DrawingRow, type ProjectState } from './state';

const uuid = (n: number) => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;
const drawing = (n: number, name: string): DrawingRow => ({
  id: uuid(n),
  name,
  fileId: uuid(90),
  fileName: 'sheet.dxf',
  revision: 3,
  levelId: null,
  alsoOn: [],
  discarded: false,
  setAside: true,
});
let next = 100;
const newId = () => uuid((next += 1));
const apply = (state: ProjectState, changes: Change[]) => applyChanges(state, changes).state;
const region: Recipe[number] = {
  id: 'r',
  on: true,
  step: {
    kind: 'region',
    keep: 'inside',
    polygon: [
      [0, 0],
      [9, 0],
      [9, 9],
    ],
  },
};
const gaps: Recipe[number] = { id: 'g', on: false, step: { kind: 'closeGaps', tolerance: 0.01 } };

const sheet = drawing(1, 'sheet');
const start = apply(emptyState, [
  put('drawing', sheet),
  put('placement', {
    id: sheet.id,
    unit: 'mm',
    confirmed: true,
    origin: [5, 6],
    target: [0, 0],
    turning: 1,
    scale: 1,
    mirrored: false,
    upright: null,
  }),
  put('role', {
    id: roleId(sheet.id, 'A-WALL'),
    drawingId: sheet.id,
    layer: 'A-WALL',
    role: 'wall',
    suggested: false,
    shown: false,
    libraryId: null,
  }),
  put('recipe', { id: sheet.id, steps: [gaps] }),
]);

test('a plan cut out of a sheet has its file, placement, roles and recipe, its region first, and is shown from its first revision', () => {
  const edit = cutOut(
    start,
    sheet,
    'Upper',
    [
      [0, 0],
      [10, 0],
      [10, 10],
      [0, 10],
    ],
    newId,
  );
  expect(v.safeParse(editSchema, edit).success).toBe(true);
  const state = apply(start, edit.changes);
  const made = Object.values(state.drawing).find(({ name }) => name === 'Upper')!;
  expect(made).toMatchObject({ fileId: sheet.fileId, revision: 1, setAside: false, discarded: false });
  expect(state.placement[made.id]).toEqual({ ...state.placement[sheet.id], id: made.id });
  expect(state.role[roleId(made.id, 'A-WALL')]).toMatchObject({ drawingId: made.id, role: 'wall', shown: false });
  expect(recipeOf(state, made.id).map(({ step }) => step.kind)).toEqual(['region', 'closeGaps']);
  expect(recipeOf(state, made.id)[1]).toMatchObject({ on: false, step: gaps.step });
  expect(recipeOf(state, made.id)[1].id).not.toBe('g');
  // The sheet stays as it is.
  expect(recipeOf(state, sheet.id)).toEqual([gaps]);
});

test('a recipe goes to other drawings without its regions, and theirs stay', () => {
  const other = drawing(2, 'other');
  const state = apply(start, [
    put('drawing', other),
    put('recipe', { id: other.id, steps: [region, { ...gaps, id: 'old' }] }),
    put('recipe', { id: sheet.id, steps: [region, gaps] }),
  ]);
  const copied = apply(state, copyRecipe(state, sheet, [other], newId).changes);
  expect(recipeOf(copied, other.id).map(({ step }) => step.kind)).toEqual(['region', 'closeGaps']);
  expect(recipeOf(copied, other.id)[0]).toEqual(region);
  expect(copyRecipe(state, sheet, [other], newId).label).toBe('Recipe of sheet to other');
});

test('a drawing without a display is shown plainly, one from before a setting came has it plain', () => {
  expect(displayOf(emptyState, sheet.id)).toMatchObject({
    id: sheet.id,
    colours: 'ink',
    fade: 0,
    held: false,
    stacked: true,
  });
  const older = { display: { [sheet.id]: { id: sheet.id, colours: 'drawn', fade: 0.3 } } } as unknown as ProjectState;
  expect(displayOf(older, sheet.id)).toMatchObject({ colours: 'drawn', fade: 0.3, stacked: true });
});

test('only a held drawing has words against being moved', () => {
  expect(heldWords(start, sheet)).toBeNull();
  const held = apply(start, [put('display', { ...displayOf(start, sheet.id), held: true })]);
  expect(heldWords(held, sheet)).toMatch(/sheet is held and was not moved\. Release it/);
});

test('a recipe from outside is taken within its limits only', () => {
  const edit = (steps: unknown) => ({
    label: 'x',
    changes: [{ table: 'recipe', id: sheet.id, row: { id: sheet.id, steps } }],
  });
  expect(v.safeParse(editSchema, edit([region, gaps])).success).toBe(true);
  for (const steps of [
    [{ ...gaps, step: { kind: 'closeGaps', tolerance: -1 } }],
    [{ ...gaps, step: { kind: 'closeGaps' } }],
    [{ ...gaps, step: { kind: 'explode' } }],
    [
      {
        ...region,
        step: {
          ...region.step,
          polygon: [
            [0, 0],
            [1, 1],
          ],
        },
      },
    ],
    [
      {
        ...region,
        step: {
          ...region.step,
          polygon: [
            [0, 0],
            [1, NaN],
            [2, 2],
          ],
        },
      },
    ],
    Array.from({ length: 61 }, () => gaps),
    [{ id: '', on: true, step: { kind: 'strays' } }],
  ])
    expect(v.safeParse(editSchema, edit(steps)).success).toBe(false);
  expect(setRecipe(sheet.id, [gaps], 'Clean').changes).toEqual([put('recipe', { id: sheet.id, steps: [gaps] })]);
});
