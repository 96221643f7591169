import { area, centroid } from '@/core/geometry/polygon';
import type { Point } from '@/core/geometry/vector';
import { lengthOfLine } from '@/core/kinds/lines';
import { elevationOf, found, metres, type Rule } from '../rule';
import { inPlan } from '../subject';

/** Shorter is no wall or member, metres; smaller is no area, square metres. */
const [shortest, smallest] = [0.05, 0.05];

/** Walls and members of no length, areas of no size, walls thicker than they are long. */
export const slivers: Rule = {
  name: 'slivers',
  near: true,
  find(subject) {
    const { model, walls } = subject;
    const short = (id: string, at: Point, z: number, length: number) =>
      found(
        'error',
        [id],
        at,
        z,
        [
          `It is ${metres(length)} long; at least ${metres(shortest)} was expected.`,
          'Delete it, or move one of its ends to where it belongs.',
        ],
        { words: 'Delete it', delete: [id] },
      );
    const shortWalls = walls.flatMap(({ wall, line, base }) => {
      const length = lengthOfLine(line);
      if (length < shortest) return short(wall.id, line[0], base, length);
      if (length >= wall.thickness) return [];
      return found('warning', [wall.id], line[0], base, [
        `It is thicker (${metres(wall.thickness)}) than it is long (${metres(length)}).`,
        'Look whether it is a pier, a column or the end of another wall.',
      ]);
    });
    const shortBeams = model.beams.flatMap(({ id, start, end }) => {
      const length = Math.hypot(end[0] - start[0], end[1] - start[1], end[2] - start[2]);
      return length < shortest ? short(id, [start[0], start[1]], start[2], length) : [];
    });
    const areas = [...model.slabs, ...model.zones, ...model.outdoor].flatMap(({ id, level, outline }) => {
      const ring = outline.map(inPlan);
      const size = ring.length < 3 ? 0 : Math.abs(area(ring));
      if (size >= smallest) return [];
      return found(
        'error',
        [id],
        ring.length === 0 ? [0, 0] : centroid(ring),
        elevationOf(subject, level),
        [
          `It covers ${size.toFixed(3)} m2; at least ${smallest} m2 was expected.`,
          'Delete it, or draw its outline again.',
        ],
        { words: 'Delete it', delete: [id] },
      );
    });
    return [...shortWalls, ...shortBeams, ...areas];
  },
};
