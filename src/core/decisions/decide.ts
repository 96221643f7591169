import type { ElementRow } from '@/core/kinds/element';
import { checksOf, kinds } from '@/core/kinds/kinds';
import { put, remove, type Change, type Edit } from '@/core/model/edits';
import { sourceLevel } from '@/core/model/levels';
import { Shelf } from '@/core/model/library';
import type { Model } from '@/core/model/model';
import type { DecisionRow, DrawingRow } from '@/core/model/state';
import { atOnce, pieces, type Stepwise } from '@/core/stepwise';
import { shapedOf, type Candidate, type WallCandidate } from '@/core/reading/candidate';
import { valuesOf } from './likeness';

/** "2 columns, 1 wall". */
function describe(candidates: readonly Candidate[]): string {
  const counts = new Map<Candidate['kind'], number>();
  for (const { kind } of candidates) counts.set(kind, (counts.get(kind) ?? 0) + 1);
  return [...counts].map(([kind, n]) => `${n} ${kinds[kind].names[n === 1 ? 0 : 1]}`).join(', ');
}

export const decisionId = (drawingId: string, key: string): string => `${drawingId}/${key}`;

/** What makes elements of candidates is told: where they go, what is there already, and how ids are made. */
interface Making {
  levelId: string | null;
  drawing: string;
  /** The id of a wall accepted before, by the key of its candidate. */
  wallOf: (key: string) => string | null;
  /** A fresh id for an element of a candidate. */
  newId: (candidate: Candidate) => string;
}

interface Made {
  candidate: Candidate;
  element: ElementRow;
}

/** Makes elements of candidates piece by piece, the walls first. */
function* makingElements(candidates: readonly Candidate[], making: Making): Stepwise<Made[]> {
  const made = new Map<string, string>();
  const all: Made[] = [];
  const inOrder = [...candidates].sort((a, b) => Number(a.kind === 'opening') - Number(b.kind === 'opening'));
  for (const piece of pieces(inOrder)) {
    for (const candidate of piece) {
      const element = elementOfCandidate(candidate, making, made);
      if (element === null) continue;
      made.set(candidate.key, element.id);
      all.push({ candidate, element });
    }
    yield;
  }
  return all;
}

function elementOfCandidate(
  candidate: Candidate,
  { levelId, drawing, wallOf, newId }: Making,
  made: ReadonlyMap<string, string>,
): ElementRow | null {
  const wall = candidate.kind === 'opening' ? (made.get(candidate.host) ?? wallOf(candidate.host)) : null;
  if (candidate.kind === 'opening' && wall === null) return null;
  return {
    id: newId(candidate),
    levelId: candidate.kind === 'grid' ? null : levelId,
    source: { drawing, handles: candidate.handles },
    kind: candidate.kind,
    shape: candidate.kind === 'opening' ? { ...candidate.element, wall } : candidate.element,
  } as ElementRow;
}

/**
 * Elements of candidates, with openings in the walls they are read in; an opening whose wall is not there is left out.
 */
export const elementsOfCandidates = (candidates: readonly Candidate[], making: Making): Made[] =>
  atOnce(makingElements(candidates, making));

/** What is wrong with candidates in themselves, by their keys: such are not stored, and stay open. */
function* lookingForUnsound(candidates: readonly Candidate[]): Stepwise<Map<string, string>> {
  const walls = new Map(
    candidates.flatMap((one): [string, WallCandidate][] => (one.kind === 'wall' ? [[one.key, one]] : [])),
  );
  const found = new Map<string, string>();
  for (const piece of pieces(candidates)) {
    for (const candidate of piece) {
      const host = candidate.kind === 'opening' ? (walls.get(candidate.host)?.element ?? null) : null;
      // An opening whose wall is accepted already is judged with it, where it is put.
      if (candidate.kind === 'opening' && host === null) continue;
      const [why] = checksOf(shapedOf(candidate), host);
      if (why !== undefined) found.set(candidate.key, why);
    }
    yield;
  }
  for (const candidate of candidates)
    if (candidate.kind === 'opening' && found.has(candidate.host)) found.set(candidate.key, 'Its wall is not sound.');
  return found;
}

/** What accepting does, and what stays open by it: candidates that are not sound in themselves, with the reason. */
interface Acceptance {
  edit: Edit;
  unsound: ReadonlyMap<string, string>;
}

/**
 * Makes elements of candidates, and entries in the library of sizes that it has not got, in steps.
 * @param newId gives a fresh UUID
 */
export function* accepting(
  model: Model,
  drawing: DrawingRow,
  candidates: readonly Candidate[],
  newId: () => string,
): Stepwise<Acceptance> {
  const before = (key: string): DecisionRow | undefined => model.decision[decisionId(drawing.id, key)];
  const unsound = yield* lookingForUnsound(candidates);
  const open = candidates.filter(({ key }) => before(key)?.verdict !== 'accepted' && !unsound.has(key));
  const shelf = new Shelf(model, newId);
  const making: Making = {
    // On a level that repeats another what is read belongs to the other, or nobody would see it.
    levelId: sourceLevel(model, drawing.levelId),
    drawing: drawing.id,
    wallOf: (key) => before(key)?.elementId ?? null,
    newId,
  };
  const changes: Change[] = [];
  for (const piece of pieces(yield* makingElements(open, making))) {
    for (const made of piece) changes.push(...accepted(drawing, made, shelf));
    yield;
  }
  return { edit: { label: `Accept ${describe(open)}`, changes: [...shelf.changes, ...changes] }, unsound };
}

/** A new element and the decision that made it. */
const accepted = (drawing: DrawingRow, { candidate, element }: Made, shelf: Shelf): Change[] => [
  put('element', { ...element, libraryId: shelf.idFor(element, candidate.libraryId) }),
  put('decision', {
    id: decisionId(drawing.id, candidate.key),
    drawingId: drawing.id,
    key: candidate.key,
    verdict: 'accepted',
    elementId: element.id,
    seen: valuesOf(candidate.asRead ?? candidate.element),
  }),
];

/** Accepts candidates at once; those that are not sound stay open. */
export const acceptCandidates = (...told: Parameters<typeof accepting>): Edit => atOnce(accepting(...told)).edit;

/** Takes elements away with the openings in them, and the decisions that made them, each once. */
export class Removal {
  readonly changes: Change[] = [];
  private readonly gone = new Set<string>();

  /**
   * @param decided ids of decisions that the same edit puts anew, and that are not to be taken away
   * @param moved ids of openings that the same edit puts into other walls, and that do not go with theirs
   */
  constructor(
    private readonly model: Model,
    private readonly decided: ReadonlySet<string> = new Set(),
    private readonly moved: ReadonlySet<string> = new Set(),
  ) {}

  element(id: string): void {
    if (this.gone.has(id) || this.model.element[id] === undefined) return;
    this.gone.add(id);
    this.changes.push(remove('element', id));
    for (const decision of this.model.decisionsOf(id)) this.decision(decision);
    for (const opening of this.model.index.openingsOf(id)) if (!this.moved.has(opening.id)) this.element(opening.id);
  }

  decision({ id }: DecisionRow): void {
    if (this.gone.has(id) || this.decided.has(id)) return;
    this.gone.add(id);
    this.changes.push(remove('decision', id));
  }
}

/** Says no to candidates; elements made of them before go. */
export function rejectCandidates(model: Model, drawing: DrawingRow, candidates: readonly Candidate[]): Edit {
  const open = candidates.filter(({ key }) => model.decision[decisionId(drawing.id, key)]?.verdict !== 'rejected');
  const removal = new Removal(model, new Set(candidates.map(({ key }) => decisionId(drawing.id, key))));
  const verdicts = open.map((candidate): Change => {
    const id = decisionId(drawing.id, candidate.key);
    const elementId = model.decision[id]?.elementId;
    if (elementId) removal.element(elementId);
    return put('decision', {
      id,
      drawingId: drawing.id,
      key: candidate.key,
      verdict: 'rejected',
      elementId: null,
      seen: valuesOf(candidate.element),
    });
  });
  return { label: `Reject ${describe(candidates)}`, changes: [...verdicts, ...removal.changes] };
}

/** Takes decisions back: the candidates are open again. */
export function reopenCandidates(model: Model, drawing: DrawingRow, candidates: readonly Candidate[]): Edit {
  const removal = new Removal(model);
  for (const candidate of candidates) {
    const before = model.decision[decisionId(drawing.id, candidate.key)];
    if (!before) continue;
    removal.decision(before);
    if (before.elementId !== null) removal.element(before.elementId);
  }
  return { label: `Open ${describe(candidates)} again`, changes: removal.changes };
}
