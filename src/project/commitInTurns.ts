import type { Edit } from '@/core/model/edits';
import type { Model } from '@/core/model/model';
import { atOnce, type Stepwise } from '@/core/stepwise';
import type { Session } from './session';
import { inTurns } from './turn';

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
