import { cross, dot, subtract, type Point } from '@/core/geometry/vector';
import { alongLine, lengthOfLine } from '@/core/kinds/lines';

import type { StandingWall } from '@/core/proof/subject';

/** What a pane throws back of the light of a room at night: two panes of clear glass (EN 410). */
export const paneReflectance = 0.15;

/** A window as the room before it sees it: from where to where it stands in its wall's middle, and its heights. */
export interface Pane {
  from: Point;
  to: Point;
  /** From the middle of the wall to its faces, metres. */
  half: number;
  low: number;
  high: number;
}

/** The windows of walls. */
export const panesOf = (walls: readonly StandingWall[]): Pane[] =>
  walls.flatMap(({ wall, line, base, openings }) =>
    openings
      .filter(({ kind }) => kind === 'window')
      .map(({ offset, width, sill, height }): Pane => {
        const end = Math.min(lengthOfLine(line), offset + width);
        const [from, to] = [alongLine(line, offset).point, alongLine(line, end).point];
        return { from, to, half: wall.thickness / 2, low: base + sill, high: base + sill + height };
      }),
  );

/** A pane lies in a side of a room that runs along its wall's face within this, metres, and within this sine. */
const [onFace, parallel] = [0.12, 0.05];

/** The part of a room's side that a pane takes, along it and in height, metres; null where it is not in it. */
export function paneOnSide(
  pane: Pane,
  a: Point,
  b: Point,
): { from: number; to: number; low: number; high: number } | null {
  const d = subtract(b, a);
  const length = Math.hypot(...d);
  const own = subtract(pane.to, pane.from);
  if (length === 0 || Math.abs(cross(d, own)) > parallel * length * Math.hypot(...own)) return null;
  const off = Math.abs(cross(d, subtract(pane.from, a))) / length - pane.half;
  if (Math.abs(off) > onFace) return null;
  const ends = [pane.from, pane.to].map((p) => dot(subtract(p, a), d) / length);
  const [from, to] = [Math.max(0, Math.min(...ends)), Math.min(length, Math.max(...ends))];
  return to > from ? { from, to, low: pane.low, high: pane.high } : null;
}
