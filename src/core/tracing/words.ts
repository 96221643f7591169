import type { ElementRow } from '@/core/kinds/element';
import { kinds } from '@/core/kinds/kinds';
import { groupBy } from '@/core/groupBy';

/** How many elements there are of each kind: "2 columns, 1 wall". */
export const describeElements = (elements: readonly ElementRow[]): string =>
  [...groupBy(elements, ({ kind }) => kind)]
    .map(([kind, { length }]) => `${length} ${kinds[kind].names[length === 1 ? 0 : 1]}`)
    .join(', ');
