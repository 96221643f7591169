import { withChanges } from '@/core/kinds/putRight';
import { shapedOf, type Candidate } from '@/core/reading/candidate';

/**
 * A candidate with things put right, by the labels of their fields; what its kind of section has not got stays as it
 * is.
 */
export function putRight<C extends Candidate>(candidate: C, changes: ReadonlyMap<string, string | number>): C {
  const element = withChanges(shapedOf(candidate), changes);
  return { ...candidate, element, asRead: candidate.asRead ?? candidate.element };
}
