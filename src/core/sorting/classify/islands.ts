import { BoxIndex, boxOf } from '@/core/geometry/boxIndex';
import { cross, distance, dot, nearestOnPiece, subtract, type Point } from '@/core/geometry/vector';
import { defaultSettings } from '@/core/patterns/settings';
import type { AllLooks, Line } from './looks';

/** Lines touch within this, metres: gaps of careless drawing are bridged. */
const touching = 0.03;
/** Lines that hang together and on nothing else are so few. */
const fewest = 6;
/** The other face of a wall ends beside this one within this, metres. */
const even = 0.1;
/** Directions whose sine is below are one. */
const turned = 0.02;
/** Shorter ones are no rails, and nobody's other face, metres. */
const long = 1;
/** A line hangs on a wall by a short one, that meets it this far from its ends, metres. */
const hanger = { most: 0.65, within: 0.1 };

/**
 * Lines that hang on nothing, alone or a few in a row with a free end, or on a wall by the short one at their end:
 * pipes, rails, lines of what is above. Beside a wall they would make another of it. The faces of a wall that stands
 * free end beside one another, and are none.
 * @param sides straight sides of outlines, which lines may hang on
 * @returns their paths
 */
export function islands(looks: AllLooks, lines: readonly Line[], sides: readonly Line[]): Set<number> {
  const isDrawn = ({ path }: Line): boolean => looks[path]?.role !== 'grid' && looks[path]?.role !== 'ignore';
  const index = new BoxIndex([...lines, ...sides].filter(isDrawn), ({ a, b }) => boxOf([a, b], touching));
  const single = new Set(lines);
  const isOpen = (one: Line): boolean => looks[one.path] === null && single.has(one);
  const found = new Set<number>();
  const done = new Set<Line>();
  for (const line of lines) {
    if (!isOpen(line) || done.has(line)) continue;
    const row = rowFrom(line, index);
    for (const one of row) done.add(one);
    const loose = row.length > 0 ? row : hanging(line, index);
    // Short ones alone are jambs.
    if (!loose.every(isOpen) || loose.every(({ length }) => length < long)) continue;
    if (loose.some((one) => hasTwin(one, index))) continue;
    for (const { path } of loose) found.add(path);
  }
  return found;
}

/** A line and the short one that it hangs on another by; none where it does not. */
function hanging(line: Line, index: BoxIndex<Line>): Line[] {
  const by = hangsBy(line, index);
  return by === null ? [] : [line, by];
}

/** A line with what it touches, and what that touches; none where that is more than a few, or closes. */
function rowFrom(line: Line, index: BoxIndex<Line>): Line[] {
  const row = [line];
  for (const one of row) {
    for (const other of index.touching(boxOf([one.a, one.b], touching)))
      if (!row.includes(other) && touch(one, other)) row.push(other);
    if (row.length > fewest) return [];
  }
  // Lines drawn twice are one. What closes has as many joints as lines.
  const single = row.filter((one, i) => row.findIndex((other) => isSame(one, other)) === i);
  const joints = single.flatMap((one, i) => single.slice(i + 1).filter((other) => touch(one, other)));
  return joints.length < single.length ? row : [];
}

/** Whether an end of one of two lines lies on the other; lines that only cross do not touch. */
const touch = (p: Line, q: Line): boolean =>
  [p.a, p.b].some((end) => isOn(q, end)) || [q.a, q.b].some((end) => isOn(p, end));

const isOn = ({ a, b }: Line, end: Point): boolean => distance(nearestOnPiece(a, b, end), end) <= touching;

const isSame = (p: Line, q: Line): boolean =>
  [q.a, q.b].every((end) => isOn(p, end)) && Math.abs(p.length - q.length) <= 2 * touching;

/**
 * The short line at one end of a longer one by which it hangs on a third, where its other end is free; null where it
 * does not. A jamb that joins two faces meets their ends.
 */
function hangsBy(line: Line, index: BoxIndex<Line>): Line | null {
  const at = (end: Point, of: Line): Line[] =>
    index.around(end, touching).filter((other) => !isSame(of, other) && isOn(other, end));
  const [first, last] = [at(line.a, line), at(line.b, line)];
  const [by, ...more] = first.length === 0 ? last : first;
  if (Math.min(first.length, last.length) > 0 || by === undefined || !more.every((other) => isSame(by, other)))
    return null;
  if (by.length > Math.min(hanger.most, line.length / 2)) return null;
  const [far] = [by.a, by.b].filter((end) => !isOn(line, end));
  const isInside = ({ a, b }: Line): boolean => Math.min(distance(a, far), distance(b, far)) > hanger.within;
  return far !== undefined && at(far, by).some(isInside) ? by : null;
}

/** Whether beside both ends of a line, at a wall's distance, others end that run as it does. */
function hasTwin(line: Line, index: BoxIndex<Line>): boolean {
  if (line.length < long) return false;
  const u: Point = [(line.b[0] - line.a[0]) / line.length, (line.b[1] - line.a[1]) / line.length];
  const { least, most } = defaultSettings.wall;
  return [line.a, line.b].every((end) =>
    index.around(end, most).some((other) => {
      if (Math.abs(cross(u, subtract(other.b, other.a))) > turned * other.length) return false;
      return [other.a, other.b].some((at) => {
        const away = subtract(at, end);
        const aside = Math.abs(cross(u, away));
        return Math.abs(dot(u, away)) <= even && aside >= least && aside <= most;
      });
    }),
  );
}
