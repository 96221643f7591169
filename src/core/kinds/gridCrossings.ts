import type { GridLine } from './grid';
import { BoxIndex, boxOf } from '@/core/geometry/boxIndex';
import { arcOfBulge, bulgeOfSweep } from '@/core/geometry/bulge';
import { direction, lineCrossing, radians, type Point } from '@/core/geometry/vector';
import { crossingsOf } from '@/core/underlay/crossings';
import type { Piece } from '@/core/underlay/pieces';

/** Where two grid lines cross. */
export interface Crossing {
  name: string;
  point: Point;
}

/** Grid lines are thought on this far beyond their drawn ends, metres. */
const reach = 2;

/** All crossings of grid lines within, or just beyond, their ends; named number first: "5/B". */
export function gridCrossings(lines: readonly GridLine[]): Crossing[] {
  const crossings: Crossing[] = [];
  const boxes = lines.map((line) =>
    line.kind === 'line' ? boxOf([line.start, line.end], reach) : boxOf([line.centre], line.radius),
  );
  const index = new BoxIndex(boxes, (box) => box);
  for (let i = 0; i < lines.length; i += 1) {
    for (const j of index
      .indices(boxes[i])
      .filter((other) => other > i)
      .sort((a, b) => a - b)) {
      for (const point of pair(lines[i], lines[j]))
        crossings.push({ name: nameOf(lines[i].label, lines[j].label), point });
    }
  }
  return crossings;
}

const nameOf = (a: string, b: string) => (/^\d/.test(b) && !/^\d/.test(a) ? `${b}/${a}` : `${a}/${b}`);

function pair(p: GridLine, q: GridLine): Point[] {
  if (p.kind === 'line' && q.kind === 'line') {
    const hit = lineCrossing(p.start, p.end, q.start, q.end);
    return hit !== null && near(p, hit.t) && near(q, hit.u) ? [hit.point] : [];
  }
  return sidesOf(p).flatMap((a) => sidesOf(q).flatMap((b) => crossingsOf(a, b)));
}

function near(line: Extract<GridLine, { kind: 'line' }>, t: number): boolean {
  const slack = reach / Math.hypot(line.end[0] - line.start[0], line.end[1] - line.start[1]);
  return t >= -slack && t <= 1 + slack;
}

/** A grid line as sides, so that one crossing routine serves underlay and grid. */
function sidesOf(line: GridLine): Piece[] {
  if (line.kind === 'line') return [{ path: 0, a: line.start, b: line.end, arc: null }];
  const sweep = radians(line.endAngle - line.startAngle) / 2;
  return [0, 1].map((half) => {
    const at = (angle: number): Point => {
      const [c, s] = direction(angle);
      return [line.centre[0] + line.radius * c, line.centre[1] + line.radius * s];
    };
    const from = radians(line.startAngle) + sweep * half;
    const [a, b] = [at(from), at(from + sweep)];
    return { path: 0, a, b, arc: arcOfBulge(a, b, bulgeOfSweep(sweep)) };
  });
}
