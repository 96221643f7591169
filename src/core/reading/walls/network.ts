import Flatbush from 'flatbush';
import { cross, distance, dot, lineCrossing, subtract, type Point } from '@/core/geometry/vector';
import { inPlan } from '@/core/patterns/faces';
import { BoxIndex, boxOf } from '@/core/geometry/boxIndex';
import { bendEnds, type Bend, type BendCut } from './bends';
import type { Obstacle } from './obstacle';
import type { Gap, Run } from './runs';

/** A straight wall between two nodes. Lengths along it count from its start. */
export interface Segment {
  run: Pick<Run, 'sources' | 'inner' | 'parted' | 'oneFaced'>;
  start: Point;
  end: Point;
  thickness: number;
  gaps: Gap[];
  outer: boolean;
}

/** The walls of a plan joined: straight ones between their nodes, and the ends of curved ones. */
export interface Network {
  segments: Segment[];
  ends: [Point, Point][];
  /** Where straight walls end on each curved one. */
  bendCuts: BendCut[][];
}

/** How far a wall's drawn end may be from the line it belongs to, beyond what thicknesses explain; metres. */
const slack = 0.08;
/** Nodes closer than this are one, metres. */
const oneNode = 0.02;
/** Walls that go on in one line lie within this of it, metres. */
const inLine = 0.006;
/** Walls whose directions differ by less meet nowhere, as a sine. */
const parallel = 0.05;

interface Line {
  run: Run;
  a: Point;
  b: Point;
  u: Point;
  length: number;
}

/**
 * Joins walls at shared nodes: an end that stops at another wall's face goes to that wall's centre line, corners are
 * completed, walls are parted where
 * others end on them or cross them. The coordinates of a shared node are exactly equal.
 */
export function joinNetwork(
  runs: readonly Run[],
  bends: readonly Bend[] = [],
  columns: readonly Obstacle[] = [],
): Network {
  const lines = runs.map((run): Line => {
    const [a, b] = [inPlan(run.family, run.from, run.offset), inPlan(run.family, run.to, run.offset)];
    return { run, a, b, u: run.family.u, length: run.to - run.from };
  });
  const near = indexOf(lines);
  const posts = new BoxIndex(columns, ({ at, reach }) => boxOf([at], reach + slack));
  /** Places along a line where it is parted, with their node. */
  const cuts = lines.map((): { at: number; node: Point }[] => []);
  const ends = lines.map(({ a, b }): [Point, Point] => [a, b]);
  const nodes = new Nodes();
  lines.forEach((line, i) => {
    for (const end of [0, 1] as const) {
      const hit = meeting(lines, near(line, i), line, end, posts);
      if (hit === null) continue;
      const node = nodes.at(hit.point);
      ends[i][end] = node;
      const other = lines[hit.other];
      // Near the other's end it is a corner, which the other's own search completes; within it, a wall that ends on a
      // wall.
      const margin = line.run.thickness / 2 / hit.sine + slack + hit.within;
      if (hit.along > margin && hit.along < other.length - margin) cuts[hit.other].push({ at: hit.along, node });
      else ends[hit.other][hit.along <= margin ? 0 : 1] = node;
    }
  });
  const bendCuts = bends.map((bend) => endsOnBend(lines, near, ends, bend, nodes, posts));
  goOn(lines, near, ends, nodes);
  const met = bends.map(
    (bend) => bendEnds(bend).map((end) => meetBend(lines, near, bend, end, ends, cuts, nodes)) as [Point, Point],
  );
  lines.forEach((line, i) => {
    for (const j of near(line, i)) {
      if (j <= i) continue;
      const other = lines[j];
      const hit = Math.abs(cross(line.u, other.u)) < parallel ? null : lineCrossing(line.a, line.b, other.a, other.b);
      if (hit === null) continue;
      const [s, t] = [hit.t * line.length, hit.u * other.length];
      const [own, its] = [other.run.thickness / 2 + slack, line.run.thickness / 2 + slack];
      if (s <= own || s >= line.length - own || t <= its || t >= other.length - its) continue;
      const node = nodes.at(hit.point);
      cuts[i].push({ at: s, node });
      cuts[j].push({ at: t, node });
    }
  });
  return { segments: lines.flatMap((line, i) => segmentsOf(line, ends[i], cuts[i])), ends: met, bendCuts };
}

/** Ends of straight walls that stop at a curved one's face go on to its centre line, between its ends. */
function endsOnBend(
  lines: readonly Line[],
  near: Near,
  ends: [Point, Point][],
  bend: Bend,
  nodes: Nodes,
  posts: BoxIndex<Obstacle>,
): BendCut[] {
  const cuts: BendCut[] = [];
  const [low, high] = cornersAbout(bend);
  for (const i of near({ a: low, b: high }, -1)) {
    const line = lines[i];
    for (const end of [0, 1] as const) {
      const at = end === 0 ? line.a : line.b;
      // One that was moved meets another wall already.
      if (ends[i][end] !== at) continue;
      const post = posts.around(at).find((one) => distance(one.at, at) <= one.reach + slack);
      const reach = bend.thickness + line.run.thickness / 2 + slack + (post === undefined ? 0 : 2 * post.reach);
      const [nearest] = crossingsWith(bend, line.a, line.u)
        .map((along) => ({ along, away: Math.abs(along - (end === 0 ? 0 : line.length)) }))
        .filter(({ away }) => away <= reach)
        .sort((p, q) => p.away - q.away);
      if (nearest === undefined) continue;
      const point: Point = [line.a[0] + line.u[0] * nearest.along, line.a[1] + line.u[1] * nearest.along];
      const angle = Math.atan2(point[1] - bend.centre[1], point[0] - bend.centre[0]);
      const whole = 2 * Math.PI;
      const turn = (((angle - bend.start) % whole) + whole) % whole;
      const margin = (line.run.thickness / 2 + bend.thickness / 2 + slack) / bend.radius;
      // At its own ends a bend looks for what it meets itself.
      if (turn < margin || turn > bend.sweep - margin) continue;
      const node = nodes.at(point);
      ends[i][end] = node;
      cuts.push({ turn, node });
    }
  }
  return cuts;
}

/** Two corners of the box round a bend's circle. */
const cornersAbout = ({ centre: [x, y], radius }: Bend): [Point, Point] => [
  [x - radius, y - radius],
  [x + radius, y + radius],
];

/** Walls of different thickness that go on in one line share the node between them. */
function goOn(lines: readonly Line[], near: Near, ends: [Point, Point][], nodes: Nodes): void {
  lines.forEach((line, i) => {
    for (const end of [0, 1] as const) {
      const at = ends[i][end];
      // One that was moved meets another wall already.
      if (at !== (end === 0 ? line.a : line.b)) continue;
      for (const j of near(line, i)) {
        const other = lines[j];
        if (Math.abs(cross(line.u, other.u)) >= parallel) continue;
        const k = distance(other.a, at) < distance(other.b, at) ? 0 : 1;
        if (
          ends[j][k] !== (k === 0 ? other.a : other.b) ||
          distance(ends[j][k], at) > slack ||
          Math.abs(cross(subtract(ends[j][k], at), line.u)) > inLine
        )
          continue;
        const node = nodes.at(at);
        ends[i][end] = node;
        ends[j][k] = node;
      }
    }
  });
}

/**
 * Where an end of a curved wall meets a straight one: on its centre line, which is parted there, or at its end; else
 * the end itself.
 */
function meetBend(
  lines: readonly Line[],
  near: Near,
  bend: Bend,
  at: Point,
  ends: [Point, Point][],
  cuts: { at: number; node: Point }[][],
  nodes: Nodes,
): Point {
  let best: { line: number; along: number; point: Point; away: number } | null = null;
  for (const j of near({ a: at, b: at }, -1)) {
    const { a, u, length, run } = lines[j];
    const reach = (run.thickness + bend.thickness) / 2 + slack;
    for (const along of crossingsWith(bend, a, u)) {
      const point: Point = [a[0] + u[0] * along, a[1] + u[1] * along];
      const away = distance(point, at);
      if (away <= reach && along > -reach && along < length + reach && (best === null || away < best.away))
        best = { line: j, along, point, away };
    }
    // A wall that goes on straight where the bend ends has no clear crossing with it.
    for (const [end, along] of [
      [0, 0],
      [1, length],
    ] as const) {
      const away = distance(ends[j][end], at);
      if (away <= slack && (best === null || away <= best.away + oneNode))
        best = { line: j, along, point: ends[j][end], away };
    }
  }
  if (best === null) return nodes.at(at);
  const { length, run, a, b } = lines[best.line];
  const margin = run.thickness / 2 + bend.thickness / 2 + slack;
  for (const end of [0, 1] as const) {
    if (end === 0 ? best.along > margin : best.along < length - margin) continue;
    const joined = ends[best.line][end];
    // Where the straight wall meets another already, the bend comes to that node.
    const node = joined === (end === 0 ? a : b) ? nodes.at(best.point) : joined;
    ends[best.line][end] = node;
    return node;
  }
  const node = nodes.at(best.point);
  cuts[best.line].push({ at: best.along, node });
  return node;
}

/** Where a line crosses a bend's circle, along the line. */
function crossingsWith({ centre, radius }: Bend, a: Point, u: Point): number[] {
  const foot = dot(subtract(centre, a), u);
  const off = Math.abs(cross(u, subtract(centre, a)));
  if (off > radius) return [];
  const half = Math.sqrt(radius * radius - off * off);
  return [foot - half, foot + half];
}

/** Cells of 20 mm are numbered up to 40,000 km from zero. */
const cellKey = (x: number, y: number): number => x * 2 ** 26 + y;

/** One coordinate for all points that are one node. */
class Nodes {
  /** By the numbers of their cells, in one number. */
  private cells = new Map<number, Point[]>();

  at(p: Point): Point {
    const [cx, cy] = [Math.floor(p[0] / oneNode), Math.floor(p[1] / oneNode)];
    for (let x = cx - 1; x <= cx + 1; x += 1)
      for (let y = cy - 1; y <= cy + 1; y += 1)
        for (const q of this.cells.get(cellKey(x, y)) ?? []) if (distance(p, q) <= oneNode) return q;
    const key = cellKey(cx, cy);
    const cell = this.cells.get(key);
    if (cell) cell.push(p);
    else this.cells.set(key, [p]);
    return p;
  }
}

type Near = (line: Pick<Line, 'a' | 'b'>, own: number) => number[];

function indexOf(lines: readonly Line[]): Near {
  if (lines.length === 0) return () => [];
  const tree = new Flatbush(lines.length);
  for (const { a, b } of lines)
    tree.add(Math.min(a[0], b[0]), Math.min(a[1], b[1]), Math.max(a[0], b[0]), Math.max(a[1], b[1]));
  tree.finish();
  const reach = 1.2;
  return ({ a, b }, own) =>
    tree
      .search(
        Math.min(a[0], b[0]) - reach,
        Math.min(a[1], b[1]) - reach,
        Math.max(a[0], b[0]) + reach,
        Math.max(a[1], b[1]) + reach,
      )
      .filter((j) => j !== own);
}

interface Hit {
  /** How far more a column explains that the other's end stops before the meeting, metres. */
  within: number;
  other: number;
  point: Point;
  along: number;
  sine: number;
  away: number;
}

/** Where an end of a line meets another: the nearest crossing that thicknesses explain. */
function meeting(
  lines: readonly Line[],
  among: readonly number[],
  line: Line,
  end: 0 | 1,
  posts: BoxIndex<Obstacle>,
): Hit | null {
  const at = end === 0 ? line.a : line.b;
  const out: Point = end === 0 ? [-line.u[0], -line.u[1]] : line.u;
  const own = posts.around(at).filter((post) => distance(post.at, at) <= post.reach + slack);
  let best: Hit | null = null;
  for (const j of among) {
    const other = lines[j];
    const sine = Math.abs(cross(line.u, other.u));
    if (sine < parallel) continue;
    const hit = lineCrossing(line.a, line.b, other.a, other.b);
    if (hit === null) continue;
    const away = dot(subtract(hit.point, at), out);
    const cosine = Math.abs(dot(line.u, other.u));
    const reach = (other.run.thickness / 2 + (cosine * line.run.thickness) / 2) / sine + slack;
    const along = dot(subtract(hit.point, other.a), other.u);
    const beyond = (line.run.thickness / 2 + (cosine * other.run.thickness) / 2) / sine + slack;
    const nearEnd = along < other.length / 2 ? other.a : other.b;
    // Walls that meet in a column stop at its faces: there both reach on to where they meet in it.
    const post = own.find((one) => distance(one.at, hit.point) <= one.reach);
    const more = post === undefined ? 0 : 2 * post.reach;
    const within = post !== undefined && distance(post.at, nearEnd) <= post.reach + slack ? more : 0;
    if (Math.abs(away) > reach + more || along < -beyond - within || along > other.length + beyond + within) continue;
    if (best === null || Math.abs(away) < Math.abs(best.away))
      best = { other: j, point: hit.point, along, sine, away, within };
  }
  return best;
}

/** The pieces of a line between its nodes; openings go with the piece they lie in, and no node parts one. */
function segmentsOf(
  { run, a, u }: Line,
  [start, end]: [Point, Point],
  cuts: readonly { at: number; node: Point }[],
): Segment[] {
  const along = (p: Point) => dot(subtract(p, a), u);
  const open = run.gaps.map((gap) => ({ ...gap, from: gap.from - run.from, to: gap.to - run.from }));
  const [low, high] = [along(start), along(end)];
  const stops = [
    { at: low, node: start },
    ...[...cuts]
      .sort((p, q) => p.at - q.at)
      .filter(
        ({ at }) =>
          at > low + oneNode &&
          at < high - oneNode &&
          !open.some(({ from, to }) => at > from + oneNode && at < to - oneNode),
      ),
    { at: high, node: end },
  ];
  const apart = stops.filter(({ node }, i) => i === 0 || node !== stops[i - 1].node);
  return apart.slice(1).map(({ at, node }, i): Segment => {
    const from = apart[i];
    return {
      run,
      start: from.node,
      end: node,
      thickness: run.thickness,
      outer: false,
      gaps: open
        .filter((gap) => (gap.from + gap.to) / 2 > from.at && (gap.from + gap.to) / 2 <= at)
        .map((gap) => ({ ...gap, from: gap.from - from.at, to: gap.to - from.at })),
    };
  });
}
