import type { Drawing } from './drawing';
import { pack, unpack } from './pack';

const columnNames = ['kind', 'flags', 'layer', 'style', 'handle', 'at', 'numbers', 'stringBytes', 'stringAt'] as const;
type ColumnName = (typeof columnNames)[number];

/** Raised when what is packed, or how it is read from a file, changes: derived columns made before are then made again. */
export const readerVersion = 1;

/** A drawing as bytes. */
export function packDrawing(drawing: Drawing): Uint8Array {
  const { header, layers, styles, blocks, model } = drawing;
  return pack({ header, layers, styles, blocks, model }, Object.fromEntries(columnNames.map((name) => [name, drawing[name]])));
}

/** A drawing from its bytes. */
export function unpackDrawing(bytes: Uint8Array): Drawing {
  const { meta, columns } = unpack(bytes);
  return { ...(meta as Omit<Drawing, ColumnName>), ...(columns as unknown as Pick<Drawing, ColumnName>) };
}
