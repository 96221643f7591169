import { contains } from '@/core/geometry/polygon';
import { pointAlong, type Point } from '@/core/geometry/vector';
import { groupBy } from '@/core/groupBy';
import { lengthOfLine } from '@/core/kinds/lines';
import { centroid } from '@/core/geometry/polygon';
import type { StandingWall } from '../subject';
import { elevationOf, found, type Rule } from '../rule';

/** What lies beyond a door is looked for this far from its wall's faces, metres. */
const beside = 0.15;
/** Smaller rooms are shafts and cupboards, square metres. */
const smallest = 1.5;

/** Both sides of a door, just beyond its wall. */
function sidesOf({ line, wall }: StandingWall, middle: number): Point[] {
  const share = middle / (lengthOfLine(line) || 1);
  const at = pointAlong(line[0], line[line.length - 1], share);
  const [a, b] = [line[0], line[line.length - 1]];
  const size = Math.hypot(b[0] - a[0], b[1] - a[1]) || 1;
  const away = wall.thickness / 2 + beside;
  const n: Point = [(-(b[1] - a[1]) / size) * away, ((b[0] - a[0]) / size) * away];
  return [
    [at[0] + n[0], at[1] + n[1]],
    [at[0] - n[0], at[1] - n[1]],
  ];
}

/** Rooms that no door leads into, where the level has doors at all. */
export const doorless: Rule = {
  name: 'no door',
  find(subject) {
    const byLevel = groupBy(subject.walls, ({ wall }) => wall.level);
    return [...groupBy(subject.model.zones, ({ level }) => level)].flatMap(([level, zones]) => {
      const doors = (byLevel.get(level) ?? []).flatMap((standing) =>
        standing.openings
          .filter(({ kind }) => kind === 'door')
          .flatMap(({ offset, width }) => sidesOf(standing, offset + width / 2)),
      );
      if (doors.length === 0) return [];
      return zones.flatMap(({ id, name, number, outline, area }) => {
        const ring = outline.map(([x, y]): Point => [x, y]);
        const size = typeof area === 'number' ? area : Infinity;
        if (ring.length < 3 || size < smallest || doors.some((side) => contains(ring, side))) return [];
        return found('warning', [id], centroid(ring), elevationOf(subject, level), [
          `No door leads into ${name || number || 'this room'}.`,
          'Look whether a door was missed, or whether the room is open to another one.',
        ]);
      });
    });
  },
};
