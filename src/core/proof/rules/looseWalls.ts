import { contains } from '@/core/geometry/polygon';
import { distance, type Point } from '@/core/geometry/vector';
import { awayFromLine } from '@/core/kinds/lines';
import { found, metres, type Rule } from '../rule';

/** An end that misses something by more than a node and less than this was meant to meet it, metres. */
const [node, meant] = [0.025, 0.15];

/** Ends of walls that nearly meet another wall and do not: rooms leak there. */
export const looseWalls: Rule = {
  name: 'near miss',
  near: true,
  find(subject) {
    return subject.walls.flatMap(({ wall, line, base, top }) =>
      [line[0], line[line.length - 1]].flatMap((end) => {
        const others = subject
          .wallsNear(end, meant)
          .filter((other) => other.wall.id !== wall.id && Math.min(other.top, top) > Math.max(other.base, base));
        const column = subject.columnsNear(end, meant).some(({ outline }) => contains(outline, end));
        if (column || others.length === 0) return [];
        // An end within the thickness of another wall meets it; so does one at its end.
        const gaps = others.map((other) => gapTo(other.line, other.wall.thickness / 2, end));
        const least = Math.min(...gaps);
        if (least <= node || least > meant) return [];
        const other = others[gaps.indexOf(least)];
        return found('warning', [wall.id, other.wall.id], end, base, [
          `An end of this wall misses another by ${metres(least)}.`,
          'Join them with Tidy, or cut back or lengthen one of them.',
        ]);
      }),
    );
  },
};

function gapTo(line: readonly Point[], half: number, p: Point): number {
  const atEnd = Math.min(distance(line[0], p), distance(line[line.length - 1], p));
  return Math.min(atEnd, Math.max(0, awayFromLine(line, p) - half));
}
