import { BoxIndex, boxOf } from '@/core/geometry/boxIndex';
import { cross, distance, dot, lineCrossing, subtract, type Point } from '@/core/geometry/vector';
import { inFamily, inPlan } from '@/core/patterns/faces';
import type { Strip } from '@/core/patterns/strips';
import type { Bend } from './bends';
import type { Obstacle } from './obstacle';
import type { Stops } from './runs';

/** An end this near to a face is on it, metres. */
const onFace = 0.03;
/** What fills a gap may leave this much of it open at either side and between, metres. */
const left = 0.05;
/** A wall in one line with another does not pass it, as a sine. */
const passes = 0.1;
/** Faces of a wall that passes may stop this much sooner, metres. */
const beyondEnd = 0.4;

/** A stretch along a gap, metres from its beginning. */
type Stretch = [from: number, to: number];

/** What explains that the faces of walls stop: columns, walls that pass, straight and curved, and what they end on. */
export function stopsOf(strips: readonly Strip[], bends: readonly Bend[], columns: readonly Obstacle[]): Stops {
  const posts = new BoxIndex(columns, ({ at, reach }) => boxOf([at], reach + onFace));
  const passing = stripsPassing(strips);
  const curved = new BoxIndex(bends, ({ centre, radius, thickness }) => boxOf([centre], radius + thickness));
  const onWall = abutting(strips);
  return {
    filled(a, b, across) {
      const width = distance(a, b);
      const stretches = [
        ...posts.touching(boxOf([a, b])).flatMap((post) => stretchOfColumn(post, a, b)),
        ...passing(a, b, across),
        ...curved.touching(boxOf([a, b], across)).flatMap((bend) => stretchesOfBend(bend, a, b, across)),
      ];
      return covers(stretches, width);
    },
    abuts: (at, u) => onWall(at, u) || posts.around(at).some((post) => distance(post.at, at) < post.reach + onFace),
  };
}

/** Whether columns fill the place between two points. */
export function filledByColumns(columns: readonly Obstacle[]): (a: Point, b: Point) => boolean {
  const posts = new BoxIndex(columns, ({ at, reach }) => boxOf([at], reach + onFace));
  return (a, b) =>
    covers(
      posts.touching(boxOf([a, b])).flatMap((post) => stretchOfColumn(post, a, b)),
      distance(a, b),
    );
}

/** Whether stretches leave nothing of a gap open but slits. */
function covers(stretches: Stretch[], width: number): boolean {
  let reached = 0;
  for (const [from, to] of stretches.sort((p, q) => p[0] - q[0])) {
    if (from > reached + left) return false;
    reached = Math.max(reached, to);
  }
  return reached >= width - left;
}

/** Where along a gap a column stands. */
function stretchOfColumn({ at, reach }: Obstacle, a: Point, b: Point): Stretch[] {
  const length = distance(a, b);
  const u: Point = [(b[0] - a[0]) / length, (b[1] - a[1]) / length];
  const d = subtract(at, a);
  const along = dot(d, u);
  return Math.abs(cross(u, d)) < reach ? [[along - reach, along + reach]] : [];
}

/**
 * What a wall covers along another that it meets: as much as it is thick on the other's middle, and at its faces so far
 * beside that as it leans.
 * @param sine of the angle between the two
 * @param across how thick the other is, metres
 */
function covered(along: number, thickness: number, sine: number, across: number): Stretch {
  const reach = (thickness / 2 + (across / 2) * Math.sqrt(1 - sine * sine)) / sine;
  return [along - reach, along + reach];
}

/** Where along a gap straight walls pass. */
function stripsPassing(strips: readonly Strip[]): (a: Point, b: Point, across: number) => Stretch[] {
  const index = new BoxIndex(
    strips.map((strip) => ({
      strip,
      c: inPlan(strip.family, strip.from - beyondEnd, strip.offset),
      d: inPlan(strip.family, strip.to + beyondEnd, strip.offset),
    })),
    ({ c, d }) => boxOf([c, d]),
  );
  return (a, b, across) => {
    const width = distance(a, b);
    const u: Point = [(b[0] - a[0]) / width, (b[1] - a[1]) / width];
    return index.touching(boxOf([a, b], 0.2 * width)).flatMap(({ strip, c, d }): Stretch[] => {
      const sine = Math.abs(cross(u, strip.family.u));
      const hit = sine < passes ? null : lineCrossing(a, b, c, d);
      if (hit === null || hit.u < 0 || hit.u > 1) return [];
      return [covered(hit.t * width, strip.thickness, Math.min(1, sine), across)];
    });
  };
}

/** Where along a gap a curved wall passes, or ends. */
function stretchesOfBend(bend: Bend, a: Point, b: Point, across: number): Stretch[] {
  const width = distance(a, b);
  const u: Point = [(b[0] - a[0]) / width, (b[1] - a[1]) / width];
  const foot = dot(subtract(bend.centre, a), u);
  const off = cross(u, subtract(bend.centre, a));
  if (Math.abs(off) >= bend.radius) return [];
  const half = Math.sqrt(bend.radius ** 2 - off ** 2);
  return [foot - half, foot + half].flatMap((along): Stretch[] => {
    const at: Point = [a[0] + u[0] * along, a[1] + u[1] * along];
    if (along < -bend.thickness || along > width + bend.thickness || !reaches(bend, at)) return [];
    // The sine of the angle between the gap and the arc, whose radius at that place leans by its half chord.
    return [covered(along, bend.thickness, Math.max(half / bend.radius, passes), across)];
  });
}

/** Whether a bend has a place on its circle, or ends a little before it. */
function reaches({ centre, radius, start, sweep }: Bend, at: Point): boolean {
  const angle = Math.atan2(at[1] - centre[1], at[0] - centre[0]);
  const more = beyondEnd / radius;
  const turned = (sweep < 0 ? start - angle : angle - start) + more;
  const whole = 2 * Math.PI;
  return ((turned % whole) + whole) % whole <= Math.abs(sweep) + 2 * more;
}

/** Whether a wall of some direction that ends at a point ends on another wall, at its face or within it. */
function abutting(strips: readonly Strip[]): (at: Point, u: Point) => boolean {
  const index = new BoxIndex(strips, ({ family, from, to, offset, thickness }) =>
    boxOf([inPlan(family, from, offset), inPlan(family, to, offset)], thickness / 2 + onFace),
  );
  return (at, u) =>
    index.around(at).some(({ family, from, to, offset, thickness }) => {
      if (Math.abs(cross(u, family.u)) < 0.3) return false;
      const [along, across] = inFamily(family, at);
      return Math.abs(across - offset) <= thickness / 2 + onFace && along > from - thickness && along < to + thickness;
    });
}
