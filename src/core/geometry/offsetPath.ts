import { arcOfBulge, bulgeOfSweep } from './bulge';
import { cross, distance, dot, subtract, type Point } from './vector';

/** A line of points, bent between point i and the next by bulge i (DXF reference, LWPOLYLINE group 42). */
export interface BentPath {
  points: Point[];
  bulges: number[];
}

/** An endless line by a point and a unit direction, or a whole circle; what a side of a path lies on. */
type Track =
  { kind: 'line'; at: Point; along: Point } | { kind: 'circle'; centre: Point; radius: number; turn: 1 | -1 };

/** Sides whose directions differ by less, as a sine, go straight on. */
const straightOn = 1e-9;

/** What a side lies on once it is set off to its left; null where an arc would shrink to nothing. */
function trackOf(a: Point, b: Point, bulge: number, by: number): Track | null {
  if (bulge === 0) {
    const length = distance(a, b);
    const along: Point = [(b[0] - a[0]) / length, (b[1] - a[1]) / length];
    return { kind: 'line', at: [a[0] - along[1] * by, a[1] + along[0] * by], along };
  }
  const { centre, radius, sweep } = arcOfBulge(a, b, bulge);
  // The left of an arc that runs counter-clockwise is its inside.
  const turn = sweep > 0 ? 1 : -1;
  const next = radius - turn * by;
  return next > 0 ? { kind: 'circle', centre, radius: next, turn } : null;
}

/** A point of a path, set off with one side of it. */
function offPoint(p: Point, track: Track): Point {
  if (track.kind === 'line') {
    const along = dot(subtract(p, track.at), track.along);
    return [track.at[0] + along * track.along[0], track.at[1] + along * track.along[1]];
  }
  const away = distance(p, track.centre);
  const by = track.radius / away;
  return [track.centre[0] + (p[0] - track.centre[0]) * by, track.centre[1] + (p[1] - track.centre[1]) * by];
}

/** The points that two tracks share. */
function meets(p: Track, q: Track): Point[] {
  if (p.kind === 'line' && q.kind === 'line') {
    const sine = cross(p.along, q.along);
    if (Math.abs(sine) < straightOn) return [];
    const t = cross(subtract(q.at, p.at), q.along) / sine;
    return [[p.at[0] + t * p.along[0], p.at[1] + t * p.along[1]]];
  }
  if (p.kind === 'circle' && q.kind === 'circle') return circlesMeet(p, q);
  const [line, circle] = p.kind === 'line' ? [p, q] : [q, p];
  return line.kind === 'line' && circle.kind === 'circle' ? lineMeets(line, circle) : [];
}

/** Half of a chord by its square; what only touches is rounded to either side of touching. Null where they miss. */
function halfChord(square: number, radius: number): number | null {
  const touching = 1e-9 * radius ** 2;
  if (Math.abs(square) < touching) return 0;
  return square < 0 ? null : Math.sqrt(square);
}

function lineMeets(line: Track & { kind: 'line' }, circle: Track & { kind: 'circle' }): Point[] {
  const foot = dot(subtract(circle.centre, line.at), line.along);
  const nearest: Point = [line.at[0] + foot * line.along[0], line.at[1] + foot * line.along[1]];
  const square = circle.radius ** 2 - distance(nearest, circle.centre) ** 2;
  const half = halfChord(square, circle.radius);
  return half === null
    ? []
    : [-half, half].map((t): Point => [nearest[0] + t * line.along[0], nearest[1] + t * line.along[1]]);
}

function circlesMeet(p: { centre: Point; radius: number }, q: { centre: Point; radius: number }): Point[] {
  const gap = distance(p.centre, q.centre);
  if (gap < 1e-9) return [];
  const along = (gap ** 2 + p.radius ** 2 - q.radius ** 2) / (2 * gap);
  const square = p.radius ** 2 - along ** 2;
  const half = halfChord(square, p.radius);
  if (half === null) return [];
  const [ux, uy] = [(q.centre[0] - p.centre[0]) / gap, (q.centre[1] - p.centre[1]) / gap];
  return [-half, half].map((t): Point => [p.centre[0] + along * ux - t * uy, p.centre[1] + along * uy + t * ux]);
}

/** The bulge of a side on its track, between its new ends. */
function bulgeOn(track: Track, a: Point, b: Point, before: number): number {
  if (track.kind === 'line') return 0;
  const angle = (p: Point): number => Math.atan2(p[1] - track.centre[1], p[0] - track.centre[0]);
  const whole = 2 * Math.PI;
  const turned = track.turn * (angle(b) - angle(a));
  const sweep = turned - whole * Math.floor(turned / whole);
  // An arc that would go round the other way has been set off past its neighbours.
  const was = Math.abs(4 * Math.atan(before));
  return Math.abs(sweep - was) > Math.PI ? NaN : track.turn * bulgeOfSweep(sweep);
}

/**
 * A path set off to its left, corners completed: straight sides meet where their lines do, arcs keep their centres.
 * @param by metres to the left, one for all sides or one a side
 * @returns null where a side would vanish or turn round
 */
export function offsetPath(
  { points, bulges }: BentPath,
  by: number | readonly number[],
  closed: boolean,
): BentPath | null {
  const sides = closed ? points.length : points.length - 1;
  const off = (side: number): number => (typeof by === 'number' ? by : by[side]);
  const next = (i: number): number => (i + 1) % points.length;
  const tracks: Track[] = [];
  for (let i = 0; i < sides; i += 1) {
    const track = trackOf(points[i], points[next(i)], bulges[i] ?? 0, off(i));
    if (track === null) return null;
    tracks.push(track);
  }
  const corner = (i: number): Point => {
    const [before, after] = [tracks[closed ? (i + sides - 1) % sides : i - 1], tracks[i]];
    if (before === undefined) return offPoint(points[i], after);
    if (after === undefined) return offPoint(points[i], before);
    const guess = offPoint(points[i], after);
    const [best] = meets(before, after).sort((a, b) => distance(a, guess) - distance(b, guess));
    return best ?? guess;
  };
  const moved = points.map((_, i) => corner(i));
  const bent = tracks.map((track, i) => bulgeOn(track, moved[i], moved[next(i)], bulges[i] ?? 0));
  const turnedRound = tracks.some(
    (track, i) => track.kind === 'line' && dot(subtract(moved[next(i)], moved[i]), track.along) <= 0,
  );
  return turnedRound || bent.some(Number.isNaN) ? null : { points: moved, bulges: bent };
}

/** The bulge of the arc from a to b through a third point; zero where they lie on one line. */
export function bulgeThrough(a: Point, b: Point, through: Point): number {
  const [p, q] = [subtract(a, through), subtract(b, through)];
  // The angle seen from a point of the arc is half of what is left of the full turn (Euclid, III.20 and 22).
  const seen = Math.atan2(cross(p, q), dot(p, q));
  if (Math.abs(Math.sin(seen)) < 1e-9) return 0;
  const sweep = 2 * (Math.PI - Math.abs(seen));
  return (seen < 0 ? 1 : -1) * bulgeOfSweep(sweep);
}
