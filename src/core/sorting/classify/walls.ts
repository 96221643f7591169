import { BoxIndex, boxOf } from '@/core/geometry/boxIndex';
import { distance } from '@/core/geometry/vector';
import { doubled, facesOf } from '@/core/patterns/faces';
import { defaultSettings } from '@/core/patterns/settings';
import { pairFaces } from '@/core/patterns/strips';
import type { PlacedPath } from '@/core/placed/placed';
import { defaultTolerance } from '@/core/tolerance';
import { PathFlag, type Primitives } from '@/core/underlay/primitives';
import { placedPath, type AllLooks, type Line } from './looks';

/** Ends, jambs and other short pieces of walls are at most this long, metres. */
export const shortPiece = 0.65;

/** Lines and arcs in pairs at a wall's distance. @param loose paths that hang on nothing */
export function walls(looks: AllLooks, p: Primitives, k: number, loose: ReadonlySet<number>): void {
  const rest: PlacedPath[] = [];
  for (let path = 0; path < looks.length; path += 1) {
    if (loose.has(path) || looks[path] !== null || p.chain[path] !== 0 || (p.flags[path] & PathFlag.circle) !== 0)
      continue;
    rest.push(placedPath(p, k, path));
  }
  const { families, curved } = facesOf(rest, defaultTolerance.offAxis, doubled, defaultTolerance.gap);
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
      looks[arc.source.entity] = { role: 'wall', why: 'two arcs about one centre' };
}

/** What is said of ends and jambs. */
export const shortWhy = 'as long as a wall is thick';

/** What is left and as short as a wall is thick: ends and jambs. */
export function shortPieces(looks: AllLooks, lines: readonly Line[], loose: ReadonlySet<number>): void {
  for (const { path, length } of lines)
    if (looks[path] === null && length <= shortPiece && !loose.has(path)) looks[path] = { role: 'wall', why: shortWhy };
}
