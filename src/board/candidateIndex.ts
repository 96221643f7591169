import { BoxIndex, type Box } from '@/core/geometry/boxIndex';
import { decisionId } from '@/core/decisions/decide';
import type { Model } from '@/core/model/model';
import type { Candidate } from '@/core/reading/candidate';
import { preparedCandidate } from './layers/outlines';
import type { ReadCandidates } from './scene';

/** What was read, by place and by key; what is decided on is left out when it is asked for. */
export class CandidateIndex {
  private readonly entries: { candidate: Candidate; decision: string }[];
  private readonly boxes: BoxIndex<{ candidate: Candidate; decision: string }>;
  private readonly byDecision: Map<string, Candidate>;

  constructor(
    readonly sets: readonly ReadCandidates[],
    private readonly model: Model,
  ) {
    this.entries = sets.flatMap(({ drawingId, candidates }) =>
      candidates.map((candidate) => ({ candidate, decision: decisionId(drawingId, candidate.key) })),
    );
    this.boxes = new BoxIndex(this.entries, ({ candidate }) => preparedCandidate(candidate).box);
    this.byDecision = new Map(this.entries.map(({ candidate, decision }) => [decision, candidate]));
  }

  /** Open candidates whose boxes touch a box. */
  touching(box: Box): Candidate[] {
    return this.boxes
      .touching(box)
      .filter(({ decision }) => this.model.decision[decision] === undefined)
      .map(({ candidate }) => candidate);
  }

  /** An open candidate by its key. */
  byKey(key: string): Candidate | null {
    const found = this.entries.find(({ candidate }) => candidate.key === key);
    return found && this.model.decision[found.decision] === undefined ? found.candidate : null;
  }

  /** The candidate that a decision is about. */
  ofDecision(id: string): Candidate | null {
    return this.byDecision.get(id) ?? null;
  }
}
