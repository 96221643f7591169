import { bulgeOfSweep } from '@/core/geometry/bulge';
import { cross, distance, subtract, type Point } from '@/core/geometry/vector';

/** A line of straight sides and arcs: the bulge of each side that begins at a point, zero where it is straight. */
export interface Bent {
  points: Point[];
  bulges: number[];
}

/** Corners of chords lie on their circle within this, metres: they were points of it before 32 bits rounded them. */
const onCircle = 2e-5;
/** An arc has at least so many chords, each of no more than this angle, radians. */
const fewestChords = 4;
const widestChord = Math.PI / 10;
/** Chords of one arc are equally long within this share, but the first and the last. */
const evenChords = 0.01;

/** The line with arcs where runs of chords were drawn for them. */
export function withArcs(line: readonly Point[], closed: boolean): Bent {
  const all = closed ? startedAtCorner(line) : [...line];
  const path = closed ? [...all, all[0]] : all;
  const bent: Bent = { points: [], bulges: [] };
  for (let i = 0; i < path.length;) {
    const run = runFrom(path, i);
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

/** A closed line begun where its longest side ends, so that no arc runs over its begin. */
function startedAtCorner(line: readonly Point[]): Point[] {
  const length = (i: number): number => distance(line[i], line[(i + 1) % line.length]);
  let longest = 0;
  for (let i = 1; i < line.length; i += 1) if (length(i) > length(longest)) longest = i;
  const start = (longest + 1) % line.length;
  return [...line.slice(start), ...line.slice(0, start)];
}

/** The arc that begins at a point, and the point where it ends; a straight side where there is none. */
function runFrom(path: readonly Point[], from: number): { end: number; bulge: number } {
  const side = { end: from + 1, bulge: 0 };
  if (from + fewestChords >= path.length) return side;
  const centre = centreOf(path[from], path[from + 1], path[from + 2]);
  if (centre === null) return side;
  const radius = distance(centre, path[from]);
  const step = distance(path[from + 1], path[from + 2]);
  const turned = (i: number): number => {
    const [a, b] = [subtract(path[i], centre), subtract(path[i + 1], centre)];
    return Math.atan2(cross(a, b), a[0] * b[0] + a[1] * b[1]);
  };
  const sense = Math.sign(turned(from));
  let [end, sweep] = [from, 0];
  while (end + 1 < path.length) {
    const [angle, chord] = [turned(end), distance(path[end], path[end + 1])];
    const fits = Math.abs(distance(centre, path[end + 1]) - radius) <= onCircle;
    if (!fits || Math.sign(angle) !== sense || Math.abs(angle) > widestChord || chord > step * (1 + evenChords)) break;
    sweep += angle;
    end += 1;
    // A shorter chord is the arc's last.
    if (chord < step * (1 - evenChords) && end > from + 1) break;
  }
  return end - from < fewestChords ? side : { end, bulge: bulgeOfSweep(sweep) };
}

/** The centre of the circle through three points; null where they lie on a line. */
function centreOf(a: Point, b: Point, c: Point): Point | null {
  const [u, w] = [subtract(b, a), subtract(c, a)];
  const twice = 2 * cross(u, w);
  if (Math.abs(twice) < 1e-9) return null;
  const [uu, ww] = [u[0] ** 2 + u[1] ** 2, w[0] ** 2 + w[1] ** 2];
  return [a[0] + (w[1] * uu - u[1] * ww) / twice, a[1] + (u[0] * ww - w[0] * uu) / twice];
}
