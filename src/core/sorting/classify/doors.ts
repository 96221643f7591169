import { BoxIndex, boxOf } from '@/core/geometry/boxIndex';
import { distance } from '@/core/geometry/vector';
import type { AllLooks, ArcPiece, Line } from './looks';

/** A door's leaf, metres. */
const leaf = { least: 0.5, most: 1.6 };

/** Quarter arcs with a leaf. */
export function doors(looks: AllLooks, arcs: readonly ArcPiece[], lines: readonly Line[]): void {
  const index = new BoxIndex(lines, ({ a, b }) => boxOf([a, b]));
  for (const { path, centre, radius, ends, sweep } of arcs) {
    if (looks[path] !== null || radius < leaf.least || radius > leaf.most || sweep < 1 || sweep > 2) continue;
    const own = index
      .around(centre, 0.06 * radius)
      .find(
        ({ a, b, length }) =>
          Math.abs(length - radius) < 0.08 * radius &&
          ends.some((end) => Math.min(distance(a, end), distance(b, end)) < 0.12 * radius),
      );
    if (!own) continue;
    looks[path] = { role: 'door', why: 'a quarter arc with a leaf' };
    looks[own.path] = { role: 'door', why: 'the leaf of a quarter arc' };
  }
}
