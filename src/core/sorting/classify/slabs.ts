import { area, centroid, contains } from '@/core/geometry/polygon';
import type { Point } from '@/core/geometry/vector';
import { findOutlines } from '@/core/patterns/outlines';
import { defaultTolerance } from '@/core/tolerance';
import type { Primitives } from '@/core/underlay/primitives';
import type { Drawn } from './drawn';
import type { AllLooks } from './looks';

/** An outline about this share of what the building covers is that of a slab. */
const covered = 0.6;
/**
 * A slab reaches over what stands on it by this much at most, metres; the sheet's frame stands further off. Where a
 * part of the building has no columns it reaches further, and is told from the frame by the bubbles outside it.
 */
const over = 1.5;
/** So many columns say where the building is; pairs of lines and strokes are in tables and frames as well. */
const mostTelling = 4;
/** A slab's layer holds at most so many paths, and its outline this share of them. */
const layer = { most: 60, share: 0.6 };

/**
 * Layers that hold one outline about all columns, or, where there are none, all walls, and little else. The face of a
 * wall beside an outline makes a pair with it, so what looks like walls is asked too: but walls have two such outlines.
 */
export function slabs(looks: AllLooks, drawn: Drawn): void {
  const told = looks.filter((look) => look?.role === 'column').length >= mostTelling ? 'column' : 'wall';
  const building = boxOfRole(looks, drawn, told);
  if (building === null) return;
  const [minX, minY, maxX, maxY] = building;
  const middle: Point = [(minX + maxX) / 2, (minY + maxY) / 2];
  const bubbles = bubblesOf(looks, drawn);
  const isNear = (points: readonly Point[]): boolean =>
    points.every(([x, y]) => x > minX - over && x < maxX + over && y > minY - over && y < maxY + over);
  const isBare = (points: readonly Point[]): boolean =>
    bubbles.length > 0 && contains(points, middle) && !bubbles.some((bubble) => contains(points, bubble));
  const isWhole = (points: readonly Point[]): boolean =>
    Math.abs(area(points)) >= covered * (maxX - minX) * (maxY - minY) && (isNear(points) || isBare(points));
  for (const paths of plainLayers(looks, drawn.p)) {
    const { outlines } = findOutlines(
      paths.map((path) => drawn.placed(path)),
      defaultTolerance.gap,
    );
    const whole = outlines.filter(({ points }) => isWhole(points));
    if (whole.length !== 1 || whole[0].handles.length < layer.share * paths.length) continue;
    for (const handle of whole[0].handles)
      looks[Number(handle)] = { role: 'slab', why: 'an outline about the whole building' };
  }
}

/** The middles of the rings about grid labels. */
const bubblesOf = (looks: AllLooks, drawn: Drawn): Point[] =>
  looks.flatMap((look, path) => {
    const corners = look?.role === 'grid' ? drawn.corners(path) : null;
    return corners === null ? [] : [centroid(corners)];
  });

/** The paths of each layer with few of them, of which none is told to be something else than a wall. */
function plainLayers(looks: AllLooks, p: Primitives): number[][] {
  const layers = new Map<number, number[] | null>();
  for (const [path, number] of p.layer.entries()) {
    const paths = layers.get(number);
    if (paths === null) continue;
    const look = looks[path];
    const other = p.chain[path] !== 0 || (look !== null && look.role !== 'wall');
    if (other || (paths?.length ?? 0) >= layer.most) layers.set(number, null);
    else if (paths) paths.push(path);
    else layers.set(number, [path]);
  }
  return [...layers.values()].filter((paths) => paths !== null);
}

/** The box about all that looks like one role, metres; null where nothing does. */
function boxOfRole(
  looks: AllLooks,
  drawn: Drawn,
  role: string,
): [minX: number, minY: number, maxX: number, maxY: number] | null {
  const box: [number, number, number, number] = [Infinity, Infinity, -Infinity, -Infinity];
  looks.forEach((look, path) => {
    if (look?.role !== role) return;
    for (const [x, y] of drawn.placed(path).points) {
      box[0] = Math.min(box[0], x);
      box[1] = Math.min(box[1], y);
      box[2] = Math.max(box[2], x);
      box[3] = Math.max(box[3], y);
    }
  });
  return box[2] > box[0] && box[3] > box[1] ? box : null;
}
