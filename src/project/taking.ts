import { metresPerDrawn, placementTransform, type Placement } from '@/core/datum/placement';
import { boxOf, type Box } from '@/core/geometry/boxIndex';
import { apply, invert } from '@/core/geometry/transform';
import type { Point } from '@/core/geometry/vector';
import type { ReadKind } from '@/core/kinds/element';
import type { Model } from '@/core/model/model';
import { candidateAt, candidatesIn, type TakeReading } from '@/core/reading/takeAt';
import { readingOrder, useReadings } from './readings';
import { takeInWorker, type Underlay } from './underlays';

/** How far about a place lines are looked at for each kind, metres: rooms are wide, outlines may run round a site. */
const lookedAt: Record<ReadKind, number> = {
  grid: 60,
  column: 4,
  beam: 9,
  wall: 7,
  opening: 7,
  slab: 80,
  zone: 30,
  outdoor: 120,
  luminaire: 4,
  contour: 120,
};
/** More lines than this about a place are not looked at, the nearest count. */
const mostPaths = 4000;

/** What is pointed at: a drawing as it is placed, a line of it or none, and where. */
export interface PointedAt {
  drawingId: string;
  underlay: Underlay;
  placement: Placement;
  path: number | null;
  at: Point;
  /** How far from the place something still counts, metres. */
  reach: number;
}

/** The paths of a drawing with a side in a box, about its origin; of a crowd the nearest to its middle. */
function pathsIn({ index }: Underlay, box: Box): Set<number> {
  const sides = index.vertex.length;
  const isSide = (item: number): boolean => item < sides;
  const paths = new Set<number>();
  for (const item of index.tree.search(...box, isSide)) {
    paths.add(index.path[item]);
    if (paths.size > mostPaths) break;
  }
  if (paths.size <= mostPaths) return paths;
  const middle: Point = [(box[0] + box[2]) / 2, (box[1] + box[3]) / 2];
  return new Set(
    index.tree.neighbors(middle[0], middle[1], 4 * mostPaths, Infinity, isSide).map((item) => index.path[item]),
  );
}

/**
 * What the reader makes of the lines at a place, or within a box of the project, in each way that gives something:
 * first of the whole drawing as it was read, then of the lines about the place, whatever their roles.
 * @param within a box of the project that all of its like are read in; null for the one at the place
 * @param first whether the first way that gives something is enough: while the pointer moves it is
 */
export async function readAt(
  model: Model,
  kind: ReadKind,
  { drawingId, underlay, placement, path, at, reach }: PointedAt,
  within: Box | null = null,
  first = false,
): Promise<TakeReading[]> {
  const whole = useReadings.getState().readings[drawingId]?.result?.candidates ?? [];
  const meant = within === null ? candidateAt(kind, at, reach)(whole) : candidatesIn(kind, within)(whole);
  if (first && meant.length > 0) return [{ candidates: meant }];
  const far = lookedAt[kind] / metresPerDrawn(placement);
  const back = invert(placementTransform(placement, underlay.primitives.origin));
  const corners: Point[] =
    within === null
      ? [at]
      : [
          [within[0], within[1]],
          [within[2], within[1]],
          [within[2], within[3]],
          [within[0], within[3]],
        ];
  const box = boxOf(
    corners.map((p) => apply(back, p)),
    far,
  );
  const paths = pathsIn(underlay, box);
  if (path !== null) paths.add(path);
  const more = await takeInWorker(drawingId, readingOrder(model, drawingId, underlay, placement), {
    kind,
    paths: Uint32Array.from(paths),
    box: [...box],
    path,
    at,
    reach,
    within: within && [...within],
    own: meant.length === 0,
    first,
  });
  return meant.length === 0 ? more : [{ candidates: meant }, ...more];
}
