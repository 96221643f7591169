import { accepting } from '@/core/decisions/decide';
import { counted } from '@/core/model/counted';
import type { DrawingRow } from '@/core/model/state';
import type { Candidate } from '@/core/reading/candidate';
import { commitInTurns } from './commitInTurns';
import type { Session } from './session';

/** Accepts candidates of a drawing, however many; of those that stay open it is told why. */
export function accept(session: Session, drawing: DrawingRow, candidates: readonly Candidate[]): Promise<boolean> {
  let told = false;
  return commitInTurns(session, function* make(model) {
    const { edit, unsound } = yield* accepting(model, drawing, candidates, () => crypto.randomUUID());
    const [why] = unsound.values();
    // It may be made anew, on top of what others did.
    if (why !== undefined && !told)
      session.tell({ kind: 'problem', text: `${counted(unsound.size, 'candidate')} stayed open: ${why}` });
    told = true;
    return edit;
  });
}
