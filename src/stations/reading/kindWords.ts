import { elementKinds } from '@/core/kinds/element';
import { kinds } from '@/core/kinds/kinds';
import type { Candidate } from '@/core/reading/candidate';

/** The kinds in the plural, as they head a list. */
export const kindWords = Object.fromEntries(
  elementKinds.map((kind) => [kind, kinds[kind].names[1][0].toUpperCase() + kinds[kind].names[1].slice(1)]),
) as Record<Candidate['kind'], string>;
