import type { ElementRow } from '@/core/kinds/element';
import type { Model } from '@/core/model/model';

/** The labels of the model's grid. */
export const labelsTaken = (model: Model): Set<string> =>
  new Set(Array.from(model.ofKind('grid'), ({ shape }) => shape.label));

/** A copy of a grid line gets a label of its own, with primes: two lines of one label are not told apart. */
export function withOwnLabel(row: ElementRow, taken: Set<string>): ElementRow {
  if (row.kind !== 'grid') return row;
  let { label } = row.shape;
  while (taken.has(label)) label += "'";
  taken.add(label);
  return { ...row, shape: { ...row.shape, label } };
}
