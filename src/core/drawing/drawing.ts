/**
 * A drawing as it was read: one row a thing to draw, in columns, never an object an entity, so that a
 * million of them fit into memory and cross worker and network borders as they are.
 *
 * Row i has its kind, layer, style, flags and handle in the columns of those names, and its numbers in
 * `numbers[at[i] .. at[i + 1])`, laid out by kind (angles in radians, lengths in drawing units):
 *
 *   line       x1 y1 x2 y2 [z1 z2]
 *   polyline, heavyPolyline   n times (x y), [n times bulge], [n times z]
 *   arc        cx cy radius startAngle endAngle, counter-clockwise
 *   circle     cx cy radius
 *   ellipse    cx cy ax ay bx by start end: centre + a cos t + b sin t
 *   spline     see `splineLayout.ts`
 *   hatch      see `hatchLayout.ts`
 *   the kinds of lines only (`runKinds`)   runs, then for each: n closed n times (x y)
 *   texts (`textKinds`)   x y height angle widthFactor across up string; across 0 left, 1 centre, 2 right; up 0 base
 * line, 1 bottom, 2 middle, 3 top
 *   insert, table   x y scaleX scaleY angle block columns rows columnSpacing rowSpacing scaleZ
 *   dimension  as insert, then type measured override, the points 10 11 13 14 15 16 as x y each, angle; override is a
 * string or -1
 *   construction   x y dx dy both: an endless line, or a ray where `both` is 0
 *   point      x y
 *
 * The bracketed parts are there where the row's flags say so. After them come the elevation (`Flag.elevation`) and the
 * number of the plane that the row lies in (`Flag.plane`), which is tilted or seen from behind. Rows of a block are
 * contiguous; the model space is the last block, `drawing.blocks[drawing.model]`.
 */
export interface Drawing {
  header: DrawingHeader;
  layers: Layer[];
  styles: Style[];
  lineTypes: LineType[];
  /** Normals of the tilted planes that rows lie in. */
  planes: [number, number, number][];
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

export const Kind = {
  line: 0,
  polyline: 1,
  arc: 2,
  circle: 3,
  text: 4,
  insert: 5,
  point: 6,
  heavyPolyline: 7,
  multilineText: 8,
  attribute: 9,
  ellipse: 10,
  spline: 11,
  hatch: 12,
  solid: 13,
  trace: 14,
  face: 15,
  dimension: 16,
  leader: 17,
  multiLeader: 18,
  multiLine: 19,
  construction: 20,
  ray: 21,
  wipeout: 22,
  image: 23,
  viewport: 24,
  table: 25,
  attributeDefinition: 26,
  mesh: 27,
  multiLeaderText: 28,
} as const;

/** The file's name for each kind of row. */
export const kindNames = [
  'LINE',
  'LWPOLYLINE',
  'ARC',
  'CIRCLE',
  'TEXT',
  'INSERT',
  'POINT',
  'POLYLINE',
  'MTEXT',
  'ATTRIB',
  'ELLIPSE',
  'SPLINE',
  'HATCH',
  'SOLID',
  'TRACE',
  '3DFACE',
  'DIMENSION',
  'LEADER',
  'MULTILEADER',
  'MLINE',
  'XLINE',
  'RAY',
  'WIPEOUT',
  'IMAGE',
  'VIEWPORT',
  'ACAD_TABLE',
  'ATTDEF',
  'POLYLINE',
  'MULTILEADER',
] as const;

const kindSet = (...kinds: number[]): Uint8Array =>
  Uint8Array.from({ length: kindNames.length }, (_, kind) => (kinds.includes(kind) ? 1 : 0));

/** Kinds whose rows hold nothing but runs of straight lines. */
export const runKinds = kindSet(
  Kind.solid,
  Kind.trace,
  Kind.face,
  Kind.leader,
  Kind.multiLeader,
  Kind.multiLine,
  Kind.wipeout,
  Kind.image,
  Kind.viewport,
  Kind.mesh,
);
export const textKinds = kindSet(
  Kind.text,
  Kind.multilineText,
  Kind.attribute,
  Kind.attributeDefinition,
  Kind.multiLeaderText,
);
/** Kinds that stand for a block; its number is the sixth of their numbers. */
export const blockKinds = kindSet(Kind.insert, Kind.table, Kind.dimension);

export const Flag = { closed: 1, bulges: 2, elevation: 4, plane: 8, heights: 16, invisible: 32, constant: 64 } as const;

export interface DrawingHeader {
  version: string;
  codePage: string;
  insUnits: number | null;
  measurement: number | null;
  /** Format of lengths, `$LUNITS`: 1 scientific, 2 decimal, 3 engineering, 4 architectural, 5 fractional. */
  lengthFormat: number | null;
  /** `$DIMLFAC`: what measured dimensions are multiplied with. */
  dimensionFactor: number | null;
  lineTypeScale: number;
  insertionBase: [number, number] | null;
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
  lineType: string;
  /** Hundredths of a millimetre; -3 is the default. */
  lineWeight: number;
}

/** Dashes in drawing units: positive drawn, negative left out, zero a dot. None is a continuous line. */
export interface LineType {
  name: string;
  dashes: number[];
}

/**
 * What rows share. A colour is an index 1 to 255, `byBlock`, `byLayer`, or `trueColour` plus 24 bits of red, green and
 * blue.
 */
/** A line weight is in hundredths of a millimetre, -1 by layer, -2 by block, -3 the default. */
export interface Style {
  colour: number;
  lineType: string;
  lineTypeScale: number;
  lineWeight: number;
}

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

/** How many numbers stand after a row's own: its elevation and its plane. */
export const trailing = (flags: number): number => (flags & Flag.elevation ? 1 : 0) + (flags & Flag.plane ? 1 : 0);

/** The elevation of a row, 0 where it has none. */
export function elevationOf(drawing: Drawing, row: number): number {
  const flags = drawing.flags[row];
  return (flags & Flag.elevation) === 0 ? 0 : drawing.numbers[drawing.at[row + 1] - (flags & Flag.plane ? 2 : 1)];
}

/** The normal of a row's plane where it is not the plan's. */
export const planeOf = (drawing: Drawing, row: number): [number, number, number] | null =>
  (drawing.flags[row] & Flag.plane) === 0 ? null : drawing.planes[drawing.numbers[drawing.at[row + 1] - 1]];

/** How many vertices a polyline row has. */
export function vertexCount(drawing: Drawing, row: number): number {
  const flags = drawing.flags[row];
  const size = drawing.at[row + 1] - drawing.at[row] - trailing(flags);
  return size / (2 + (flags & Flag.bulges ? 1 : 0) + (flags & Flag.heights ? 1 : 0));
}
