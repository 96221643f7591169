import { mostOf } from '@/core/lists';
import { stringOf, type Drawing } from '@/core/drawing/drawing';
import type { Point } from '@/core/geometry/vector';

/** What a dimension says, whether its picture is in the file or not. Lengths in drawing units. */
export interface DimensionFacts {
  /** 0 turned, 1 aligned, 2 angular, 3 diameter, 4 radius, 5 angular by three points, 6 ordinate. */
  type: number;
  /** As the drawing program measured it, or null where the file does not say. */
  measured: number | null;
  /** The text written in place of the measured value; `<>` stands for it. */
  override: string | null;
  /** Definition points by their group codes 10, 11, 13, 14, 15, 16. */
  points: Record<10 | 11 | 13 | 14 | 15 | 16, Point | null>;
  /** Direction of a turned dimension, radians. */
  angle: number;
}

const codes = [10, 11, 13, 14, 15, 16] as const;

/** The facts of a dimension row. */
export function dimensionFacts(drawing: Drawing, row: number): DimensionFacts {
  const n = drawing.numbers.subarray(drawing.at[row] + 11, drawing.at[row + 1]);
  const points = Object.fromEntries(
    codes.map((code, i) => [code, Number.isFinite(n[3 + 2 * i] + n[4 + 2 * i]) ? [n[3 + 2 * i], n[4 + 2 * i]] : null]),
  ) as DimensionFacts['points'];
  return {
    type: n[0],
    measured: Number.isFinite(n[1]) ? n[1] : null,
    override: n[2] < 0 ? null : stringOf(drawing, n[2]),
    points,
    angle: n[15],
  };
}

/** The distance that a turned or aligned dimension spans between its points, in drawing units. */
export function spanOf({ type, points, angle }: DimensionFacts): number | null {
  const [a, b] = [points[13], points[14]];
  if (type > 1 || a === null || b === null) return null;
  const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
  return type === 1 ? Math.hypot(dx, dy) : Math.abs(dx * Math.cos(angle) + dy * Math.sin(angle));
}

/** A plain picture of a dimension that came without one: its lines between the definition points, and its text. */
export function dimensionPicture(
  drawing: Drawing,
  row: number,
): { lines: [Point, Point][]; text: { x: number; y: number; height: number; angle: number; text: string } | null } {
  const facts = dimensionFacts(drawing, row);
  const { type, points } = facts;
  const lines: [Point, Point][] = [];
  const [line, a, b] = [points[10], points[13], points[14]];
  if (type <= 1 && line && a && b) {
    const along = type === 1 ? Math.atan2(b[1] - a[1], b[0] - a[0]) : facts.angle;
    const [c, s] = [Math.cos(along), Math.sin(along)];
    const foot = ([x, y]: Point): Point => {
      const t = (x - line[0]) * c + (y - line[1]) * s;
      return [line[0] + c * t, line[1] + s * t];
    };
    lines.push([a, foot(a)], [b, foot(b)], [foot(a), foot(b)]);
  } else if (line && points[15]) lines.push([line, points[15]]);
  else if (a && b) lines.push([a, b]);
  const value = facts.measured ?? spanOf(facts);
  const measured = value === null ? '' : String(Number((value * (drawing.header.dimensionFactor ?? 1)).toPrecision(6)));
  const words = facts.override === null ? measured : facts.override.replace('<>', measured);
  const at = points[11] ?? line;
  const size = lines.length > 0 ? mostOf(lines.map(([p, q]) => Math.hypot(q[0] - p[0], q[1] - p[1]))) : 0;
  return {
    lines,
    text:
      words.trim() === '' || at === null
        ? null
        : { x: at[0], y: at[1], height: size / 20 || 1, angle: type <= 1 ? facts.angle : 0, text: words },
  };
}
