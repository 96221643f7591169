/**
 * Columns as one run of bytes, for the database and the network. Layout, little-endian:
 *
 *   0   4 bytes   magic "ZFC1"
 *   4   uint32    length of the directory in bytes
 *   8   JSON      directory: { meta, columns: [{ name, type, length, offset }] }
 *   ..  columns   each at a multiple of 8 from the start
 */
const types = { Uint8Array, Uint16Array, Uint32Array, Int32Array, Float32Array, Float64Array };
export type AnyColumn = Uint8Array | Uint16Array | Uint32Array | Int32Array | Float32Array | Float64Array;
type Directory = {
  meta: unknown;
  columns: { name: string; type: keyof typeof types; length: number; offset: number }[];
};

const magic = 0x3143465a;
const eight = (n: number) => Math.ceil(n / 8) * 8;

/** Packs named columns and small facts about them. */
export function pack(meta: unknown, columns: Record<string, AnyColumn>): Uint8Array {
  const directory: Directory = { meta, columns: [] };
  let size = 0;
  for (const [name, column] of Object.entries(columns)) {
    directory.columns.push({
      name,
      type: column.constructor.name as keyof typeof types,
      length: column.length,
      offset: size,
    });
    size += eight(column.byteLength);
  }
  const json = new TextEncoder().encode(JSON.stringify(directory));
  const start = eight(8 + json.length);
  const bytes = new Uint8Array(start + size);
  const view = new DataView(bytes.buffer);
  view.setUint32(0, magic, true);
  view.setUint32(4, json.length, true);
  bytes.set(json, 8);
  Object.values(columns).forEach((column, i) =>
    bytes.set(new Uint8Array(column.buffer, column.byteOffset, column.byteLength), start + directory.columns[i].offset),
  );
  return bytes;
}

/** Unpacks what `pack` made; the columns are views of the bytes where these allow it. */
export function unpack(bytes: Uint8Array): { meta: unknown; columns: Record<string, AnyColumn> } {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  if (bytes.byteLength < 8 || view.getUint32(0, true) !== magic)
    throw new Error('Expected packed columns (ZFC1), got other bytes');
  const length = view.getUint32(4, true);
  const directory = JSON.parse(new TextDecoder().decode(bytes.subarray(8, 8 + length))) as Directory;
  const aligned = bytes.byteOffset % 8 === 0 ? bytes : bytes.slice();
  const start = aligned.byteOffset + eight(8 + length);
  const columns: Record<string, AnyColumn> = {};
  for (const { name, type, length: count, offset } of directory.columns)
    columns[name] = new types[type](aligned.buffer as ArrayBuffer, start + offset, count);
  return { meta: directory.meta, columns };
}
