import { cross, distance, dot, lineCrossing, pointAlong, subtract, type Point } from '@/core/geometry/vector';
import { fail, ok, type Result } from '@/core/result';

/** A straight line of a drawing, and the path that it is part of. */
export interface DrawnLine {
  from: Point;
  to: Point;
  path: number;
}

/** A member that lines show: its axis, how deep it is drawn (null by one line alone), and the lines' paths. */
export interface TakenMember {
  start: Point;
  end: Point;
  depth: number | null;
  paths: number[];
}

/** Two lines are one member's where they lie so far apart, metres, */
const [shallowest, deepest] = [0.02, 0.8];
/** are parallel to within this sine, */
const parallel = 0.02;
/** and run beside one another over this share of the shorter. */
const overlapping = 0.6;
/** Shorter lines are ends of members and no members, metres. */
const shortest = 0.15;
/** An end is brought to the axis that it meets where that is within so many depths. */
const reachInDepths = 1.6;
/** Ends on one axis closer than this share of its depth meet in one node. */
const oneNode = 0.5;
/** More lines than these are no truss but a whole sheet. */
const mostLines = 2000;

interface Pair {
  i: number;
  j: number;
  apart: number;
}

/**
 * The members that lines of a section show: pairs of parallel lines, each a member by its middle; or, where there are
 * no pairs, each line by itself. Ends go on to the axes that they meet.
 */
export function takeMembers(lines: readonly DrawnLine[]): Result<TakenMember[]> {
  const long = lines.filter(({ from, to }) => distance(from, to) >= shortest);
  if (long.length === 0) return fail('There is no straight line of 150 mm or more to take. Draw the member by hand.');
  if (long.length > mostLines)
    return fail(
      `${long.length} lines lie on that layer; at most ${mostLines} are taken at once. Take them one by one.`,
    );
  const pairs = pairsOf(long);
  const members = pairs.length > 0 ? pairs.map((pair) => ofPair(long, pair)) : long.map(ofLine);
  return ok(joined(members));
}

const ofLine = ({ from, to, path }: DrawnLine): TakenMember => ({ start: from, end: to, depth: null, paths: [path] });

/** Each line with the nearest that runs beside it; nearer pairs first. */
function pairsOf(lines: readonly DrawnLine[]): Pair[] {
  const found: Pair[] = [];
  for (let i = 0; i < lines.length; i += 1)
    for (let j = i + 1; j < lines.length; j += 1) {
      const apart = apartOf(lines[i], lines[j]);
      if (apart !== null) found.push({ i, j, apart });
    }
  const taken = new Set<number>();
  return found
    .sort((a, b) => a.apart - b.apart)
    .filter(({ i, j }) => {
      if (taken.has(i) || taken.has(j)) return false;
      taken.add(i).add(j);
      return true;
    });
}

/** How far apart two lines run that may be one member's; null where they are not. */
function apartOf(a: DrawnLine, b: DrawnLine): number | null {
  const [long, short] = distance(a.from, a.to) >= distance(b.from, b.to) ? [a, b] : [b, a];
  const size = distance(long.from, long.to);
  const [d, e] = [subtract(long.to, long.from), subtract(short.to, short.from)];
  if (Math.abs(cross(d, e)) > parallel * size * distance(short.from, short.to)) return null;
  const apart = Math.abs(cross(d, subtract(pointAlong(short.from, short.to, 0.5), long.from))) / size;
  if (apart < shallowest || apart > deepest) return null;
  const [s, t] = [short.from, short.to].map((p) => dot(subtract(p, long.from), d) / size).sort((x, y) => x - y);
  const beside = Math.min(t, size) - Math.max(s, 0);
  // A member is longer than it is deep.
  return beside >= overlapping * (t - s) && t - s > apart ? apart : null;
}

function ofPair(lines: readonly DrawnLine[], { i, j, apart }: Pair): TakenMember {
  const [a, b] = [lines[i], lines[j]];
  const size = distance(a.from, a.to);
  const u = subtract(a.to, a.from);
  const along = (p: Point): number => dot(subtract(p, a.from), u) / size;
  const ends = [a.from, a.to, b.from, b.to].map(along);
  const side = Math.sign(cross(u, subtract(b.from, a.from)));
  const [nx, ny] = [((-u[1] / size) * side * apart) / 2, ((u[0] / size) * side * apart) / 2];
  const at = (t: number): Point => [a.from[0] + (u[0] / size) * t + nx, a.from[1] + (u[1] / size) * t + ny];
  return { start: at(Math.min(...ends)), end: at(Math.max(...ends)), depth: apart, paths: [a.path, b.path] };
}

/** Millionths of a millimetre; no zero has a sign. */
const clean = (metres: number): number => Number(metres.toFixed(9)) + 0;

/** Members whose ends lie on the axes that they meet. */
function joined(members: readonly TakenMember[]): TakenMember[] {
  const nodes: { on: number; at: Point; reach: number }[] = [];
  const brought = (member: TakenMember, own: number, end: 'start' | 'end'): Point => {
    const met = meeting(members, own, end);
    if (met === null) return member[end];
    const reach = oneNode * (members[met.on].depth ?? 0);
    const known = nodes.find(({ on, at }) => on === met.on && distance(at, met.at) <= reach);
    if (known !== undefined) return known.at;
    // Two ends that meet in a node have just the same coordinates there.
    const at: Point = [clean(met.at[0]), clean(met.at[1])];
    nodes.push({ on: met.on, at, reach });
    return at;
  };
  return members.map((member, i) => ({
    ...member,
    start: brought(member, i, 'start'),
    end: brought(member, i, 'end'),
  }));
}

/** The nearest place within reach of an end at which its axis meets another's; null where there is none. */
function meeting(members: readonly TakenMember[], own: number, end: 'start' | 'end'): { on: number; at: Point } | null {
  const member = members[own];
  const from = member[end];
  let best: { on: number; at: Point; away: number } | null = null;
  members.forEach((other, on) => {
    if (on === own) return;
    const met = lineCrossing(member.start, member.end, other.start, other.end);
    if (met === null) return;
    const reach = reachInDepths * ((member.depth ?? 0) + (other.depth ?? 0)) + 1e-6;
    const beyond = Math.max(0, -met.u, met.u - 1) * distance(other.start, other.end);
    const away = distance(met.point, from);
    if (away > reach || beyond > reach) return;
    if (best === null || away < best.away) best = { on, at: met.point, away };
  });
  return best;
}
