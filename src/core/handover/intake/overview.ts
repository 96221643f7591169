import type { Box } from '@/core/underlay/mainContent';
import { eachSide } from '@/core/underlay/pieces';
import { extentsOf, type Primitives } from '@/core/underlay/primitives';

/**
 * Where the content of a drawing lies: how many lines touch each cell of a grid over all of it, row by row from the
 * lower left.
 */
export interface Overview {
  box: Box;
  columns: number;
  rows: number;
  counts: number[];
}

/** Cells along the longer side. */
const longer = 56;

/** The overview of a drawing; null where it draws nothing. */
export function overviewOf(p: Primitives): Overview | null {
  const extents = extentsOf(p);
  if (extents === null) return null;
  const [x0, y0, x1, y1] = extents;
  const cell = Math.max(x1 - x0, y1 - y0, 1e-9) / longer;
  const [columns, rows] = [
    Math.max(1, Math.ceil((x1 - x0) / cell - 1e-9)),
    Math.max(1, Math.ceil((y1 - y0) / cell - 1e-9)),
  ];
  const counts = new Uint32Array(columns * rows);
  const at = (x: number, y: number) =>
    Math.min(rows - 1, Math.floor((y - y0) / cell)) * columns + Math.min(columns - 1, Math.floor((x - x0) / cell));
  eachSide(p, (_, v, next) => {
    const [ax, ay, bx, by] = [p.xy[2 * v], p.xy[2 * v + 1], p.xy[2 * next], p.xy[2 * next + 1]];
    const steps = Math.ceil(Math.hypot(bx - ax, by - ay) / cell);
    let before = -1;
    for (let i = 0; i <= steps; i += 1) {
      const t = steps === 0 ? 0 : i / steps;
      const here = at(ax + (bx - ax) * t, ay + (by - ay) * t);
      if (here !== before) counts[here] += 1;
      before = here;
    }
  });
  const [ox, oy] = p.origin;
  return {
    box: [
      [x0 + ox, y0 + oy],
      [x1 + ox, y1 + oy],
    ],
    columns,
    rows,
    counts: Array.from(counts),
  };
}
