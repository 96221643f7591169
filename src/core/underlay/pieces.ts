import Flatbush from 'flatbush';
import { arcContains, arcOfBulge, type Arc } from '@/core/geometry/bulge';
import type { Point } from '@/core/geometry/vector';
import { PathFlag, pathCount, type Primitives } from './primitives';

/** One side of a path: a straight segment, or an arc. */
export interface Piece {
  path: number;
  a: Point;
  b: Point;
  arc: Arc | null;
}

/**
 * A spatial index over the sides of all paths and the centres of all arcs.
 * Item i < vertex.length is the side that starts at vertex[i]; the items after are centres, of the sides in centreOf.
 */
export interface PieceIndex {
  tree: Flatbush;
  vertex: Uint32Array;
  path: Uint32Array;
  centreOf: Uint32Array;
}

/** What of an index crosses a worker's border; `openIndex` makes it whole again. */
export interface PieceIndexData {
  tree: ArrayBuffer;
  vertex: Uint32Array;
  path: Uint32Array;
  centreOf: Uint32Array;
}

export const openIndex = (data: PieceIndexData): PieceIndex => ({ ...data, tree: Flatbush.from(data.tree) });

/** Calls back for each side: its path, its first vertex and its second. */
export function eachSide(primitives: Primitives, visit: (path: number, v: number, next: number) => void): void {
  const { start, flags } = primitives;
  for (let path = 0; path < pathCount(primitives); path += 1) {
    const [first, end] = [start[path], start[path + 1]];
    for (let v = first; v + 1 < end; v += 1) visit(path, v, v + 1);
    if (end - first === 1) visit(path, first, first);
    else if ((flags[path] & PathFlag.closed) !== 0) visit(path, end - 1, first);
  }
}

/** Builds the index. Coordinates are those of the primitives, about their origin. */
export function buildIndex(primitives: Primitives): PieceIndexData {
  const { xy, bulge } = primitives;
  let sides = 0;
  let arcs = 0;
  eachSide(primitives, (_, v, next) => {
    sides += 1;
    if (bulge[v] !== 0 && next !== v) arcs += 1;
  });
  const vertex = new Uint32Array(sides);
  const pathOf = new Uint32Array(sides);
  const centreOf = new Uint32Array(arcs);
  const tree = new Flatbush(Math.max(1, sides + arcs), 16, Float32Array);
  const centres: number[] = [];
  let i = 0;
  eachSide(primitives, (path, v, next) => {
    vertex[i] = v;
    pathOf[i] = path;
    const [x1, y1, x2, y2] = [xy[2 * v], xy[2 * v + 1], xy[2 * next], xy[2 * next + 1]];
    let [minX, minY, maxX, maxY] = [Math.min(x1, x2), Math.min(y1, y2), Math.max(x1, x2), Math.max(y1, y2)];
    if (bulge[v] !== 0 && next !== v) {
      const arc = arcOfBulge([x1, y1], [x2, y2], bulge[v]);
      const [cx, cy] = arc.centre;
      if (arcContains(arc, 0)) maxX = cx + arc.radius;
      if (arcContains(arc, Math.PI / 2)) maxY = cy + arc.radius;
      if (arcContains(arc, Math.PI)) minX = cx - arc.radius;
      if (arcContains(arc, -Math.PI / 2)) minY = cy - arc.radius;
      centreOf[centres.length / 2] = i;
      centres.push(cx, cy);
    }
    tree.add(minX, minY, maxX, maxY);
    i += 1;
  });
  for (let k = 0; k < centres.length; k += 2) tree.add(centres[k], centres[k + 1], centres[k], centres[k + 1]);
  if (sides + arcs === 0) tree.add(0, 0, 0, 0);
  tree.finish();
  return { tree: tree.data as ArrayBuffer, vertex, path: pathOf, centreOf };
}

/** The side that is item `i` of an index. */
export function pieceAt(primitives: Primitives, index: PieceIndex, i: number): Piece {
  const { xy, bulge, start } = primitives;
  const [v, path] = [index.vertex[i], index.path[i]];
  const next = v + 1 < start[path + 1] ? v + 1 : start[path];
  const a: Point = [xy[2 * v], xy[2 * v + 1]];
  const b: Point = [xy[2 * next], xy[2 * next + 1]];
  return { path, a, b, arc: bulge[v] !== 0 && next !== v ? arcOfBulge(a, b, bulge[v]) : null };
}
