import { boxOf } from '@/core/geometry/boxIndex';
import { contains } from '@/core/geometry/polygon';
import type { Point } from '@/core/geometry/vector';

/** Points lie at most so far apart, metres (EN 12464-1, 4.4). */
const widest = 10;
/** From this ratio of its sides on an area is measured by its shorter one. */
const slender = 2;
/** More points than this are not asked: an area of a kilometre with points of a millimetre is a slip. */
const mostPoints = 40_000;

/** How far apart the points of an area may lie: 0.2 times 5 to the power of lg of its side (EN 12464-1, 4.4). */
export function spacingOf(longer: number, shorter: number): number {
  const d = longer / Math.max(shorter, 1e-9) >= slender ? shorter : longer;
  return Math.min(widest, 0.2 * 5 ** Math.log10(Math.max(d, 1e-3)));
}

/** Even rows and columns over an area, of which the points within it are asked. */
export interface Lattice {
  columns: number;
  rows: number;
  /** Its corner, and the ways from one column and from one row to the next, metres. */
  origin: Point;
  across: Point;
  up: Point;
  /** The cell of each point, row by row. */
  cells: number[];
}

const empty: Lattice = { columns: 0, rows: 0, origin: [0, 0], across: [0, 0], up: [0, 0], cells: [] };

/** A grid over an area: points at the middles of cells along its longer side, those inside it and outside its holes. */
export function gridOf(
  outline: readonly Point[],
  holes: readonly (readonly Point[])[],
  spacing: number | null,
): { points: Point[]; lattice: Lattice } {
  if (outline.length < 3) return { points: [], lattice: empty };
  const along = longestSide(outline);
  const [c, s] = [Math.cos(along), Math.sin(along)];
  const turned = outline.map(([x, y]): Point => [c * x + s * y, c * y - s * x]);
  const [x1, y1, x2, y2] = boxOf(turned);
  const [width, depth] = [x2 - x1, y2 - y1];
  const apart = spacing ?? spacingOf(Math.max(width, depth), Math.min(width, depth));
  const [columns, rows] = [Math.max(1, Math.ceil(width / apart - 1e-9)), Math.max(1, Math.ceil(depth / apart - 1e-9))];
  if (columns * rows > mostPoints) return { points: [], lattice: empty };
  const points: Point[] = [];
  const cells: number[] = [];
  const out = (u: number, v: number): Point => [c * u - s * v, s * u + c * v];
  for (let j = 0; j < rows; j += 1)
    for (let i = 0; i < columns; i += 1) {
      const p = out(x1 + ((i + 0.5) * width) / columns, y1 + ((j + 0.5) * depth) / rows);
      if (!contains(outline, p) || holes.some((hole) => contains(hole, p))) continue;
      points.push(p);
      cells.push(j * columns + i);
    }
  const lattice = {
    columns,
    rows,
    origin: out(x1, y1),
    across: out(width / columns, 0),
    up: out(0, depth / rows),
    cells,
  };
  return { points, lattice };
}

/** The direction of the longest side of an outline, radians. */
function longestSide(outline: readonly Point[]): number {
  let [longest, angle] = [0, 0];
  outline.forEach(([x, y], i) => {
    const [x2, y2] = outline[(i + 1) % outline.length];
    const length = Math.hypot(x2 - x, y2 - y);
    if (length > longest + 1e-9) [longest, angle] = [length, Math.atan2(y2 - y, x2 - x)];
  });
  return angle;
}
