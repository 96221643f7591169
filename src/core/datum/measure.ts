import { cross, distance, subtract, type Point } from '@/core/geometry/vector';
import { toAxes, type WorkingAxes } from './survey';

/** What is measured: one distance, a run of spacings, an angle at a corner, or an area. */
export const measureModes = ['distance', 'run', 'angle', 'area'] as const;
export type MeasureMode = (typeof measureModes)[number];

/** How many points complete a measure; a run and an area are ended by hand. */
export const pointsOf: Record<MeasureMode, number> = { distance: 2, run: Infinity, angle: 3, area: Infinity };
/** Fewer say nothing. */
export const fewestPoints: Record<MeasureMode, number> = { distance: 2, run: 2, angle: 3, area: 3 };

/** Lengths in metres, the angle in radians, the area in square metres. */
export type Measurement =
  | { mode: 'distance'; length: number; across: number; up: number; direction: number }
  | { mode: 'run'; spacings: number[]; length: number }
  | { mode: 'angle'; angle: number }
  | { mode: 'area'; area: number; perimeter: number };

/**
 * What some points measure.
 * @param points in the project, metres; the corner of an angle is the second
 * @param axes along which a distance is told apart, or null for the project's
 * @returns null where there are too few points, or an angle has none
 */
export function measure(
  mode: MeasureMode,
  points: readonly Point[],
  axes: Pick<WorkingAxes, 'origin' | 'angle'> | null,
): Measurement | null {
  if (points.length < fewestPoints[mode]) return null;
  if (mode === 'distance') {
    const [a, b] = [points[0], points[points.length - 1]].map((p): Point => (axes === null ? p : toAxes(axes, p)));
    return {
      mode,
      length: distance(a, b),
      across: b[0] - a[0],
      up: b[1] - a[1],
      direction: Math.atan2(points[points.length - 1][1] - points[0][1], points[points.length - 1][0] - points[0][0]),
    };
  }
  if (mode === 'run') {
    const spacings = points.slice(1).map((p, i) => distance(points[i], p));
    return { mode, spacings, length: spacings.reduce((sum, spacing) => sum + spacing, 0) };
  }
  if (mode === 'angle') {
    const [a, b] = [subtract(points[0], points[1]), subtract(points[2], points[1])];
    if (Math.hypot(...a) === 0 || Math.hypot(...b) === 0) return null;
    return { mode, angle: Math.abs(Math.atan2(cross(a, b), a[0] * b[0] + a[1] * b[1])) };
  }
  // Taken about the first corner, so that far away from zero nothing is lost.
  const local = points.map((p) => subtract(p, points[0]));
  const ring = local.map((p, i) => [p, local[(i + 1) % local.length]] as const);
  return {
    mode,
    area: Math.abs(ring.reduce((sum, [p, q]) => sum + cross(p, q), 0)) / 2,
    perimeter: ring.reduce((sum, [p, q]) => sum + distance(p, q), 0),
  };
}
