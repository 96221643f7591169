/**
 * A drawing as it was read: one row an entity, in columns, never an object an entity, so that a
 * million of them fit into memory and cross worker and network borders as they are.
 *
 * Row i has its kind, layer, style, flags and handle in the columns of those names, and its numbers in
 * `numbers[at[i] .. at[i + 1])`, laid out by kind (angles in radians, lengths in drawing units):
 *
 *   line       x1 y1 x2 y2 [z1 z2]
 *   polyline, heavyPolyline   n times (x y), [n times bulge], [elevation]
 *   arc        cx cy radius startAngle endAngle [elevation], counter-clockwise
 *   circle     cx cy radius [elevation]
 *   text, multilineText, attribute   x y height angle widthFactor across up string [elevation]; across 0 left, 1 centre, 2 right; up 0 base line, 1 bottom, 2 middle, 3 top
 *   insert     x y scaleX scaleY angle block columns rows columnSpacing rowSpacing [elevation]
 *   point      x y [z]
 *
 * The bracketed parts are there where the row's flags say so. Rows of a block are contiguous; the model
 * space is the last block, `drawing.blocks[drawing.model]`.
 */
export interface Drawing {
  header: DrawingHeader;
  layers: Layer[];
  styles: Style[];
  blocks: Block[];
  /** Which block is the model space. */
  model: number;
  kind: Uint8Array;
  flags: Uint8Array;
  layer: Uint16Array;
  style: Uint16Array;
  /** Entity handle, its lower 32 bits; 0 where the file gives none. */
  handle: Uint32Array;
  at: Uint32Array;
  numbers: Float64Array;
  /** UTF-8 bytes of all strings; string i is bytes[stringAt[i] .. stringAt[i + 1]). */
  stringBytes: Uint8Array;
  stringAt: Uint32Array;
}

export const Kind = { line: 0, polyline: 1, arc: 2, circle: 3, text: 4, insert: 5, point: 6, heavyPolyline: 7, multilineText: 8, attribute: 9 } as const;

/** The file's name for each kind of row. */
export const kindNames = ['LINE', 'LWPOLYLINE', 'ARC', 'CIRCLE', 'TEXT', 'INSERT', 'POINT', 'POLYLINE', 'MTEXT', 'ATTRIB'] as const;

export const Flag = { closed: 1, bulges: 2, elevation: 4, mirrored: 8, paper: 16, invisible: 32 } as const;

export interface DrawingHeader {
  version: string;
  codePage: string;
  insUnits: number | null;
  measurement: number | null;
  extMin: [number, number] | null;
  extMax: [number, number] | null;
}

export interface Layer {
  name: string;
  colour: number;
  off: boolean;
  frozen: boolean;
  locked: boolean;
  plot: boolean;
}

/** What rows share. A colour is an index 1 to 255, `byBlock`, `byLayer`, or `trueColour` plus 24 bits of red, green and blue. */
export interface Style { colour: number; lineType: string; lineWeight: number }

export const byBlock = 0;
export const byLayer = 256;
export const trueColour = 0x1000000;

export interface Block {
  name: string;
  base: [number, number];
  /** Rows first .. first + count. */
  first: number;
  count: number;
  /** Path of the external reference that this block stands for. */
  reference: string | null;
}

const decoder = new TextDecoder();

/** String number `index` of a drawing. */
export function stringOf(drawing: Drawing, index: number): string {
  return decoder.decode(drawing.stringBytes.subarray(drawing.stringAt[index], drawing.stringAt[index + 1]));
}

/** The handle of a row as the file writes it, or the row's number with a leading # where the file gives none. */
export function handleOf(drawing: Drawing, row: number): string {
  const handle = drawing.handle[row];
  return handle === 0 ? `#${row + 1}` : handle.toString(16).toUpperCase();
}

/** How many vertices a polyline row has. */
export function vertexCount(drawing: Drawing, row: number): number {
  const flags = drawing.flags[row];
  const size = drawing.at[row + 1] - drawing.at[row] - (flags & Flag.elevation ? 1 : 0);
  return size / (flags & Flag.bulges ? 3 : 2);
}
