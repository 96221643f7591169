import { BoxIndex, boxOf, type Box } from '@/core/geometry/boxIndex';
import { distance, nearestOnPiece, pointAlong, type Point } from '@/core/geometry/vector';
import { bulgedLine } from '@/core/kinds/lines';
import type { PlacedPath } from '@/core/placed/placed';

/** A straight piece of a drawn line, metres in the project. */
export interface Stroke {
  a: Point;
  b: Point;
  handle: string;
}

/** The straight pieces of a placed path, arcs as chords. */
export function strokesOf({ points, bulges, closed, handle }: PlacedPath): Stroke[] {
  const sides = closed ? points.length : points.length - 1;
  return Array.from({ length: Math.max(0, sides) }, (_, i) => i).flatMap((i) => {
    const line = bulgedLine(points[i], points[(i + 1) % points.length], bulges[i] ?? 0);
    return line.slice(1).map((b, k) => ({ a: line[k], b, handle }));
  });
}

/** The pieces of a line of points. @param closed whether the last point is joined to the first */
export const piecesOf = (line: readonly Point[], closed: boolean): [Point, Point][] =>
  line.flatMap((p, i): [Point, Point][] => {
    const next = i + 1 < line.length ? line[i + 1] : line[0];
    return i + 1 < line.length || closed ? [[p, next]] : [];
  });

const boxOfStroke = ({ a, b }: Stroke): Box => boxOf([a, b]);

/** Strokes, to be asked for the nearest to a point. */
export class StrokeIndex {
  private readonly index: BoxIndex<Stroke>;

  constructor(strokes: readonly Stroke[]) {
    this.index = new BoxIndex(strokes, boxOfStroke);
  }

  /** The nearest point of a stroke, and its stroke; null where none is within reach. @param reach metres */
  nearest(p: Point, reach: number): { point: Point; away: number; stroke: Stroke } | null {
    let best: { point: Point; away: number; stroke: Stroke } | null = null;
    for (const stroke of this.index.around(p, reach)) {
      const point = nearestOnPiece(stroke.a, stroke.b, p);
      const away = distance(p, point);
      if (away <= reach && (best === null || away < best.away)) best = { point, away, stroke };
    }
    return best;
  }
}

/** Points along a straight piece, at most so far apart and never more than some; its ends are left out. */
export function pointsAlong(a: Point, b: Point, apart: number, most: number): Point[] {
  const count = Math.min(most, Math.max(1, Math.ceil(distance(a, b) / apart)));
  return Array.from({ length: count }, (_, i) => pointAlong(a, b, (i + 0.5) / count));
}
