import type { ElementRow } from '@/core/kinds/element';
import { tiedEnds, tiesOf, underRoof, withTies, type Tie, type TiedEnd } from '@/core/kinds/tie';
import type { Edit } from '@/core/model/edits';
import type { Model } from '@/core/model/model';
import { fail, type Result } from '@/core/result';
import { soundEdit } from './refusals';
import { describeElements } from './words';

/** What the ends are called. */
export const endWords: Record<TiedEnd, string> = { base: 'Foot', top: 'Top', start: 'Start', end: 'End' };

/** Whether an end of an element can be tied so. */
const takes = ({ kind }: ElementRow, end: TiedEnd, tie: Tie | null): boolean =>
  tiedEnds[kind]?.includes(end) === true && (tie !== 'roof' || underRoof(kind, end));

/** Ties an end of elements to a level, or under the roof; null lets it be as its own level has it. */
export function tieEnds(model: Model, ids: Iterable<string>, end: TiedEnd, tie: Tie | null): Result<Edit> {
  const rows = [...ids]
    .flatMap((id) => model.element[id] ?? [])
    .filter((element) => takes(element, end, tie))
    .map((element) => withTies(element, { ...tiesOf(element), [end]: tie ?? undefined }));
  if (rows.length === 0)
    return fail('Nothing selected has an end that can be tied so: columns, walls, zones and beams have.');
  return soundEdit(model, `${tie === null ? 'Untie' : 'Tie'} ${describeElements(rows)}`, rows);
}
