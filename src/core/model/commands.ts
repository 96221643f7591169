import { betweenPlacements } from '@/core/datum/placement';
import { kindNames, type Candidate } from '@/core/reading/candidate';
import type { Role } from '@/core/sorting/roles';
import { unitNames } from '@/core/units/length';
import { plainDisplay } from '@/core/underlay/display';
import { portable, type Recipe } from '@/core/underlay/recipe/steps';
import { put, remove, type Change, type Edit } from './edits';
import type { ElementRow } from './elements';
import { Shelf, withEntryKept } from './library';
import { moveElement } from './move';
import { signatureOf } from './signature';
import { sourceLevel } from './levels';
import type { DisplayRow, DrawingRow, PlacementRow, ProjectState, RoleRow } from './state';

const count = (n: number, noun: string) => `${n} ${noun}${n === 1 ? '' : 's'}`;

function describe(candidates: readonly Candidate[]): string {
  const kinds = [...new Set(candidates.map((c) => c.kind))];
  return kinds
    .map((kind) => {
      const n = candidates.filter((c) => c.kind === kind).length;
      return `${n} ${kindNames[kind][n === 1 ? 0 : 1]}`;
    })
    .join(', ');
}

export const decisionId = (drawingId: string, key: string): string => `${drawingId}/${key}`;
export const roleId = (drawingId: string, layer: string): string => `${drawingId}/${layer}`;

/** What makes elements of candidates is told: where they go, what is there already, and how ids are made. */
interface Making {
  levelId: string | null;
  drawing: string;
  /** The id of a wall accepted before, by the key of its candidate. */ wallOf: (key: string) => string | null;
  /** A fresh id for an element of a candidate. */ newId: (candidate: Candidate) => string;
}

/**
 * Elements of candidates, with openings in the walls they are read in; an opening whose wall is not there is left out.
 */
export function elementsOfCandidates(
  candidates: readonly Candidate[],
  { levelId, drawing, wallOf, newId }: Making,
): { candidate: Candidate; element: ElementRow }[] {
  const made = new Map<string, string>();
  const inOrder = [...candidates].sort((a, b) => Number(a.kind === 'opening') - Number(b.kind === 'opening'));
  return inOrder.flatMap((candidate) => {
    const wall = candidate.kind === 'opening' ? (made.get(candidate.host) ?? wallOf(candidate.host)) : null;
    if (candidate.kind === 'opening' && wall === null) return [];
    const id = newId(candidate);
    made.set(candidate.key, id);
    const shape = candidate.kind === 'opening' ? { ...candidate.element, wall } : candidate.element;
    return [
      {
        candidate,
        element: {
          id,
          levelId: candidate.kind === 'grid' ? null : levelId,
          source: { drawing, handles: candidate.handles },
          kind: candidate.kind,
          shape,
        } as ElementRow,
      },
    ];
  });
}

/**
 * Makes elements of candidates, and entries in the library of sizes that it has not got.
 * @param newId gives a fresh UUID
 */
export function acceptCandidates(
  state: ProjectState,
  drawing: DrawingRow,
  candidates: readonly Candidate[],
  newId: () => string,
): Edit {
  const open = candidates.filter(({ key }) => state.decision[decisionId(drawing.id, key)]?.verdict !== 'accepted');
  const shelf = new Shelf(state, newId);
  // On a level that repeats another what is read belongs to the other, or nobody would see it.
  const making: Making = {
    levelId: sourceLevel(state, drawing.levelId),
    drawing: drawing.id,
    wallOf: (key) => state.decision[decisionId(drawing.id, key)]?.elementId ?? null,
    newId,
  };
  const changes = elementsOfCandidates(open, making).flatMap(({ candidate, element }): Change[] => [
    put('element', { ...element, libraryId: shelf.idFor(element, candidate.libraryId) } as never),
    put('decision', {
      id: decisionId(drawing.id, candidate.key),
      drawingId: drawing.id,
      key: candidate.key,
      verdict: 'accepted',
      elementId: element.id,
      seen: signatureOf(candidate.asRead ?? candidate.element),
    }),
  ]);
  return { label: `Accept ${describe(candidates)}`, changes: [...shelf.changes, ...changes] };
}

/** The openings of a wall that goes, with their decisions, but for those that are decided on in the same step. */
function openingsOf(state: ProjectState, wallId: string, decided: readonly Candidate[]): Change[] {
  const keys = new Set(decided.map(({ key }) => key));
  return Object.values(state.element)
    .filter((element) => element.kind === 'opening' && element.shape.wall === wallId)
    .flatMap((element): Change[] => {
      const decision = Object.values(state.decision).find(({ elementId }) => elementId === element.id);
      return decision && keys.has(decision.key)
        ? []
        : [remove('element', element.id), ...(decision ? [remove('decision', decision.id)] : [])];
    });
}

/** Says no to candidates; elements made of them before go. */
export function rejectCandidates(state: ProjectState, drawing: DrawingRow, candidates: readonly Candidate[]): Edit {
  const changes = candidates.flatMap((candidate): Change[] => {
    const id = decisionId(drawing.id, candidate.key);
    const before = state.decision[id];
    if (before?.verdict === 'rejected') return [];
    return [
      put('decision', {
        id,
        drawingId: drawing.id,
        key: candidate.key,
        verdict: 'rejected',
        elementId: null,
        seen: signatureOf(candidate.element),
      }),
      ...(before?.elementId && state.element[before.elementId] ? [remove('element', before.elementId)] : []),
      ...(before?.elementId ? openingsOf(state, before.elementId, candidates) : []),
    ];
  });
  return { label: `Reject ${describe(candidates)}`, changes };
}

/** Takes decisions back: the candidates are open again. */
export function reopenCandidates(state: ProjectState, drawing: DrawingRow, candidates: readonly Candidate[]): Edit {
  const changes = candidates.flatMap((candidate): Change[] => {
    const before = state.decision[decisionId(drawing.id, candidate.key)];
    if (!before) return [];
    return [
      remove('decision', before.id),
      ...(before.elementId && state.element[before.elementId] ? [remove('element', before.elementId)] : []),
      ...(before.elementId ? openingsOf(state, before.elementId, candidates) : []),
    ];
  });
  return { label: `Open ${describe(candidates)} again`, changes };
}

export function setRole(drawing: DrawingRow, rows: readonly RoleRow[], role: Role | null): Edit {
  return {
    label: `${rows.length === 1 ? rows[0].layer : count(rows.length, 'layer')}: ${role ?? 'no role'}`,
    changes: rows.map((row) => put('role', { ...row, drawingId: drawing.id, role, suggested: false })),
  };
}

export function showLayers(rows: readonly RoleRow[], shown: boolean): Edit {
  return {
    label: `${shown ? 'Show' : 'Hide'} ${rows.length === 1 ? rows[0].layer : count(rows.length, 'layer')}`,
    changes: rows.map((row) => put('role', { ...row, shown })),
  };
}

/** The elements that came from a drawing. */
export const elementsOf = (state: ProjectState, drawingId: string): ElementRow[] =>
  Object.values(state.element).filter((element) => element.source?.drawing === drawingId) as ElementRow[];

/** Why a drawing cannot be moved, or null where it can. */
export const heldWords = (state: ProjectState, drawing: DrawingRow): string | null =>
  state.display[drawing.id]?.held
    ? `${drawing.name} is held and was not moved. Release it at Intake, under Display, first.`
    : null;

/**
 * Places a drawing anew.
 * @param takeElements whether the elements that came from it are carried along; else they stay where they are
 */
export function placeDrawing(state: ProjectState, placement: PlacementRow, label: string, takeElements: boolean): Edit {
  const before = state.placement[placement.id];
  const changes: Change[] = [put('placement', placement)];
  if (takeElements && before) {
    const map = betweenPlacements(before, placement);
    for (const element of elementsOf(state, placement.id))
      changes.push(put('element', withEntryKept(state, moveElement(element, map)) as never));
  }
  return { label, changes };
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
    label: `Recipe of ${from.name} to ${to.length === 1 ? to[0].name : count(to.length, 'drawing')}`,
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
