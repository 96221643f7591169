import { alongLine } from '@/core/kinds/lines';
import { area, centroid, contains } from '@/core/geometry/polygon';
import { add, subtract, type Point } from '@/core/geometry/vector';
import { groupBy } from '@/core/groupBy';
import { inPlan, type StandingWall } from '../subject';
import { elevationOf, found, type Rule } from '../rule';

/** What lies beyond a door is looked for this far from its wall's faces, metres. */
const beside = 0.15;
/** Smaller rooms are shafts and cupboards, square metres. */
const smallest = 1.5;

/** Both sides of a door, just beyond its wall. */
function sidesOf({ line, wall }: StandingWall, middle: number): Point[] {
  const { point, direction } = alongLine(line, middle);
  const away = wall.thickness / 2 + beside;
  const n: Point = [-direction[1] * away, direction[0] * away];
  return [add(point, n), subtract(point, n)];
}

/** Rooms that no door leads into, where the level has doors at all. */
export const doorless: Rule = {
  name: 'no door',
  near: false,
  find(subject) {
    const byLevel = groupBy(subject.walls, ({ wall }) => wall.level);
    return [...groupBy(subject.model.zones, ({ level }) => level)].flatMap(([level, zones]) => {
      const doors = (byLevel.get(level) ?? []).flatMap((standing) =>
        standing.openings
          .filter(({ kind }) => kind === 'door')
          .flatMap(({ offset, width }) => sidesOf(standing, offset + width / 2)),
      );
      if (doors.length === 0) return [];
      return zones.flatMap(({ id, name, number, outline }) => {
        const ring = outline.map(inPlan);
        if (ring.length < 3 || Math.abs(area(ring)) < smallest || doors.some((side) => contains(ring, side))) return [];
        return found('warning', [id], centroid(ring), elevationOf(subject, level), [
          `No door leads into ${name || number || 'this room'}.`,
          'Look whether a door was missed, or whether the room is open to another one.',
        ]);
      });
    });
  },
};
