import type { PlacedPath } from '@/core/placed/placed';
import { arcOfBulge, arcSagitta, chordCount, pointOnArc } from '@/core/geometry/bulge';
import { distance, type Point } from '@/core/geometry/vector';
import { loopsOf, type LooseSide } from './loops';

/** A closed shape on the column layers. */
export interface Outline {
  points: Point[];
  /** The true circle, where it was drawn as one. */
  circle: { centre: Point; radius: number } | null;
  handles: string[];
  /** The widest gap that had to be closed, metres; zero where it was drawn closed. */
  gap: number;
  entity: number;
  layer: number;
}

/**
 * Finds the closed shapes: circles, closed polylines, polylines whose ends meet, and loose lines and arcs that
 * close within the tolerance.
 * @param symbols whether lines within a shape, such as diagonals, leave it one
 * @returns the shapes, and the sides that close nothing
 */
export function findOutlines(
  paths: readonly PlacedPath[],
  gap: number,
  symbols = false,
): { outlines: Outline[]; loose: LooseSide[] } {
  const outlines: Outline[] = [];
  const sides: LooseSide[] = [];
  for (const path of paths) {
    if (path.points.length < 2) continue;
    const common = { handles: [path.handle], entity: path.entity, layer: path.layer };
    if (path.circle) {
      const [a, b] = path.points;
      outlines.push({
        points: pathPoints(path),
        circle: { centre: [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2], radius: distance(a, b) / 2 },
        gap: 0,
        ...common,
      });
      continue;
    }
    const ends = distance(path.points[0], path.points[path.points.length - 1]);
    if (path.closed || (path.points.length > 3 && ends <= gap)) {
      outlines.push({ points: pathPoints(path), circle: null, gap: path.closed ? 0 : ends, ...common });
      continue;
    }
    for (let i = 0; i + 1 < path.points.length; i += 1) {
      sides.push({
        a: path.points[i],
        b: path.points[i + 1],
        bulge: path.bulges[i],
        handle: path.handle,
        entity: path.entity,
        layer: path.layer,
      });
    }
  }
  const { loops, rest } = loopsOf(sides, gap, symbols);
  return { outlines: [...outlines, ...loops], loose: rest };
}

/** The vertices of a path, its arcs in chords that leave them by no more than a millimetre. */
export function pathPoints({ points, bulges, closed }: PlacedPath): Point[] {
  const out: Point[] = [];
  points.forEach((p, i) => {
    out.push(p);
    const next = points[i + 1] ?? (closed ? points[0] : undefined);
    if (bulges[i] === 0 || next === undefined) return;
    const arc = arcOfBulge(p, next, bulges[i]);
    const chords = Math.max(2, chordCount(arc.radius, arc.sweep, arcSagitta));
    for (let k = 1; k < chords; k += 1) out.push(pointOnArc(arc, k / chords));
  });
  return out;
}
