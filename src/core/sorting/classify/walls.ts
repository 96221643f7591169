import { BoxIndex, boxOf } from '@/core/geometry/boxIndex';
import { distance, middle, nearestOnPiece, type Point } from '@/core/geometry/vector';
import { withChordsBent } from '@/core/patterns/chords';
import { doubled, facesOf } from '@/core/patterns/faces';
import { defaultSettings } from '@/core/patterns/settings';
import { pairFaces } from '@/core/patterns/strips';
import type { PlacedPath } from '@/core/placed/placed';
import { defaultTolerance } from '@/core/tolerance';
import { PathFlag } from '@/core/underlay/primitives';
import type { Drawn } from './drawn';
import { sidesOf, type AllLooks, type Line } from './looks';
import type { Role } from '../roles';

/** Ends, jambs and other short pieces of walls are at most this long, metres. */
export const shortPiece = 0.65;

/** Lines and arcs in pairs at a wall's distance. @param loose paths that hang on nothing */
export function walls(looks: AllLooks, drawn: Drawn, loose: ReadonlySet<number>): void {
  const rest: PlacedPath[] = [];
  for (let path = 0; path < looks.length; path += 1) {
    if (
      loose.has(path) ||
      looks[path] !== null ||
      drawn.p.chain[path] !== 0 ||
      (drawn.p.flags[path] & PathFlag.circle) !== 0
    )
      continue;
    rest.push(drawn.placed(path));
  }
  const { families, curved } = facesOf(withChordsBent(rest), defaultTolerance.offAxis, doubled, defaultTolerance.gap);
  for (const family of families)
    for (const { sources, thickness, from, to } of pairFaces(family, defaultSettings.wall).strips)
      if (to - from > 1.5 * thickness)
        for (const { entity } of sources)
          looks[entity] = { role: 'wall', why: 'a pair of lines at a wall\u2019s distance' };
  const centres = new BoxIndex(curved, ({ centre }) => boxOf([centre]));
  for (const arc of curved)
    if (
      centres
        .around(arc.centre, 0.02)
        .some(
          (other) =>
            other !== arc &&
            distance(other.centre, arc.centre) < 0.02 &&
            Math.abs(other.radius - arc.radius) <= defaultSettings.wall.most &&
            Math.abs(other.radius - arc.radius) >= defaultSettings.wall.least,
        )
    )
      for (const { entity } of arc.sources) looks[entity] = { role: 'wall', why: 'two arcs about one centre' };
}

/** What is said of ends and jambs. */
export const shortWhy = 'as long as a wall is thick';

/** What is left and as short as a wall is thick: ends and jambs. */
export function shortPieces(looks: AllLooks, lines: readonly Line[], loose: ReadonlySet<number>): void {
  for (const { path, length } of lines)
    if (looks[path] === null && length <= shortPiece && !loose.has(path)) looks[path] = { role: 'wall', why: shortWhy };
}

/**
 * A stub ends this near to what it stands on, metres, goes round so many corners at most, and a column is no wider
 * than this.
 */
const stub = { near: 0.03, mostVertices: 4, column: 0.7 };

/**
 * What is left of a wall beside a door: short faces about a jamb, in one path that begins and ends on a column or on a
 * wall, or in an outline one side of which is a jamb that something in the opening runs to.
 */
export function stubs(looks: AllLooks, drawn: Drawn): void {
  const pathsOf = (...roles: Role[]) =>
    looks.flatMap((look, path) => (look !== null && roles.includes(look.role) ? [drawn.placed(path)] : []));
  const held = pathsOf('column', 'wall');
  const isRound = ({ circle }: PlacedPath): boolean => circle;
  const holds = new BoxIndex(held.filter((one) => !isRound(one)).flatMap(sidesOf), ({ a, b }) =>
    boxOf([a, b], stub.near),
  );
  const rounds = new BoxIndex(held.filter(isRound), ({ points: [a, b] }) =>
    boxOf([middle(a, b)], distance(a, b) / 2 + stub.near),
  );
  const corners = new BoxIndex(
    pathsOf('column').flatMap(({ points }) => points),
    (at) => boxOf([at]),
  );
  /** Between two corners of a column: a wall ends at the flanges of a steel one. */
  const isBetween = (end: Point): boolean => {
    const about = corners.around(end, stub.column);
    return about.some((p) => about.some((q) => distance(nearestOnPiece(p, q, end), end) <= stub.near));
  };
  const isHeld = (end: Point): boolean =>
    isBetween(end) ||
    holds.around(end).some(({ a, b }) => distance(nearestOnPiece(a, b, end), end) <= stub.near) ||
    rounds
      .around(end)
      .some(({ points: [a, b] }) => Math.abs(distance(middle(a, b), end) - distance(a, b) / 2) <= stub.near);
  const opened = pathsOf('door', 'window').flatMap(({ points }) => [points[0], points[points.length - 1]]);
  const ends = new BoxIndex(opened, (end) => boxOf([end], stub.near));
  const isJamb = ({ a, b }: Line): boolean => [a, b].every((corner) => ends.around(corner).length > 0);
  for (let path = 0; path < looks.length; path += 1) {
    const count = drawn.p.start[path + 1] - drawn.p.start[path];
    if (looks[path] !== null || drawn.p.chain[path] !== 0 || count < 3 || count > stub.mostVertices) continue;
    const placed = drawn.placed(path);
    const sides = sidesOf(placed);
    if (sides.some(({ length }) => length > shortPiece)) continue;
    if (placed.closed ? sides.some(isJamb) : [placed.points[0], placed.points[count - 1]].every(isHeld))
      looks[path] = { role: 'wall', why: 'short faces about a jamb' };
  }
}
