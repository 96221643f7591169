import type { ElementRow } from '@/core/kinds/element';
import { plainDisplay } from '@/core/underlay/display';
import { portable, type Recipe } from '@/core/underlay/recipe/steps';
import { unitNames } from '@/core/units/length';
import { carriedBy } from './correction';
import { counted } from './counted';
import { put, type Change, type Edit } from './edits';
import { withEntryKept } from './library';
import type { Model } from './model';
import { roleId } from './roles';
import type { DisplayRow, DrawingRow, PlacementRow, ProjectState } from './state';

/** Why a drawing cannot be moved, or null where it can. */
export const heldWords = (state: ProjectState, drawing: DrawingRow): string | null =>
  state.display[drawing.id]?.held
    ? `${drawing.name} is held and was not moved. Release it at Intake, under Display, first.`
    : null;

/**
 * Places a drawing anew.
 * @param along the elements that are carried along; all others stay where they are
 */
export function placeDrawing(
  state: Model,
  placement: PlacementRow,
  label: string,
  along: readonly ElementRow[] = [],
): Edit {
  const before = state.placement[placement.id];
  const carried = before === undefined ? [] : carriedBy(state, along, before, placement);
  return {
    label,
    changes: [
      put('placement', placement),
      ...carried.map((element): Change => put('element', withEntryKept(state, element))),
    ],
  };
}

export const unitLabel = (drawing: DrawingRow, { unit, scale }: PlacementRow): string =>
  `${drawing.name} is in ${unitNames[unit]}${scale === 1 ? '' : ` at 1:${Number(scale.toPrecision(6))}`}`;

/** How a drawing is shown. */
export const displayOf = (state: ProjectState, drawingId: string): DisplayRow => ({
  ...plainDisplay,
  ...state.display[drawingId],
  id: drawingId,
});

/** The clean-up steps of a drawing. */
export const recipeOf = (state: ProjectState, drawingId: string): Recipe => state.recipe[drawingId]?.steps ?? [];

export const setRecipe = (drawingId: string, steps: Recipe, label: string): Edit => ({
  label,
  changes: [put('recipe', { id: drawingId, steps })],
});

/**
 * Adds the steps of a recipe that fit any drawing to the recipes of others, after their own.
 * @param newId gives a fresh id
 */
export function copyRecipe(
  state: ProjectState,
  from: DrawingRow,
  to: readonly DrawingRow[],
  newId: () => string,
): Edit {
  const steps = portable(recipeOf(state, from.id));
  return {
    label: `Recipe of ${from.name} to ${to.length === 1 ? to[0].name : counted(to.length, 'drawing')}`,
    changes: to.map((drawing) =>
      put('recipe', {
        id: drawing.id,
        steps: [
          ...recipeOf(state, drawing.id).filter(({ step }) => step.kind === 'region'),
          ...steps.map((step) => ({ ...step, id: newId() })),
        ],
      }),
    ),
  };
}

/**
 * Makes a drawing of its own of a part of a sheet, from the same file: its region is a step of its recipe.
 * @param polygon in the drawing's coordinates
 * @param newId gives a fresh UUID
 */
export function cutOut(
  state: ProjectState,
  sheet: DrawingRow,
  name: string,
  polygon: [number, number][],
  newId: () => string,
): Edit {
  const id = newId();
  const placement = state.placement[sheet.id];
  const roles = Object.values(state.role).filter((row) => row.drawingId === sheet.id);
  return {
    label: `Cut ${name} out of ${sheet.name}`,
    changes: [
      put('drawing', { ...sheet, id, name, revision: 1, setAside: false, discarded: false }),
      ...(placement ? [put('placement', { ...placement, id })] : []),
      put('recipe', {
        id,
        steps: [
          { id: newId(), on: true, step: { kind: 'region', keep: 'inside', polygon } },
          ...recipeOf(state, sheet.id).map((step) => ({ ...step, id: newId() })),
        ],
      }),
      put('display', { ...displayOf(state, sheet.id), id }),
      ...roles.map((row) => put('role', { ...row, id: roleId(id, row.layer), drawingId: id })),
      ...Object.values(state.pick)
        .filter((row) => row.drawingId === sheet.id)
        .map((row) => put('pick', { ...row, id: newId(), drawingId: id })),
    ],
  };
}
