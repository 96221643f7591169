import { groupBy } from '@/core/groupBy';
import { pushAll } from '@/core/lists';
import { counted } from '@/core/model/counted';
import type { Change, Edit } from '@/core/model/edits';
import { Model } from '@/core/model/model';
import { ok, type Result } from '@/core/result';
import { moveElements } from '@/core/tracing/moved';
import type { Drift } from './drift';

/** Elements whose shifts differ by less than this went astray together, metres. */
const together = 0.0005;

/**
 * Puts elements back onto their lines in one edit. What went astray together goes back together, and what meets it
 * follows with its ends; one shift after the other, because a wall across is stretched by one and moved by the next.
 */
export function putBack(model: Model, drifts: readonly Drift[]): Result<Edit> {
  const certain = drifts.flatMap(({ id, back }) => (back === null ? [] : [{ id, back }]));
  const rounded = ([x, y]: readonly [number, number]): string =>
    `${Math.round(x / together)} ${Math.round(y / together)}`;
  const scratch = new Model(model);
  const changes: Change[] = [];
  for (const own of groupBy(certain, ({ back }) => rounded(back)).values()) {
    const edit = moveElements(
      scratch,
      own.map(({ id }) => id),
      own[0].back,
    );
    if (!edit.ok) return edit;
    scratch.apply(edit.value.changes);
    pushAll(changes, edit.value.changes);
  }
  return ok({ label: `Put ${counted(certain.length, 'element')} back onto their lines`, changes });
}
