import type { ElementRow, Shaped } from '@/core/kinds/element';
import type { Edit } from '@/core/model/edits';
import { Shelf } from '@/core/model/library';
import type { Model } from '@/core/model/model';
import { fail, type Result } from '@/core/result';
import { soundEdit } from '../refusals';
import { describeElements } from '../words';

/** Where new elements go, and how their ids are made. */
export interface MakingPlace {
  levelId: string | null;
  newId: () => string;
}

/** Elements of shapes drawn by hand, on a level; grid lines belong to none. */
export const rowsOf = (shapes: readonly Shaped[], { levelId, newId }: MakingPlace): ElementRow[] =>
  shapes.map(
    (shape) => ({ ...shape, id: newId(), levelId: shape.kind === 'grid' ? null : levelId, source: null }) as ElementRow,
  );

/** Elements with their entries in the library, found or made. */
export function shelved(model: Model, rows: readonly ElementRow[], newId: () => string) {
  const shelf = new Shelf(model, newId);
  const elements = rows.map((row) => ({ ...row, libraryId: shelf.idFor(row, row.libraryId ?? undefined) }));
  return { elements, entries: shelf.changes };
}

/** Makes elements of shapes drawn by hand, and entries in the library of sizes that it has not got. */
export function makeElements(model: Model, shapes: readonly Shaped[], place: MakingPlace): Result<Edit> {
  if (shapes.length === 0) return fail('There is nothing to make there.');
  const { elements, entries } = shelved(model, rowsOf(shapes, place), place.newId);
  return soundEdit(model, `Draw ${describeElements(elements)}`, elements, entries);
}
