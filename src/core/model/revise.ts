import { distance, type Point } from '@/core/geometry/vector';
import type { Candidate } from '@/core/reading/candidate';
import { decisionId } from './commands';
import { put, remove, type Change, type Edit } from './edits';
import type { ElementRow } from './elements';
import { Shelf } from './library';
import { pointsOf } from './outlines';
import { signatureOf } from './signature';
import type { DecisionRow, DrawingRow, ProjectState } from './state';

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
  const byKey = new Map(candidates.map((candidate) => [candidate.key, candidate]));
  const decided = Object.values(state.decision).filter((decision) => decision.drawingId === drawing.id);
  const taken = new Set(decided.map(({ key }) => key));
  const byHandle = new Map<string, Candidate[]>();
  for (const candidate of candidates)
    for (const handle of candidate.handles) {
      const list = byHandle.get(`${candidate.kind} ${handle}`);
      if (list) list.push(candidate);
      else byHandle.set(`${candidate.kind} ${handle}`, [candidate]);
    }
  const open = decided.flatMap(
    (decision): { element: ElementRow; decision: DecisionRow; among: Candidate[] | null; same: Candidate | null }[] => {
      const element =
        decision.elementId === null ? undefined : (state.element[decision.elementId] as ElementRow | undefined);
      // What was accepted before signatures were kept is not asked about.
      if (decision.verdict !== 'accepted' || !element || decision.seen === null) return [];
      const same = byKey.get(decision.key);
      if (same) return signatureOf(same.element) === decision.seen ? [] : [{ element, decision, among: null, same }];
      return [
        {
          element,
          decision,
          same: null,
          among: [
            ...new Set(
              (element.source?.handles ?? []).flatMap((handle) => byHandle.get(`${element.kind} ${handle}`) ?? []),
            ),
          ].filter(({ key }) => !taken.has(key)),
        },
      ];
    },
  );
  // The nearest pairs first, so that no candidate stands for two elements.
  const found = new Map<string, Candidate>();
  const pairs = open
    .flatMap(({ element, decision, among }) =>
      (among ?? []).map((candidate) => ({ decision, candidate, away: apart(element, candidate) })),
    )
    .sort((a, b) => a.away - b.away);
  const given = new Set<string>();
  for (const { decision, candidate } of pairs)
    if (!found.has(decision.id) && !given.has(candidate.key)) {
      found.set(decision.id, candidate);
      given.add(candidate.key);
    }
  return open.map(({ element, decision, same }) => ({
    element,
    decision,
    candidate: same ?? found.get(decision.id) ?? null,
  }));
}

const middleOf = (points: readonly Point[]): Point => [
  points.reduce((sum, [x]) => sum + x, 0) / points.length,
  points.reduce((sum, [, y]) => sum + y, 0) / points.length,
];

const candidatePoints = (candidate: Candidate): Point[] =>
  candidate.kind === 'opening'
    ? candidate.outline
    : pointsOf({ kind: candidate.kind, shape: candidate.element } as ElementRow);

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
  state: ProjectState,
  drawing: DrawingRow,
  changes: readonly SourceChange[],
  candidates: readonly Candidate[],
  newId: () => string,
): Edit {
  const shelf = new Shelf(state, newId);
  const elementOf = new Map<string, string>(
    changes.flatMap(({ candidate, element }) => (candidate ? [[candidate.key, element.id] as const] : [])),
  );
  const hostOf = (key: string): string | null =>
    elementOf.get(key) ?? state.decision[decisionId(drawing.id, key)]?.elementId ?? null;
  const gone = new Set(changes.flatMap(({ candidate, element }) => (candidate === null ? [element.id] : [])));
  const own = new Set(changes.map(({ element }) => element.id));
  const edits = changes.flatMap(({ element, decision, candidate }): Change[] => {
    if (candidate === null) return [remove('element', element.id), remove('decision', decision.id)];
    const shape =
      candidate.kind === 'opening' && element.kind === 'opening'
        ? { ...candidate.element, wall: hostOf(candidate.host) ?? element.shape.wall }
        : candidate.element;
    const next = { ...element, shape, source: { drawing: drawing.id, handles: candidate.handles } } as ElementRow;
    return [
      put('element', {
        ...next,
        libraryId: shelf.idFor(next, candidate.libraryId ?? element.libraryId ?? undefined),
      } as never),
      ...follow(decision, drawing, candidate),
    ];
  });
  // Openings of walls that go are in other walls now, or nowhere.
  const byKey = new Map(candidates.map((candidate) => [candidate.key, candidate]));
  for (const element of Object.values(state.element) as ElementRow[]) {
    if (element.kind !== 'opening' || own.has(element.id) || !gone.has(element.shape.wall)) continue;
    const decision = Object.values(state.decision).find(({ elementId }) => elementId === element.id);
    const candidate = decision && byKey.get(decision.key);
    const host = candidate?.kind === 'opening' ? hostOf(candidate.host) : null;
    edits.push(
      ...(host !== null && candidate?.kind === 'opening'
        ? [put('element', { ...element, shape: { ...candidate.element, wall: host } } as never)]
        : [remove('element', element.id), ...(decision ? [remove('decision', decision.id)] : [])]),
    );
  }
  return {
    label: `Take ${changes.length === 1 ? '1 change' : `${changes.length} changes`} of ${drawing.name}`,
    changes: [...shelf.changes, ...edits],
  };
}

/**
 * Keeps elements as they are and does not ask again: they are known under what is read now, or stand without a source.
 */
export function keepAsTheyAre(state: ProjectState, drawing: DrawingRow, changes: readonly SourceChange[]): Edit {
  return {
    label: `Keep ${changes.length === 1 ? '1 element' : `${changes.length} elements`} of ${drawing.name} as they are`,
    changes: changes.flatMap(({ element, decision, candidate }): Change[] =>
      candidate === null
        ? [put('element', { ...element, source: null } as never), remove('decision', decision.id)]
        : follow(decision, drawing, candidate),
    ),
  };
}

/** The decision under the key and the signature of what is read now. */
function follow(decision: DecisionRow, drawing: DrawingRow, candidate: Candidate): Change[] {
  const id = decisionId(drawing.id, candidate.key);
  return [
    ...(id === decision.id ? [] : [remove('decision', decision.id)]),
    put('decision', { ...decision, id, key: candidate.key, seen: signatureOf(candidate.element) }),
  ];
}
