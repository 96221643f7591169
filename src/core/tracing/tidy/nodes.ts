import { PointGrid } from '@/core/geometry/pointGrid';
import {
  cross,
  direction,
  distance,
  dot,
  footOnLine,
  lineCrossing,
  subtract,
  type Point,
} from '@/core/geometry/vector';
import type { TidyLine, TidyOrder, Workpiece } from './workpiece';

/** Places closer than this are the same place, metres: what rounding leaves. */
export const samePlace = 1e-9;

/** A place where ends and columns come together. */
interface Node {
  at: Point;
  columns: number;
  ends: number;
}

const keyOf = ([x, y]: Point): string => `${x} ${y}`;

/** The places of a workpiece, with how much comes together at each. */
function nodesOf({ lines, columns }: Workpiece): Node[] {
  const nodes = new Map<string, Node>();
  const add = (at: Point, what: 'columns' | 'ends'): void => {
    const node = nodes.get(keyOf(at)) ?? { at, columns: 0, ends: 0 };
    node[what] += 1;
    nodes.set(keyOf(at), node);
  };
  for (const { shape } of columns) add(shape.position, 'columns');
  for (const { start, end } of lines) for (const p of [start, end]) add(p, 'ends');
  return [...nodes.values()];
}

/** Moves everything at some places to others. @returns how many places moved */
function moveNodes(piece: Workpiece, to: ReadonlyMap<string, Point>): number {
  const at = (p: Point): Point => to.get(keyOf(p)) ?? p;
  for (const line of piece.lines) {
    line.start = at(line.start);
    line.end = at(line.end);
  }
  piece.columns = piece.columns.map((column) => {
    const position = at(column.shape.position);
    return position === column.shape.position ? column : { ...column, shape: { ...column.shape, position } };
  });
  return to.size;
}

/** Pulls ends together that lie within the tolerance: to a column there, else to where most come together. */
export function pullEnds(piece: Workpiece, { tolerance }: TidyOrder): number {
  const nodes = nodesOf(piece).sort(
    (a, b) => b.columns - a.columns || b.ends - a.ends || a.at[0] - b.at[0] || a.at[1] - b.at[1],
  );
  const grid = new PointGrid(tolerance, nodes.length);
  const kept: Node[] = [];
  const to = new Map<string, Point>();
  for (const node of nodes) {
    let nearest: Node | null = null;
    grid.near(node.at[0], node.at[1], (i) => {
      const away = distance(kept[i].at, node.at);
      if (away <= tolerance && (nearest === null || away < distance(nearest.at, node.at))) nearest = kept[i];
    });
    const target = nearest as Node | null;
    // Columns are not drawn together: two of them within reach are two.
    if (target === null || (node.columns > 0 && target.columns > 0)) {
      grid.add(kept.length, node.at[0], node.at[1]);
      kept.push(node);
    } else to.set(keyOf(node.at), target.at);
  }
  return moveNodes(piece, to);
}

/** Puts places within the tolerance of a grid line onto it, and those near two of them onto their crossing. */
export function alignToGrid(piece: Workpiece, { tolerance, grid }: TidyOrder): number {
  const to = new Map<string, Point>();
  for (const { at } of nodesOf(piece)) {
    const near = grid
      .map((line) => ({ line, away: awayFromEndless(line, at) }))
      .filter(({ away }) => Math.abs(away) <= tolerance)
      .sort((a, b) => Math.abs(a.away) - Math.abs(b.away));
    if (near.length === 0) continue;
    const place = onLines(
      near.map(({ line }) => line),
      at,
    );
    if (distance(place, at) > samePlace) to.set(keyOf(at), place);
  }
  return moveNodes(piece, to);
}

/** The foot of a point on the nearest of some lines, or the crossing of it with another that is near too. */
function onLines(lines: readonly { start: Point; end: Point }[], p: Point): Point {
  const [first, ...others] = lines;
  for (const other of others) {
    const hit = lineCrossing(first.start, first.end, other.start, other.end);
    if (hit !== null && distance(hit.point, p) < 1) return hit.point;
  }
  return footOnLine(first.start, first.end, p);
}

function awayFromEndless({ start, end }: { start: Point; end: Point }, p: Point): number {
  const along = subtract(end, start);
  return cross(along, subtract(p, start)) / Math.hypot(...along);
}

/** Which places belong together, by union (Tarjan, 1975). */
class Union {
  private readonly parents: number[];

  constructor(count: number) {
    this.parents = Array.from({ length: count }, (_, i) => i);
  }

  find(i: number): number {
    while (this.parents[i] !== i) {
      this.parents[i] = this.parents[this.parents[i]];
      i = this.parents[i];
    }
    return i;
  }

  join(a: number, b: number): void {
    this.parents[this.find(a)] = this.find(b);
  }
}

/**
 * Straightens lines that nearly run along an axis: the places that such lines join get one coordinate across it, so
 * that what is joined stays joined. Chains that would move a place further than the tolerance stay as they are.
 */
export function straighten(piece: Workpiece, { axes, angle, tolerance }: TidyOrder): number {
  let moved = 0;
  for (const turn of [axes, axes + Math.PI / 2]) moved += straightenAlong(piece, turn, angle, tolerance);
  return moved;
}

function straightenAlong(piece: Workpiece, turn: number, angle: number, tolerance: number): number {
  const [u, v] = [direction(turn), direction(turn + Math.PI / 2)];
  const nodes = nodesOf(piece);
  const numbers = new Map(nodes.map(({ at }, i) => [keyOf(at), i]));
  const union = new Union(nodes.length);
  for (const line of piece.lines)
    if (runsAlong(line, u, angle)) union.join(numbers.get(keyOf(line.start))!, numbers.get(keyOf(line.end))!);
  const groups = new Map<number, Node[]>();
  nodes.forEach((node, i) => {
    const root = union.find(i);
    groups.set(root, [...(groups.get(root) ?? []), node]);
  });
  const to = new Map<string, Point>();
  for (const group of groups.values()) {
    if (group.length < 2) continue;
    const across = group.map(({ at }) => dot(at, v));
    const [least, most] = [Math.min(...across), Math.max(...across)];
    if (most - least <= samePlace || most - least > 2 * tolerance) continue;
    const middle = across.reduce((sum, value) => sum + value, 0) / across.length;
    for (const { at } of group) {
      const along = dot(at, u);
      to.set(keyOf(at), [along * u[0] + middle * v[0], along * u[1] + middle * v[1]]);
    }
  }
  return moveNodes(piece, to);
}

function runsAlong({ start, end, bulge }: TidyLine, u: Point, angle: number): boolean {
  const d = subtract(end, start);
  const length = Math.hypot(...d);
  return bulge === 0 && length > 0 && Math.abs(cross(u, d)) <= length * Math.sin(angle);
}
