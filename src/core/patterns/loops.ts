import Flatbush from 'flatbush';
import { arcOfBulge, pointOnArc } from '@/core/geometry/bulge';
import { distance, lineCrossing, middle, type Point } from '@/core/geometry/vector';
import { leastBy } from '@/core/lists';
import { bridgesOf } from './bridges';
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

/** Symbols of more sides than this are none: what hangs together then is a plan, and has no one outline. */
const mostSidesOfSymbol = 12;

/** Ends this much nearer to one another than the gap meet, as a share of it. */
const meeting = 0.1;

/**
 * Chains loose sides into closed loops: ends that meet, and free ones with the nearest within the gap, are one node;
 * a loop is a chain in which every node has two sides. Corners are completed: two straight sides meet where their lines
 * cross.
 * @param symbols whether of what has more sides at a node, such as a rectangle with its diagonals, the outermost loop
 * counts, and sides on no loop, such as a piece drawn again or a line from ring to ring, belong to none
 */
export function loopsOf(
  sides: readonly LooseSide[],
  gap: number,
  symbols = false,
): { loops: Outline[]; rest: LooseSide[] } {
  const long = sides.filter((side) => distance(side.a, side.b) > meeting * gap || side.bulge !== 0);
  if (long.length === 0) return { loops: [], rest: [...sides] };
  const nodeOf = mergeEnds(long, gap);
  const seen = new Set<string>();
  const edges: Edge[] = [];
  const doubled: LooseSide[] = [];
  long.forEach((side, i) => {
    const [from, to] = [nodeOf[2 * i], nodeOf[2 * i + 1]];
    const bend = side.bulge === 0 ? 'straight' : Math.sign(side.bulge) * (from < to ? 1 : -1);
    const key = `${Math.min(from, to)}/${Math.max(from, to)}/${bend}`;
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
  if (symbols) dropBridges(edges, atNode);
  const used = new Uint8Array(edges.length);
  const loops: Outline[] = [];
  for (let i = 0; i < edges.length; i += 1) {
    if (used[i] || !atNode.get(edges[i].from)?.includes(i)) continue;
    const chain = follow(edges, atNode, i);
    if (chain === null && !symbols) continue;
    const symbol = chain === null ? symbolOf(edges, atNode, i) : chain.map(({ edge }) => edge);
    const outline = chain ?? outermost(edges, atNode, symbol);
    if (outline === null) continue;
    for (const edge of symbol) used[edge] = 1;
    loops.push(outlineOf(outline.map(({ edge, forward }) => oriented(edges[edge].side, forward))));
  }
  return {
    loops,
    rest: [
      ...edges.filter((_, i) => !used[i]).map((edge) => edge.side),
      ...doubled.filter((side) => !loops.some((loop) => loop.handles.includes(side.handle))),
    ],
  };
}

/** Takes sides that lie on no loop from their nodes: what ends free, and what leads from one ring to another. */
function dropBridges(edges: readonly Edge[], atNode: Map<number, number[]>): void {
  const bridges = bridgesOf(edges, atNode);
  for (const [node, around] of atNode)
    atNode.set(
      node,
      around.filter((edge) => !bridges.has(edge)),
    );
}

/** The sides that hang together with one; none where they are more than a symbol has. */
function symbolOf(edges: readonly Edge[], atNode: ReadonlyMap<number, number[]>, first: number): number[] {
  const found = new Set([first]);
  for (const edge of found) {
    for (const node of [edges[edge].from, edges[edge].to]) for (const other of atNode.get(node)!) found.add(other);
    if (found.size > mostSidesOfSymbol) return [];
  }
  return [...found];
}

/**
 * The outermost loop of a symbol: from its lowest node always on to the side most to the right. Null where it comes
 * through a node twice, as two loops that touch do.
 */
function outermost(
  edges: readonly Edge[],
  atNode: ReadonlyMap<number, number[]>,
  symbol: readonly number[],
): { edge: number; forward: boolean }[] | null {
  if (symbol.length === 0) return null;
  const place = new Map<number, Point>();
  for (const edge of symbol) {
    place.set(edges[edge].from, edges[edge].side.a);
    place.set(edges[edge].to, edges[edge].side.b);
  }
  const [start] = [...place].sort(([, p], [, q]) => p[1] - q[1] || p[0] - q[0])[0];
  const chain: { edge: number; forward: boolean }[] = [];
  const been = new Set<number>();
  // Coming from the left, the loop runs counter-clockwise with everything on its left.
  for (let node = start, heading = 0; !been.has(node);) {
    been.add(node);
    let best: { edge: number; to: number; turn: number; heading: number } | null = null;
    for (const edge of atNode.get(node)!) {
      if (edge === chain[chain.length - 1]?.edge) continue;
      const to = edges[edge].from === node ? edges[edge].to : edges[edge].from;
      const [[x1, y1], [x2, y2]] = [place.get(node)!, place.get(to)!];
      const direction = Math.atan2(y2 - y1, x2 - x1);
      const turn = Math.atan2(Math.sin(direction - heading), Math.cos(direction - heading));
      if (best === null || turn < best.turn) best = { edge, to, turn, heading: direction };
    }
    if (best === null) return null;
    chain.push({ edge: best.edge, forward: edges[best.edge].from === node });
    [node, heading] = [best.to, best.heading];
    if (node === start) return chain.length >= 3 ? chain : null;
  }
  return null;
}

/**
 * A node number for each end (2i and 2i + 1 of side i). Ends that meet share one; an end that meets none shares that of
 * the nearest within the gap, so that what is thinner than the gap, the web of a steel section, keeps both its sides.
 */
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
  /** The other ends about one; a side's own two ends are no neighbours. */
  const around = (i: number, reach: number): number[] => {
    const [x, y] = ends[i];
    return tree
      .search(x - reach, y - reach, x + reach, y + reach)
      .filter((j) => j >> 1 !== i >> 1 && distance(ends[i], ends[j]) <= reach);
  };
  const free = ends.flatMap((_, i) => {
    const met = around(i, meeting * gap);
    for (const j of met) parent[root(j)] = root(i);
    return met.length === 0 ? [i] : [];
  });
  for (const i of free) {
    const nearest = leastBy(around(i, gap), (j) => distance(ends[i], ends[j]));
    if (nearest !== null) parent[root(nearest)] = root(i);
  }
  return parent.map((_, i) => root(i));
}

function follow(
  edges: readonly Edge[],
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
