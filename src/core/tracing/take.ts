import { boxOf } from '@/core/geometry/boxIndex';
import { acceptCandidates } from '@/core/decisions/decide';
import type { ElementOf, ElementRow } from '@/core/kinds/element';
import { awayFrom } from '@/core/kinds/kinds';
import { alongWall } from '@/core/kinds/opening';
import { put, type Change, type Edit } from '@/core/model/edits';
import { sourceLevel } from '@/core/model/levels';
import type { Model } from '@/core/model/model';
import type { DrawingRow } from '@/core/model/state';
import { fail, ok, type Result } from '@/core/result';
import type { Candidate, OpeningCandidate } from '@/core/reading/candidate';
import { decisionId } from '@/core/decisions/decide';
import { valuesOf } from '@/core/decisions/likeness';
import { newRefusals } from './refusals';
import { describeElements } from './words';

/** A drawn opening lies in a wall of the model whose middle is this near, beyond half its thickness; metres. */
const inWall = 0.1;

/** The wall of the model that a drawn opening lies in. */
function hostOf(model: Model, levelId: string | null, { at }: OpeningCandidate): ElementOf<'wall'> | null {
  const found = model.index
    .touching(levelId, boxOf([at], inWall))
    .filter((element): element is ElementRow & ElementOf<'wall'> => element.kind === 'wall')
    .sort((a, b) => awayFrom(a, at, null) - awayFrom(b, at, null));
  return found[0] ?? null;
}

/** Openings whose walls were not read with them, in walls of the model. */
function inModelWalls(
  model: Model,
  drawing: DrawingRow,
  openings: readonly OpeningCandidate[],
  newId: () => string,
): Change[] {
  const levelId = sourceLevel(model, drawing.levelId);
  return openings.flatMap((candidate): Change[] => {
    const host = hostOf(model, levelId, candidate);
    if (host === null) return [];
    const id = newId();
    const { width } = candidate.element;
    const offset = Math.max(0, alongWall(host.shape, candidate.at) - width / 2);
    return [
      put('element', {
        id,
        levelId,
        source: { drawing: drawing.id, handles: candidate.handles },
        libraryId: null,
        kind: 'opening',
        shape: { ...candidate.element, wall: host.id, offset },
      }),
      put('decision', {
        id: decisionId(drawing.id, candidate.key),
        drawingId: drawing.id,
        key: candidate.key,
        verdict: 'accepted',
        elementId: id,
        seen: valuesOf(candidate.element),
      }),
    ];
  });
}

const elementsIn = (changes: readonly Change[]): ElementRow[] =>
  changes.flatMap((change) => (change.table === 'element' && change.row !== null ? [change.row] : []));

/** Whether a candidate was accepted before, and its element is still there. */
const isTaken = (model: Model, drawing: DrawingRow, { key }: Candidate): boolean =>
  model.decision[decisionId(drawing.id, key)]?.verdict === 'accepted';

/**
 * Takes what was read at a place into the model, with its source, as accepting it at Reading does. What is there
 * already is left out; where nothing is left, the reason is told.
 */
export function takeCandidates(
  model: Model,
  drawing: DrawingRow,
  candidates: readonly Candidate[],
  newId: () => string,
): Result<Edit> {
  if (sourceLevel(model, drawing.levelId) === null && candidates.some(({ kind }) => kind !== 'grid'))
    return fail(`${drawing.name} hangs on no level. Give it one at Datum: what is taken from it belongs there.`);
  let open = candidates.filter((candidate) => !isTaken(model, drawing, candidate));
  if (open.length === 0) return fail('That is in the model already.');
  // One round finds all: what is left out leaves nothing else broken but the openings in it.
  for (let round = 0; round < 2; round += 1) {
    const made = editOf(model, drawing, open, newId);
    const rows = elementsIn(made.changes);
    if (rows.length === 0) return fail('There is no wall in the model for it to be in. Take the wall first.');
    const refusals = newRefusals(model, rows);
    if (refusals.length === 0) return ok(made);
    const bad = new Set(refusals.map(({ id }) => id));
    const badKeys = new Set(
      made.changes.flatMap((change) =>
        change.table === 'decision' && change.row?.elementId && bad.has(change.row.elementId) ? [change.row.key] : [],
      ),
    );
    open = open.filter((one) => !badKeys.has(one.key) && !(one.kind === 'opening' && badKeys.has(one.host)));
    if (open.length === 0) return fail(refusals[0].message);
  }
  return fail('What was read there contradicts itself. Draw it by hand.');
}

function editOf(model: Model, drawing: DrawingRow, candidates: readonly Candidate[], newId: () => string): Edit {
  const keys = new Set(candidates.map(({ key }) => key));
  const homeless = candidates.filter(
    (one): one is OpeningCandidate =>
      one.kind === 'opening' &&
      !keys.has(one.host) &&
      model.decision[decisionId(drawing.id, one.host)]?.elementId == null,
  );
  const own = acceptCandidates(
    model,
    drawing,
    candidates.filter((one) => !homeless.includes(one as OpeningCandidate)),
    newId,
  );
  const changes = [...own.changes, ...inModelWalls(model, drawing, homeless, newId)];
  return { label: `Take ${describeElements(elementsIn(changes))}`, changes };
}
