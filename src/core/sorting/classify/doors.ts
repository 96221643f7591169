import { BoxIndex, boxOf } from '@/core/geometry/boxIndex';
import { distance, type Point } from '@/core/geometry/vector';
import type { AllLooks, ArcPiece, Line } from './looks';

/** A door's leaf, metres. */
const leaf = { least: 0.5, most: 1.6 };

/** Doors are drawn open by so much, radians: from 30 degrees on. */
const swing = { least: 0.5, most: 2 };

type Arc = Pick<ArcPiece, 'centre' | 'radius' | 'sweep'>;

/** Whether an arc is about a quarter or a part of one, of a leaf's radius. */
export const isQuarter = ({ radius, sweep }: Arc): boolean =>
  radius >= leaf.least && radius <= leaf.most && Math.abs(sweep) >= swing.least && Math.abs(sweep) <= swing.most;

/** Whether a line is an arc's leaf: of its radius' length, from its centre. */
export const isLeaf = ({ centre, radius }: Arc, a: Point, b: Point): boolean =>
  Math.abs(distance(a, b) - radius) < 0.08 * radius &&
  Math.min(distance(a, centre), distance(b, centre)) < 0.06 * radius;

/** Quarter arcs with a leaf. */
export function doors(looks: AllLooks, arcs: readonly ArcPiece[], lines: readonly Line[]): void {
  const index = new BoxIndex(lines, ({ a, b }) => boxOf([a, b]));
  for (const { path, centre, radius, ends, sweep } of arcs) {
    const arc = { centre, radius, sweep };
    if (looks[path] !== null || !isQuarter(arc)) continue;
    const own = index
      .around(centre, 0.06 * radius)
      .find(
        ({ a, b }) =>
          isLeaf(arc, a, b) && ends.some((end) => Math.min(distance(a, end), distance(b, end)) < 0.12 * radius),
      );
    if (!own) continue;
    looks[path] = { role: 'door', why: 'a quarter arc with a leaf' };
    looks[own.path] = { role: 'door', why: 'the leaf of a quarter arc' };
  }
}
