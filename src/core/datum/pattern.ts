import { leastOf, mostOf, pushAll } from '@/core/lists';
import type { GridLine } from '@/core/kinds/grid';
import { fail, ok, type Result } from '@/core/result';
import { degrees, distance, type Point } from '@/core/geometry/vector';
import { registerByGrid, type Registration } from './register';

type Straight = Extract<GridLine, { kind: 'line' }>;

/** A fit by the pattern of spacings: the registration, and whether left and right had to be exchanged first. */
export interface PatternFit {
  registration: Registration;
  mirrored: boolean;
}

/** Lines that fall within this of one another are the same line, metres. */
const same = 0.02;
/** Directions within this are one, radians. */
const parallel = 0.004;
/**
 * The best way has to be this many lines better than any other; otherwise nobody can tell. One that explains every line
 * of either grid may be closer.
 */
const margin = 1.5;
const marginOfWhole = 0.9;

/**
 * Fits a grid onto another by its spacings alone, whatever its lines are called: every turning that lays a family of
 * lines along one of the other
 * grid's is tried with every shift that brings lines onto lines; a way counts by the lines that meet, less half of
 * those that should and do not.
 * Mirrored ways count only where no other explains the lines as well. A grid that fits in several ways is refused.
 */
export function registerByPattern(from: readonly GridLine[], to: readonly GridLine[]): Result<PatternFit> {
  const there = familiesOf(to);
  if (there.length < 2)
    return fail(
      'The grid to fit onto has lines in one direction only; two directions are needed. Fit by picked points.',
    );
  const found: Way[] = [];
  for (const mirrored of [false, true]) {
    const lines = mirrored ? from.map(flip) : from;
    const here = familiesOf(lines);
    if (here.length < 2)
      return fail(
        'The drawing has grid lines in one direction only; two directions are needed. Check the ' +
          'role of its grid layers, or fit by picked points.',
      );
    pushAll(found, waysOf(here, there, mirrored));
  }
  const plain = best(found.filter(({ mirrored }) => !mirrored));
  const turnedOver = best(found.filter(({ mirrored }) => mirrored));
  const chosen = turnedOver && (!plain || turnedOver.quality >= plain.quality + margin) ? turnedOver : plain;
  if (!chosen || chosen.pairs.length < 4)
    return fail(
      `No more than ${chosen?.pairs.length ?? 0} grid lines can be laid onto one another by ` +
        'their spacings; at least four are needed, two each way. Check the unit of both ' +
        'drawings, or fit by picked points.',
    );
  const lines = Math.min(...[from, to].map((all) => all.filter(({ kind }) => kind === 'line').length));
  const needed = chosen.quality > lines - 0.5 ? marginOfWhole : margin;
  const rival = best(found.filter((way) => way.mirrored === chosen.mirrored && differs(way, chosen)));
  if (rival && rival.quality > chosen.quality - needed)
    return fail(
      `The spacings fit in several ways, for example ${differenceWords(rival, chosen)}: they are too regular to tell. ` +
        'Fit by labels or by picked points.',
    );
  const names = new Map(chosen.pairs.map(({ here, there: other }) => [here, other.label]));
  const renamed = (chosen.mirrored ? from.map(flip) : from).map((line, i): GridLine => ({
    ...line,
    label: names.get(i) ?? `\u0000${i}`,
  }));
  const result = registerByGrid(renamed, to);
  return result.ok ? ok({ registration: result.value, mirrored: chosen.mirrored }) : result;
}

const flip = (line: GridLine): GridLine =>
  line.kind === 'line'
    ? { ...line, start: [-line.start[0], line.start[1]], end: [-line.end[0], line.end[1]] }
    : {
        ...line,
        centre: [-line.centre[0], line.centre[1]],
        startAngle: 180 - line.endAngle,
        endAngle: 180 - line.startAngle,
      };

/** Lines of one direction: the angle of their normal, and how far along it each lies. */
interface Family {
  normal: number;
  lines: { index: number; label: string; at: number }[];
}

function familiesOf(lines: readonly GridLine[]): Family[] {
  const families: Family[] = [];
  lines.forEach((line, index) => {
    if (line.kind !== 'line') return;
    const angle = normalOf(line);
    let family = families.find(({ normal }) => Math.abs(Math.sin(normal - angle)) < parallel);
    if (!family) {
      family = { normal: angle, lines: [] };
      families.push(family);
    }
    family.lines.push({ index, label: line.label, at: along(family.normal, line.start, line.end) });
  });
  return families.filter(({ lines: members }) => members.length >= 2).sort((a, b) => b.lines.length - a.lines.length);
}

const normalOf = ({ start, end }: Straight): number => Math.atan2(end[0] - start[0], start[1] - end[1]);
const along = (normal: number, [x1, y1]: Point, [x2, y2]: Point): number =>
  ((x1 + x2) / 2) * Math.cos(normal) + ((y1 + y2) / 2) * Math.sin(normal);

interface Way {
  turning: number;
  shift: Point;
  mirrored: boolean;
  quality: number;
  pairs: { here: number; there: { label: string } }[];
}

const best = (ways: readonly Way[]): Way | null =>
  ways.reduce<Way | null>((a, b) => (a === null || b.quality > a.quality ? b : a), null);
const differsInTurning = (a: Way, b: Way): boolean => Math.abs(Math.sin((a.turning - b.turning) / 2)) > 0.01;
/** How two ways to fit differ, in words. */
const differenceWords = (a: Way, b: Way): string =>
  differsInTurning(a, b)
    ? `turned by ${degrees(b.turning).toFixed(0)}\u00b0 and by ${degrees(a.turning).toFixed(0)}\u00b0`
    : `${distance(a.shift, b.shift).toFixed(2)} m apart`;
const differs = (a: Way, b: Way): boolean =>
  differsInTurning(a, b) || Math.hypot(a.shift[0] - b.shift[0], a.shift[1] - b.shift[1]) > 2 * same;

/** More families than these, by their count of lines, are not tried. */
const mostFamilies = 6;

/** All ways to lay two families that cross onto two of the other grid's. */
function waysOf(here: readonly Family[], there: readonly Family[], mirrored: boolean): Way[] {
  const ways: Way[] = [];
  const tried = here.slice(0, mostFamilies);
  for (const [i, first] of tried.entries()) {
    for (const second of tried.slice(i + 1)) {
      if (Math.abs(Math.sin(second.normal - first.normal)) < 0.1) continue;
      for (const target of there.slice(0, mostFamilies)) {
        for (const half of [0, Math.PI]) {
          const turning = target.normal - first.normal + half;
          const other = there.find(({ normal }) => Math.abs(Math.sin(second.normal + turning - normal)) < parallel);
          if (!other) continue;
          for (const a of shiftsOf(first, target, turning))
            for (const b of shiftsOf(second, other, turning))
              ways.push(wayOf(here, there, turning, meeting([target.normal, a], [other.normal, b]), mirrored));
        }
      }
    }
  }
  return ways;
}

/** The shifts along a family's normal that bring most of its lines onto the other's, at most eight. */
function shiftsOf(family: Family, target: Family, turning: number): number[] {
  const sign = Math.cos(family.normal + turning - target.normal) < 0 ? -1 : 1;
  const shifts = target.lines
    .flatMap(({ at }) => family.lines.map((line) => at - sign * line.at))
    .sort((a, b) => a - b);
  const groups: { shift: number; count: number }[] = [];
  for (let i = 0; i < shifts.length;) {
    let j = i + 1;
    while (j < shifts.length && shifts[j] - shifts[i] < same) j += 1;
    groups.push({ shift: shifts[(i + j - 1) >> 1], count: j - i });
    i = j;
  }
  return groups
    .sort((a, b) => b.count - a.count)
    .slice(0, 8)
    .map(({ shift }) => shift);
}

/** The point at a distance along each of two normals. */
function meeting([n1, d1]: [number, number], [n2, d2]: [number, number]): Point {
  const det = Math.sin(n2 - n1);
  return [(d1 * Math.sin(n2) - d2 * Math.sin(n1)) / det, (d2 * Math.cos(n1) - d1 * Math.cos(n2)) / det];
}

/** What a turning and a shift come to over all families. */
function wayOf(
  here: readonly Family[],
  there: readonly Family[],
  turning: number,
  shift: Point,
  mirrored: boolean,
): Way {
  const pairs: Way['pairs'] = [];
  let missed = 0;
  for (const family of here) {
    const target = there.find(({ normal }) => Math.abs(Math.sin(family.normal + turning - normal)) < parallel);
    if (!target) continue;
    const sign = Math.cos(family.normal + turning - target.normal) < 0 ? -1 : 1;
    const offset = shift[0] * Math.cos(target.normal) + shift[1] * Math.sin(target.normal);
    const placed = family.lines.map(({ index, at }) => ({ index, at: sign * at + offset }));
    const matched = placed.flatMap(({ index, at }) => {
      const other = target.lines.find((line) => Math.abs(line.at - at) < same);
      return other ? [{ here: index, there: other, at }] : [];
    });
    pushAll(pairs, matched);
    if (matched.length < 2) continue;
    // Between the outermost lines that meet, every line of either grid should have its other.
    const [low, high] = [leastOf(matched.map(({ at }) => at)) - same, mostOf(matched.map(({ at }) => at)) + same];
    const inside = ({ at }: { at: number }) => at > low && at < high;
    missed += placed.filter(inside).length + target.lines.filter(inside).length - 2 * matched.length;
  }
  return {
    turning: Math.atan2(Math.sin(turning), Math.cos(turning)),
    shift,
    mirrored,
    quality: pairs.length - missed / 2,
    pairs,
  };
}
