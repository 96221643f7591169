import type { StringDecoder } from '../codePage';
import type { LeftOutReason } from '../account';
import type { Interner } from '../interner';
import type { Record } from '../record';
import type { Rows } from '../rows';
import { Flag } from '../drawing';

/** What a builder of one entity kind works with. */
export interface EntityContext {
  record: Record;
  rows: Rows;
  blockNames: Interner;
  decoder: StringDecoder;
  layer: number;
  style: number;
  handle: number;
  /** Flags that all kinds share: invisible. */
  flags: number;
}

/** Turns the groups of one entity into rows. Returns why it could not. */
export type EntityBuilder = (context: EntityContext) => LeftOutReason | null;

/**
 * The plane that an entity's coordinates lie in, by its extrusion direction (DXF reference, object coordinate systems).
 * @returns the number of the plane in the drawing, or -1 for the plan itself
 */
export function planeOf({ record, rows }: EntityContext): number {
  if (!record.has(230) && !record.has(210)) return -1;
  const [x, y, z] = [record.number(210, 0), record.number(220, 0), record.number(230, 1)];
  const size = Math.hypot(x, y, z);
  if (size === 0 || (z > 0 && Math.hypot(x, y) <= 1e-9 * size)) return -1;
  return rows.plane(x / size, y / size, z / size);
}

/** Begins a row that may have an elevation and a plane; `endRow` writes these after its numbers. */
export function beginRow(
  { rows, layer, style, handle, flags }: EntityContext,
  kind: number,
  extra: number,
  z: number,
  plane: number,
): void {
  rows.begin(kind, flags | extra | (z === 0 ? 0 : Flag.elevation) | (plane < 0 ? 0 : Flag.plane), layer, style, handle);
}

export function endRow(rows: Rows, z: number, plane: number): void {
  if (z !== 0) rows.numbers.push(z);
  if (plane >= 0) rows.numbers.push(plane);
}

/** Writes a whole row of plain numbers. */
export function writeRow(context: EntityContext, kind: number, numbers: readonly number[], z = 0, plane = -1): void {
  beginRow(context, kind, 0, z, plane);
  for (const value of numbers) context.rows.numbers.push(value);
  endRow(context.rows, z, plane);
}
