import { distance, type Point } from '@/core/geometry/vector';

/** An edge of a hatch as it is seen; `bulge` bends it where it has two points. */
export interface EdgePart {
  points: Point[];
  bulge: number;
}

/** The edges of a loop all run on, where writers gave some of them backwards. */
export function inOneDirection(parts: EdgePart[]): EdgePart[] {
  const back = ({ points, bulge }: EdgePart): EdgePart => ({
    points: [...points].reverse(),
    bulge: bulge === 0 ? 0 : -bulge,
  });
  const ends = ({ points }: EdgePart): [Point, Point] => [points[0], points[points.length - 1]];
  const out: EdgePart[] = [];
  for (const part of parts) {
    const before = out[out.length - 1];
    if (before === undefined) {
      out.push(part);
      continue;
    }
    const [[a, b], [c, d]] = [ends(before), ends(part)];
    // The first edge is turned to meet the second; each later one to go on where the one before ends.
    if (
      out.length === 1 &&
      Math.min(distance(a, c), distance(a, d)) + 1e-6 * distance(a, b) < Math.min(distance(b, c), distance(b, d))
    )
      out[0] = back(before);
    const end = ends(out[out.length - 1])[1];
    out.push(distance(end, d) < distance(end, c) ? back(part) : part);
  }
  return out;
}
