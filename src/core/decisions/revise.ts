import { pushAll } from '@/core/lists';
import { groupBy } from '@/core/groupBy';
import { lazily } from '@/core/lazily';
import { decisionId } from './decide';
import type { ElementKind, ElementOf, ElementRow } from '@/core/kinds/element';
import { pointsOf } from '@/core/kinds/kinds';
import { distance, type Point } from '@/core/geometry/vector';
import { shapedOf, type Candidate } from '@/core/reading/candidate';
import { put, remove, type Change, type Edit } from '@/core/model/edits';
import { Shelf } from '@/core/model/library';
import { readsAlike, valuesOf } from './likeness';
import { counted } from '@/core/model/counted';
import type { Model } from '@/core/model/model';
import type { DecisionRow, DrawingRow, ProjectState } from '@/core/model/state';

/** An accepted element whose source reads otherwise now, or is gone. */
export interface SourceChange {
  element: ElementRow;
  decision: DecisionRow;
  candidate: Candidate | null;
}

/**
 * What a reading says differently of a drawing's accepted elements than the one that they were accepted from: changed
 * sources, and lost ones. A candidate is
 * known again by its key, or, where its key tells a place, by the entities it was read from.
 */
export function sourceChanges(
  state: ProjectState,
  drawing: DrawingRow,
  candidates: readonly Candidate[],
): SourceChange[] {
  const decided = Object.values(state.decision).filter((decision) => decision.drawingId === drawing.id);
  if (decided.length === 0) return [];
  const byKey = new Map(candidates.map((candidate) => [candidate.key, candidate]));
  const others = lazily(() => candidatesByHandle(candidates, new Set(decided.map(({ key }) => key))));
  const open = decided.flatMap((decision): Asked[] => {
    const element = decision.elementId === null ? undefined : state.element[decision.elementId];
    // What was accepted before it was kept what was seen is not asked about.
    if (decision.verdict !== 'accepted' || !element || decision.seen === null) return [];
    const same = byKey.get(decision.key) ?? null;
    if (same !== null) return readsAlike(same.element, decision.seen) ? [] : [{ element, decision, same, among: [] }];
    const among = new Set((element.source?.handles ?? []).flatMap((handle) => others()(element.kind, handle)));
    return [{ element, decision, same, among: [...among] }];
  });
  const found = nearestPairs(open);
  return open.map(({ element, decision, same }) => ({
    element,
    decision,
    candidate: same ?? found.get(decision.id) ?? null,
  }));
}

/** An element to ask about: the candidate that has its key, or those that were read from its entities. */
interface Asked {
  element: ElementRow;
  decision: DecisionRow;
  same: Candidate | null;
  among: Candidate[];
}

/** Candidates by their kind and the entities they were read from, without those that are decided on. */
function candidatesByHandle(
  candidates: readonly Candidate[],
  decided: ReadonlySet<string>,
): (kind: ElementKind, handle: string) => Candidate[] {
  const open = candidates.filter(({ key }) => !decided.has(key));
  const entries = open.flatMap((candidate) => candidate.handles.map((handle) => ({ handle, candidate })));
  const lists = groupBy(entries, ({ handle, candidate }) => `${candidate.kind} ${handle}`);
  return (kind, handle) => (lists.get(`${kind} ${handle}`) ?? []).map(({ candidate }) => candidate);
}

/** The nearest pairs first, so that no candidate stands for two elements. @returns candidates by their decisions */
function nearestPairs(open: readonly Asked[]): Map<string, Candidate> {
  const pairs = open
    .flatMap(({ element, decision, among }) =>
      among.map((candidate) => ({ decision, candidate, away: apart(element, candidate) })),
    )
    .sort((a, b) => a.away - b.away);
  const found = new Map<string, Candidate>();
  const given = new Set<string>();
  for (const { decision, candidate } of pairs)
    if (!found.has(decision.id) && !given.has(candidate.key)) {
      found.set(decision.id, candidate);
      given.add(candidate.key);
    }
  return found;
}

const middleOf = (points: readonly Point[]): Point => [
  points.reduce((sum, [x]) => sum + x, 0) / points.length,
  points.reduce((sum, [, y]) => sum + y, 0) / points.length,
];

const candidatePoints = (candidate: Candidate): Point[] =>
  candidate.kind === 'opening' ? candidate.outline : pointsOf(shapedOf(candidate));

/**
 * How far an element's middle is from a candidate's, metres; zero for openings, which have no place without their wall.
 */
export function apart(element: ElementRow, candidate: Candidate): number {
  const [own, its] = [pointsOf(element), candidatePoints(candidate)];
  return own.length === 0 || its.length === 0 ? 0 : distance(middleOf(own), middleOf(its));
}

/**
 * Takes what is read now: elements get their new shapes, those whose source is gone go, and openings stay in the walls
 * that they are read in.
 * @param newId gives a fresh UUID
 */
export function takeChanges(
  model: Model,
  drawing: DrawingRow,
  changes: readonly SourceChange[],
  candidates: readonly Candidate[],
  newId: () => string,
): Edit {
  const shelf = new Shelf(model, newId);
  const elementOf = new Map<string, string>(
    changes.flatMap(({ candidate, element }) => (candidate ? [[candidate.key, element.id] as const] : [])),
  );
  const hostOf = (key: string): string | null =>
    elementOf.get(key) ?? model.decision[decisionId(drawing.id, key)]?.elementId ?? null;
  const edits = changes.flatMap(({ element, decision, candidate }): Change[] => {
    if (candidate === null) return [remove('element', element.id), remove('decision', decision.id)];
    const next = readAs(element, candidate, drawing, hostOf);
    const libraryId = shelf.idFor(next, candidate.libraryId ?? element.libraryId ?? undefined);
    return [put('element', { ...next, libraryId }), ...follow(decision, drawing, candidate)];
  });
  const own = new Set(changes.map(({ element }) => element.id));
  const gone = changes.filter(({ candidate }) => candidate === null).map(({ element }) => element.id);
  const byKey = new Map(candidates.map((candidate) => [candidate.key, candidate]));
  for (const wallId of gone)
    for (const opening of model.index.openingsOf(wallId))
      if (!own.has(opening.id)) pushAll(edits, rehung(model, opening, byKey, hostOf));
  return {
    label: `Take ${counted(changes.length, 'change')} of ${drawing.name}`,
    changes: [...shelf.changes, ...edits],
  };
}

/** An element as a candidate reads now. */
function readAs(
  element: ElementRow,
  candidate: Candidate,
  drawing: DrawingRow,
  hostOf: (key: string) => string | null,
): ElementRow {
  const source = { drawing: drawing.id, handles: candidate.handles };
  const shape =
    candidate.kind === 'opening' && element.kind === 'opening'
      ? { ...candidate.element, wall: hostOf(candidate.host) ?? element.shape.wall }
      : candidate.element;
  return { ...element, shape, source } as ElementRow;
}

/** An opening whose wall goes is in another wall now, or nowhere. */
function rehung(
  model: Model,
  opening: ElementOf<'opening'>,
  byKey: ReadonlyMap<string, Candidate>,
  hostOf: (key: string) => string | null,
): Change[] {
  const [decision] = model.decisionsOf(opening.id);
  const candidate = decision && byKey.get(decision.key);
  const wall = candidate?.kind === 'opening' ? hostOf(candidate.host) : null;
  if (wall !== null && candidate?.kind === 'opening')
    return [put('element', { ...opening, shape: { ...candidate.element, wall } })];
  return [remove('element', opening.id), ...(decision ? [remove('decision', decision.id)] : [])];
}

/**
 * Keeps elements as they are and does not ask again: they are known under what is read now, or stand without a source.
 */
export function keepAsTheyAre(drawing: DrawingRow, changes: readonly SourceChange[]): Edit {
  return {
    label: `Keep ${counted(changes.length, 'element')} of ${drawing.name} as they are`,
    changes: changes.flatMap(({ element, decision, candidate }): Change[] =>
      candidate === null
        ? [put('element', { ...element, source: null }), remove('decision', decision.id)]
        : follow(decision, drawing, candidate),
    ),
  };
}

/** The decision under the key of what is read now, with that as what was seen. */
function follow(decision: DecisionRow, drawing: DrawingRow, candidate: Candidate): Change[] {
  const id = decisionId(drawing.id, candidate.key);
  return [
    ...(id === decision.id ? [] : [remove('decision', decision.id)]),
    put('decision', { ...decision, id, key: candidate.key, seen: valuesOf(candidate.element) }),
  ];
}
