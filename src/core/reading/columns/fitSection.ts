import { leastOf, mostOf } from '@/core/lists';
import type { Column } from '@/core/kinds/column';
import { area, centroid, leastRectangle, simplify } from '@/core/geometry/polygon';
import { degrees, distance, type Point } from '@/core/geometry/vector';
import type { Tolerance } from '@/core/tolerance';
import type { Outline } from '@/core/patterns/outlines';

/** A column's shape fitted to an outline, with its size before rounding. */
export interface Fit {
  column: Column;
  raw: { width: number; depth: number };
}

/** An outline whose area is at least this share of its least rectangle's is a rectangle. */
const rectangular = 0.985;

/** Radii of a circle drawn as a polygon differ by at most this share. */
const roundness = 0.015;

/**
 * Fits a rectangle, a circle or a polygon section to an outline, its sizes rounded to the module where they
 * are within tolerance of it.
 */
export function fitSection(outline: Outline, tolerance: Tolerance): Fit | null {
  const round = (size: number) => {
    const rounded = Math.round(size / tolerance.roundingModule) * tolerance.roundingModule;
    return Math.abs(rounded - size) <= tolerance.rounding + 1e-9 && rounded > 0 ? Number(rounded.toFixed(9)) : size;
  };
  const circle = outline.circle ?? asCircle(outline.points);
  if (circle !== null) {
    const diameter = 2 * circle.radius;
    return {
      column: {
        position: circle.centre,
        rotation: 0,
        section: { shape: 'circle', diameter: round(diameter) },
        mark: '',
      },
      raw: { width: diameter, depth: diameter },
    };
  }
  const points = simplify(outline.points, Math.max(tolerance.coincidence, outline.gap / 2));
  const rectangle = leastRectangle(points);
  if (points.length < 3 || rectangle === null || rectangle.depth < 1e-9) return null;
  const { centre, width, depth } = rectangle;
  const raw = { width, depth };
  if (Math.abs(area(points)) >= rectangular * width * depth) {
    const rotation = Math.abs(rectangle.rotation) < 1e-7 ? 0 : degrees(rectangle.rotation);
    return {
      column: {
        position: centre,
        rotation,
        section: { shape: 'rectangle', width: round(width), depth: round(depth) },
        mark: '',
      },
      raw,
    };
  }
  const middlePoint = centroid(points);
  const turned = area(points) < 0 ? [...points].reverse() : points;
  const shape = turned.map(([x, y]): Point => [x - middlePoint[0], y - middlePoint[1]]);
  return {
    column: { position: middlePoint, rotation: 0, section: { shape: 'polygon', outline: shape }, mark: '' },
    raw,
  };
}

function asCircle(points: readonly Point[]): { centre: Point; radius: number } | null {
  if (points.length < 8) return null;
  const centre: Point = [
    points.reduce((sum, p) => sum + p[0], 0) / points.length,
    points.reduce((sum, p) => sum + p[1], 0) / points.length,
  ];
  const radii = points.map((p) => distance(p, centre));
  const [least, most] = [leastOf(radii), mostOf(radii)];
  return most - least <= roundness * most ? { centre, radius: (least + most) / 2 } : null;
}
