import type { Drawing } from '@/core/drawing/drawing';
import type { Primitives } from '@/core/underlay/primitives';
import { detailRows } from './details';
import { groupCells, tableRowsOf, type KeyedRow, type ScheduleRows } from './schedule';

/** What a sheet says of marks, wherever and in whatever unit: the rows of its tables, and what its details draw. */
export function sheetRowsOf(drawing: Drawing, primitives: Primitives): KeyedRow[] {
  const tables = tableRowsOf(drawing, primitives);
  return [...tables, ...detailRows(primitives, () => tables)];
}

/** The same by the keys of the rows. */
export const rowsOfSheet = (drawing: Drawing, primitives: Primitives): ScheduleRows =>
  groupCells(sheetRowsOf(drawing, primitives));
