import { simplify } from '@/core/geometry/polygon';
import type { Point } from '@/core/geometry/vector';
import { oneCorner, type Shell } from './body';

/** A line that a plane cuts out of a shell: closed about a solid, open where the shell has a gap. */
export interface CutLine {
  points: Point[];
  closed: boolean;
}

/**
 * Where a level plane cuts a shell whose corners are welded. Each triangle that crosses the plane gives a piece between
 * two of its edges; pieces are joined by the edges that they share, so that no tolerance decides what belongs together.
 * A corner that lies in the plane counts as above it.
 * @param z the plane's height, metres
 */
export function sectionOf({ corners, triangles }: Shell, z: number): CutLine[] {
  const above = (corner: number): boolean => corners[3 * corner + 2] >= z;
  const edges = new Map<string, Crossing>();
  const crossing = (a: number, b: number): Crossing => {
    const [low, high] = a < b ? [a, b] : [b, a];
    const key = `${low} ${high}`;
    const known = edges.get(key);
    if (known !== undefined) return known;
    const made = { at: between(corners, low, high, z), others: [] };
    edges.set(key, made);
    return made;
  };
  for (let i = 0; i + 2 < triangles.length; i += 3) {
    const three = [triangles[i], triangles[i + 1], triangles[i + 2]];
    const cut = three
      .map((corner, j) => [corner, three[(j + 1) % 3]] as const)
      .filter(([a, b]) => above(a) !== above(b))
      .map(([a, b]) => crossing(a, b));
    if (cut.length !== 2) continue;
    cut[0].others.push(cut[1]);
    cut[1].others.push(cut[0]);
  }
  return linesThrough([...edges.values()]);
}

/** A crossed edge, and those that pieces lead to from it. */
interface Crossing {
  at: Point;
  others: Crossing[];
}

function between(corners: Float64Array, a: number, b: number, z: number): Point {
  const [za, zb] = [corners[3 * a + 2], corners[3 * b + 2]];
  const share = (z - za) / (zb - za);
  const along = (axis: number): number =>
    corners[3 * a + axis] + share * (corners[3 * b + axis] - corners[3 * a + axis]);
  return [along(0), along(1)];
}

/** Walks along the pieces until each was taken once: open lines from their ends first, then closed ones. */
function linesThrough(crossings: readonly Crossing[]): CutLine[] {
  const lines: CutLine[] = [];
  const ends = crossings.filter(({ others }) => others.length % 2 === 1);
  for (const from of [...ends, ...crossings]) {
    while (from.others.length > 0) {
      const points: Point[] = [from.at];
      let here = from;
      for (let next = here.others.pop(); next !== undefined; next = here.others.pop()) {
        next.others.splice(next.others.indexOf(here), 1);
        here = next;
        if (here === from) break;
        points.push(here.at);
      }
      const closed = here === from && points.length > 2;
      const kept = closed ? simplify(points, oneCorner) : points;
      if (kept.length > (closed ? 2 : 1)) lines.push({ points: kept, closed });
    }
  }
  return lines;
}
