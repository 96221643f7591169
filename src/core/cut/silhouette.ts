import { together, type Region } from '@/core/geometry/clipping';
import { area, contains, simplify } from '@/core/geometry/polygon';
import type { Point } from '@/core/geometry/vector';
import { oneCorner, type Shell } from './body';

/** A triangle whose area in plan is smaller stands upright, square metres. */
const upright = 1e-9;

/** Upper and lower sides that agree within this share of their area are one another's mirror. */
const mirrored = 1e-3;

/**
 * What shells whose corners are welded cover in plan. Their upper side is taken in connected patches whose rims are
 * polygons, and those are put together; where the lower side covers another area than the upper one, as on shells that
 * are not closed, it counts too.
 */
export function silhouetteOf(shells: readonly Shell[]): Region {
  return together(shells.map(ofShell));
}

function ofShell(shell: Shell): Region {
  const [up, down] = [patchesOf(shell, 1), patchesOf(shell, -1)];
  const [above, below] = [areaOf(up), areaOf(down)];
  const sides = Math.abs(above - below) <= mirrored * above ? up : [...up, ...down];
  return together(sides);
}

const areaOf = (regions: readonly Region[]): number =>
  regions.flat().reduce((sum, { outline, holes }) => sum + holes.reduce((s, h) => s + area(h), area(outline)), 0);

/** The triangles of a shell that face up, or down, in connected patches. @param side 1 for up, -1 for down */
function patchesOf({ corners, triangles }: Shell, side: 1 | -1): Region[] {
  const at = (corner: number): Point => [corners[3 * corner], corners[3 * corner + 1]];
  const facing: number[][] = [];
  for (let i = 0; i + 2 < triangles.length; i += 3) {
    const three = [triangles[i], triangles[i + 1], triangles[i + 2]];
    if (side * area(three.map(at)) > upright) facing.push(side === 1 ? three : three.reverse());
  }
  return connected(facing)
    .map((patch) => regionOf(rimsOf(patch).map((rim) => simplify(rim.map(at), oneCorner))))
    .filter((region) => region.length > 0);
}

const sidesOf = (triangle: readonly number[]): [number, number][] =>
  triangle.map((corner, i) => [corner, triangle[(i + 1) % 3]]);

/** Triangles that reach one another over common sides. */
function connected(triangles: readonly number[][]): number[][][] {
  const bySide = new Map<string, number>();
  triangles.forEach((triangle, i) => sidesOf(triangle).forEach(([a, b]) => bySide.set(`${a} ${b}`, i)));
  const seen = new Set<number>();
  const patches: number[][][] = [];
  triangles.forEach((_, first) => {
    if (seen.has(first)) return;
    const patch = [first];
    seen.add(first);
    // The list grows while it is walked.
    for (const one of patch)
      for (const [a, b] of sidesOf(triangles[one])) {
        const other = bySide.get(`${b} ${a}`);
        if (other === undefined || seen.has(other)) continue;
        seen.add(other);
        patch.push(other);
      }
    patches.push(patch.map((one) => triangles[one]));
  });
  return patches;
}

/** The rims of a patch, as its corners in order: counter-clockwise outside, clockwise about holes. */
function rimsOf(patch: readonly number[][]): number[][] {
  const sides = new Set(patch.flatMap((triangle) => sidesOf(triangle).map(([a, b]) => `${a} ${b}`)));
  const from = new Map<number, number[]>();
  for (const [a, b] of patch.flatMap(sidesOf)) {
    if (sides.has(`${b} ${a}`)) continue;
    const to = from.get(a);
    if (to === undefined) from.set(a, [b]);
    else to.push(b);
  }
  const rims: number[][] = [];
  for (const [start, to] of from)
    while (to.length > 0) {
      const rim = [start];
      for (let next = to.pop(); next !== undefined && next !== start; next = from.get(next)?.pop()) rim.push(next);
      if (rim.length > 2) rims.push(rim);
    }
  return rims;
}

function regionOf(rims: readonly Point[][]): Region {
  const region: Region = rims.filter((rim) => area(rim) > upright).map((outline) => ({ outline, holes: [] }));
  for (const rim of rims)
    if (area(rim) < -upright) region.find(({ outline }) => contains(outline, rim[0]))?.holes.push(rim);
  return region;
}
