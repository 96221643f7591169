import type { Drawing } from '@/core/drawing/drawing';

/**
 * A drawing flattened to what can be seen: blocks taken apart, layers and colours resolved, every curve a
 * path of vertices with bulges. Coordinates are drawing units about `origin`, so that they survive 32 bits.
 *
 * Path p has the vertices start[p] .. start[p + 1); vertex v stands at (xy[2v], xy[2v + 1]), and bulge[v]
 * bends the side from v to v + 1 (to the first vertex on the last side of a closed path). A circle is a
 * closed path of two half circles, flagged as a circle.
 */
export interface Primitives {
  origin: [number, number];
  start: Uint32Array;
  xy: Float64Array;
  bulge: Float64Array;
  layer: Uint16Array;
  /** 24 bits red, green, blue; 0x1000000 is ink, dark on light and light on dark. */
  colour: Uint32Array;
  flags: Uint8Array;
  /**
   * The kind of entity that drew the path: what a dimension's or a table's block holds is the dimension's or the
   * table's.
   */
  kind: Uint8Array;
  /** Through which blocks the path is there, a number in `chains`. */
  chain: Uint32Array;
  /** Line type and weight, a number in `pens`. */
  pen: Uint16Array;
  /** Height above the plan, in drawing units. */
  elevation: Float32Array;
  /** The row of the entity drawn. */
  entity: Uint32Array;
  /** The row in the model space through which it is there: itself, or the outermost insert. */
  top: Uint32Array;
  texts: TextPrimitive[];
  chains: Chain[];
  pens: Pen[];
  /** Flattened primitives by kind of the entity drawn; for inserts in the model space, all that their blocks gave. */
  counts: Record<number, number>;
  /** What flattening had to stop at. */
  limits: { nesting: number; recursion: number; primitives: boolean; expansions: LeftOut[] };
}

/** An insert that was not taken apart because it would have come to so many parts. */
export interface LeftOut {
  entity: number;
  block: string;
  parts: number;
}

/** One block within another; chain 0 is the model space, with block -1. */
export interface Chain {
  block: number;
  parent: number;
}

/**
 * How a line is drawn: dashes in drawing units (none for a continuous line), weight in hundredths of a millimetre (-3
 * the default).
 */
export interface Pen {
  dashes: number[];
  weight: number;
}

export const PathFlag = { closed: 1, circle: 2 } as const;

export const ink = 0x1000000;

export interface TextPrimitive {
  x: number;
  y: number;
  height: number;
  /** Radians. */
  angle: number;
  widthFactor: number;
  mirrored: boolean;
  /** 0 left, 1 centre, 2 right. */
  across: number;
  /** 0 base line, 1 bottom, 2 middle, 3 top. */
  up: number;
  text: string;
  layer: number;
  colour: number;
  kind: number;
  chain: number;
  entity: number;
  top: number;
}

export const pathCount = (primitives: Primitives): number => primitives.start.length - 1;

/** Smallest box round all vertices, about the origin; null where there are none. */
export function extentsOf({ xy }: Pick<Primitives, 'xy'>): [number, number, number, number] | null {
  if (xy.length === 0) return null;
  let [minX, minY, maxX, maxY] = [Infinity, Infinity, -Infinity, -Infinity];
  for (let i = 0; i < xy.length; i += 2) {
    if (xy[i] < minX) minX = xy[i];
    if (xy[i] > maxX) maxX = xy[i];
    if (xy[i + 1] < minY) minY = xy[i + 1];
    if (xy[i + 1] > maxY) maxY = xy[i + 1];
  }
  return [minX, minY, maxX, maxY];
}

/** The layer names of a drawing's primitives. */
export const layerNames = (drawing: Pick<Drawing, 'layers'>): string[] => drawing.layers.map((layer) => layer.name);
