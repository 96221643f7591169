import { contains } from '@/core/geometry/polygon';
import { radians, type Point } from '@/core/geometry/vector';
import { awayFromLine } from './lines';

/** The outline of a mark about a point, from its corners about zero. @param turn degrees, counter-clockwise */
export function placedMark(at: Point, turn: number, corners: readonly Point[]): Point[] {
  const [c, s] = [Math.cos(radians(turn)), Math.sin(radians(turn))];
  return corners.map(([x, y]): Point => [at[0] + c * x - s * y, at[1] + s * x + c * y]);
}

/** A square about a point. @param half half its side, metres */
export const squareMark = (at: Point, half: number, turn: number): Point[] =>
  placedMark(at, turn, [
    [-half, -half],
    [half, -half],
    [half, half],
    [-half, half],
  ]);

/** Metres from a point to an outline; zero inside. */
export const awayFromMark = (outline: readonly Point[], p: Point): number =>
  contains(outline, p) ? 0 : awayFromLine([...outline, outline[0]], p);
