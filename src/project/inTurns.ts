import type { Edit } from '@/core/model/edits';
import type { Model } from '@/core/model/model';
import { atOnce, type Stepwise } from '@/core/stepwise';
import type { Session } from './session';
import { turn } from './turn';

/** Work goes on without a turn for so long, milliseconds. */
const withoutTurn = 20;

/** Does work step by step with turns for the window between. */
async function inTurns<T>(work: Stepwise<T>): Promise<T> {
  for (;;) {
    const begin = performance.now();
    let step = work.next();
    while (!step.done && performance.now() - begin < withoutTurn) step = work.next();
    // The last step's result is used in a turn of its own.
    await turn();
    if (step.done) return step.value;
  }
}

/**
 * Commits an edit that is large to make: it is made in turns, and anew where somebody changed the model meanwhile.
 * @returns whether the server confirmed it
 */
export async function commitInTurns(session: Session, make: (model: Model) => Stepwise<Edit>): Promise<boolean> {
  let changed = false;
  const stop = session.model.subscribe(() => {
    changed = true;
  });
  const made = await inTurns(make(session.model)).finally(stop);
  let ready = changed ? null : made;
  return session.commit((model) => {
    const edit = ready ?? atOnce(make(model));
    ready = null;
    return edit;
  });
}
