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
  /** Flags that all kinds share: paper space, invisible. */
  flags: number;
}

/** Turns the groups of one entity into a row. Returns why it could not. */
export type EntityBuilder = (context: EntityContext) => LeftOutReason | null;

export type Extrusion = 'plan' | 'mirrored' | 'tilted';

/**
 * How an entity's own plane lies, by its extrusion direction. With (0,0,-1) the arbitrary-axis rule gives
 * the axes (-1,0,0) and (0,1,0): what was drawn at x stands at -x (DXF reference, object coordinate systems).
 */
export function extrusionOf(record: Record): Extrusion {
  if (!record.has(230) && !record.has(210)) return 'plan';
  const [x, y, z] = [record.number(210, 0), record.number(220, 0), record.number(230, 1)];
  const size = Math.hypot(x, y, z);
  if (Math.hypot(x, y) > 1e-6 * size || size === 0) return 'tilted';
  return z < 0 ? 'mirrored' : 'plan';
}

/** The elevation to append to a row, and its flag. */
export function elevationFlag(z: number): number {
  return z === 0 ? 0 : Flag.elevation;
}

/** Marks a group code as the height of a row where it is not zero. */
export function pushElevation(rows: Rows, z: number): void {
  if (z !== 0) rows.numbers.push(z);
}
