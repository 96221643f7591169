import { offsetPath, type BentPath } from '@/core/geometry/offsetPath';
import type { Wall } from '@/core/kinds/wall';
import { fail, ok, type Result } from '@/core/result';

/** What of a wall the drawn line is: its middle, or its face, seen from start to end. */
export const drawnAlong = ['centre line', 'left face', 'right face'] as const;
export type DrawnAlong = (typeof drawnAlong)[number];

/** Walls along a chain of points, straight or bent, one a side; they share their nodes exactly. */
export function wallChain(path: BentPath, closed: boolean, like: Wall, along: DrawnAlong): Result<Wall[]> {
  const left = { 'centre line': 0, 'left face': -like.thickness / 2, 'right face': like.thickness / 2 }[along];
  const centre = left === 0 ? path : offsetPath(path, left, closed);
  if (centre === null)
    return fail('A side is too short for a wall of that thickness drawn along its face. Draw its centre line.');
  const { points, bulges } = centre;
  const sides = closed ? points.length : points.length - 1;
  return ok(
    Array.from({ length: sides }, (_, i) => ({
      ...like,
      start: points[i],
      end: points[(i + 1) % points.length],
      bulge: bulges[i] ?? 0,
    })),
  );
}
