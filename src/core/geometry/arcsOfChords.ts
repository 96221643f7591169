import { bulgeOfSweep } from './bulge';
import { cross, distance, dot, subtract, type Point } from './vector';

/** A line of straight sides and arcs: the bulge of each side that begins at a point, zero where it is straight. */
export interface Bent {
  points: Point[];
  bulges: number[];
}

/** How exactly chords were drawn for an arc. */
export interface Drawn {
  /** Their corners lie on its circle within this, metres. */
  onCircle: number;
  /** A chord leaves it by this at most, metres: longer ones are the sides of something with corners. */
  sagitta: number;
}

/** An arc has at least so many chords, each of no more than this angle, radians. */
const fewestChords = 4;
const widestChord = Math.PI / 10;
/** Chords of one arc are equally long within this share, but the first and the last. */
const evenChords = 0.01;
/** An arc rises over its own chord by this many times what its corners may lie off it: less is a line drawn badly. */
const leastRise = 10;
/** An arc goes no further round, radians; what is left of a ring is another. */
const furthestRound = 1.5 * Math.PI;

/** The line with arcs where runs of chords were drawn for them. */
export function withArcs(line: readonly Point[], closed: boolean, drawn: Drawn): Bent {
  const all = closed ? startedAtCorner(line) : [...line];
  const path = closed ? [...all, all[0]] : all;
  const bent: Bent = { points: [], bulges: [] };
  for (let i = 0; i < path.length;) {
    const run = runFrom(path, i, drawn);
    bent.points.push(path[i]);
    bent.bulges.push(run.bulge);
    i = run.end;
  }
  if (closed) {
    bent.points.pop();
    bent.bulges.pop();
  }
  return bent;
}

/** The turn from a direction to another, radians, to the left positive. */
const turnOf = (a: Point, b: Point): number => Math.atan2(cross(a, b), dot(a, b));

/** A closed line begun at its sharpest corner, so that no arc runs over its begin. */
function startedAtCorner(line: readonly Point[]): Point[] {
  const count = line.length;
  const sharpness = line.map((p, i) =>
    Math.abs(turnOf(subtract(p, line[(i + count - 1) % count]), subtract(line[(i + 1) % count], p))),
  );
  const start = sharpness.indexOf(Math.max(...sharpness));
  return [...line.slice(start), ...line.slice(0, start)];
}

/** The arc that begins at a point, and the point where it ends; a straight side where there is none. */
function runFrom(path: readonly Point[], from: number, drawn: Drawn): { end: number; bulge: number } {
  for (let end = chordsUntil(path, from, drawn); end - from >= fewestChords; end -= 1) {
    const bulge = bulgeBetween(path, from, end, drawn);
    if (bulge !== null) return { end, bulge };
  }
  return { end: from + 1, bulge: 0 };
}

/** The point up to which sides could be chords of one arc: equally long, turning one way, none of them far. */
function chordsUntil(path: readonly Point[], from: number, { onCircle }: Drawn): number {
  if (from + fewestChords >= path.length) return from;
  const side = (i: number): Point => subtract(path[i + 1], path[i]);
  const step = distance(path[from + 1], path[from + 2]);
  const longest = step * (1 + evenChords) + 2 * onCircle;
  const shortest = step * (1 - evenChords) - 2 * onCircle;
  const sense = Math.sign(cross(side(from), side(from + 1)));
  // Corners off their circle turn chords by a little more or less.
  const widest = widestChord + (4 * onCircle) / step;
  if (distance(path[from], path[from + 1]) > longest) return from;
  let [end, round] = [from + 1, 0];
  while (end + 1 < path.length) {
    const turn = turnOf(side(end - 1), side(end));
    const length = distance(path[end], path[end + 1]);
    round += Math.abs(turn);
    if (Math.sign(turn) !== sense || Math.abs(turn) > widest || length > longest || round > furthestRound) break;
    end += 1;
    // A shorter chord is the arc's last.
    if (length < shortest) break;
  }
  return end;
}

/** The bulge of the arc through points of a path, from one to another; null where not all of them lie on one. */
function bulgeBetween(path: readonly Point[], from: number, end: number, { onCircle, sagitta }: Drawn): number | null {
  const [a, b, c] = [path[from], path[(from + end) >> 1], path[end]];
  const centre = centreOf(a, b, c);
  if (centre === null) return null;
  const radius = distance(centre, a);
  let sweep = 0;
  for (let i = from; i < end; i += 1) {
    if (Math.abs(distance(centre, path[i + 1]) - radius) > onCircle) return null;
    const turn = turnOf(subtract(path[i], centre), subtract(path[i + 1], centre));
    if (radius * (1 - Math.cos(turn / 2)) > sagitta) return null;
    sweep += turn;
  }
  const rise = radius * (1 - Math.cos(Math.min(Math.abs(sweep), Math.PI) / 2));
  return rise < leastRise * onCircle ? null : bulgeOfSweep(sweep);
}

/** The centre of the circle through three points; null where they lie on a line. */
function centreOf(a: Point, b: Point, c: Point): Point | null {
  const [u, w] = [subtract(b, a), subtract(c, a)];
  const twice = 2 * cross(u, w);
  if (Math.abs(twice) < 1e-9) return null;
  const [uu, ww] = [dot(u, u), dot(w, w)];
  return [a[0] + (w[1] * uu - u[1] * ww) / twice, a[1] + (u[0] * ww - w[0] * uu) / twice];
}
