import { Removal } from '@/core/decisions/decide';
import type { Edit } from '@/core/model/edits';
import type { Model } from '@/core/model/model';
import { describeElements } from './words';

/** Deletes elements, walls with their openings; candidates that they were made of are open again. Held ones stay. */
export function removeElements(model: Model, ids: Iterable<string>): Edit {
  const removal = new Removal(model);
  const elements = [...ids].flatMap((id) => model.element[id] ?? []).filter(({ held }) => held !== true);
  for (const { id } of elements) removal.element(id);
  return { label: `Delete ${describeElements(elements)}`, changes: removal.changes };
}
