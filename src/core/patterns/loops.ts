import Flatbush from 'flatbush';
import { arcOfBulge, pointOnArc } from '@/core/geometry/bulge';
import { distance, lineCrossing, middle, type Point } from '@/core/geometry/vector';
import type { Outline } from './outlines';

/** A side that belongs to no closed path. */
export interface LooseSide {
  a: Point;
  b: Point;
  bulge: number;
  handle: string;
  entity: number;
  layer: number;
}

interface Edge {
  side: LooseSide;
  from: number;
  to: number;
}

/**
 * Chains loose sides into closed loops: ends within the gap are one node, and a loop is a chain in which every
 * node has two sides. Corners are completed: two straight sides meet where their lines cross.
 */
export function loopsOf(sides: readonly LooseSide[], gap: number): { loops: Outline[]; rest: LooseSide[] } {
  const long = sides.filter((side) => distance(side.a, side.b) > gap || side.bulge !== 0);
  if (long.length === 0) return { loops: [], rest: [...sides] };
  const nodeOf = mergeEnds(long, gap);
  const seen = new Set<string>();
  const edges: Edge[] = [];
  const doubled: LooseSide[] = [];
  long.forEach((side, i) => {
    const [from, to] = [nodeOf[2 * i], nodeOf[2 * i + 1]];
    const key = `${Math.min(from, to)}/${Math.max(from, to)}/${side.bulge === 0 ? 'straight' : Math.sign(side.bulge) * (from < to ? 1 : -1)}`;
    if (from === to || seen.has(key)) {
      doubled.push(side);
      return;
    }
    seen.add(key);
    edges.push({ side, from, to });
  });
  const atNode = new Map<number, number[]>();
  edges.forEach((edge, i) => {
    for (const node of [edge.from, edge.to]) (atNode.get(node) ?? atNode.set(node, []).get(node)!).push(i);
  });
  const used = new Uint8Array(edges.length);
  const loops: Outline[] = [];
  for (let i = 0; i < edges.length; i += 1) {
    if (used[i]) continue;
    const chain = follow(edges, atNode, i);
    if (chain === null) continue;
    for (const { edge } of chain) used[edge] = 1;
    loops.push(outlineOf(chain.map(({ edge, forward }) => oriented(edges[edge].side, forward))));
  }
  return {
    loops,
    rest: [
      ...edges.filter((_, i) => !used[i]).map((edge) => edge.side),
      ...doubled.filter((side) => !loops.some((loop) => loop.handles.includes(side.handle))),
    ],
  };
}

/** A node number for each end (2i and 2i + 1 of side i); ends within the gap share one. */
function mergeEnds(sides: readonly LooseSide[], gap: number): Uint32Array {
  const ends = sides.flatMap((side) => [side.a, side.b]);
  const tree = new Flatbush(ends.length);
  for (const [x, y] of ends) tree.add(x, y, x, y);
  tree.finish();
  const parent = Uint32Array.from(ends.keys());
  const root = (i: number): number => {
    let r = i;
    while (parent[r] !== r) r = parent[r] = parent[parent[r]];
    return r;
  };
  ends.forEach(([x, y], i) => {
    for (const j of tree.search(x - gap, y - gap, x + gap, y + gap))
      if (j > i && distance(ends[i], ends[j]) <= gap) parent[root(j)] = root(i);
  });
  return parent.map((_, i) => root(i));
}

function follow(
  edges: Edge[],
  atNode: Map<number, number[]>,
  first: number,
): { edge: number; forward: boolean }[] | null {
  const chain = [{ edge: first, forward: true }];
  let node = edges[first].to;
  while (node !== edges[first].from) {
    const around = atNode.get(node)!;
    if (around.length !== 2) return null;
    const next = around[0] === chain[chain.length - 1].edge ? around[1] : around[0];
    if (chain.length > edges.length) return null;
    const forward = edges[next].from === node;
    chain.push({ edge: next, forward });
    node = forward ? edges[next].to : edges[next].from;
  }
  return chain.length >= 2 && atNode.get(node)!.length === 2 ? chain : null;
}

const oriented = (side: LooseSide, forward: boolean): LooseSide =>
  forward ? side : { ...side, a: side.b, b: side.a, bulge: -side.bulge };

function outlineOf(sides: LooseSide[]): Outline {
  const points: Point[] = [];
  let gap = 0;
  sides.forEach((side, i) => {
    const before = sides[(i + sides.length - 1) % sides.length];
    gap = Math.max(gap, distance(before.b, side.a));
    points.push(corner(before, side));
    if (side.bulge === 0) return;
    const arc = arcOfBulge(side.a, side.b, side.bulge);
    const chords = Math.max(2, Math.ceil((Math.abs(arc.sweep) / Math.PI) * 8));
    for (let k = 1; k < chords; k += 1) points.push(pointOnArc(arc, k / chords));
  });
  return {
    points,
    circle: null,
    handles: [...new Set(sides.map((side) => side.handle))],
    gap: gap < 1e-9 ? 0 : gap,
    entity: sides[0].entity,
    layer: sides[0].layer,
  };
}

function corner(before: LooseSide, after: LooseSide): Point {
  const between = middle(before.b, after.a);
  if (before.bulge !== 0 || after.bulge !== 0) return between;
  const hit = lineCrossing(before.a, before.b, after.a, after.b);
  const reach = distance(before.b, after.a) * 4 + 1e-9;
  return hit !== null && distance(hit.point, between) <= reach ? hit.point : between;
}
