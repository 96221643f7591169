import { contains } from '@/core/geometry/polygon';
import { distance, type Point } from '@/core/geometry/vector';
import { alongLine, awayFromLine, lengthOfLine } from '@/core/kinds/lines';
import { sectionSize } from '@/core/kinds/section';
import { leastBy } from '@/core/lists';
import { found, metres, type Rule } from '../rule';
import { inPlan, type StandingColumn, type StandingWall, type Subject } from '../subject';

/** What ends so near below a foot carries it, metres: slabs and build-ups lie between. */
const between = 0.8;
/** Columns whose axes are further apart than the first are others; nearer than the second they are one line, metres. */
const [apart, oneLine] = [0.6, 0.02];
/** A wall is asked at places so far apart, metres; beneath it something has to lie within this of its middle. */
const [step, beneath] = [0.5, 0.3];
/** More of a wall than this over nothing is told, share. */
const share = 0.3;

const endsAt = (top: number, base: number): boolean => top <= base + oneLine && base - top <= between;

/** How far the axes of two columns lie apart beyond what one size needs to be flush with the other, metres. */
function offOf({ column: upper }: StandingColumn, { column: lower }: StandingColumn): number {
  const [a, b] = [sectionSize(upper.section), sectionSize(lower.section)];
  const flush = Math.hypot(Math.abs(a.width - b.width) / 2, Math.abs(a.depth - b.depth) / 2);
  return distance(inPlan(upper.position), inPlan(lower.position)) - flush;
}

/** Columns that do not stand on the column beneath, though one is there. */
const shifted = (subject: Subject) =>
  subject.columns.flatMap((one) => {
    const at = inPlan(one.column.position);
    const below = subject
      .columnsNear(at, apart)
      .filter((other) => other.column.id !== one.column.id && other.base < one.base && endsAt(other.top, one.base));
    const next = leastBy(below, (other) => distance(at, inPlan(other.column.position)));
    if (next === null) return [];
    const off = offOf(one, next);
    if (off <= oneLine || distance(at, inPlan(next.column.position)) > apart) return [];
    return [
      found('warning', [one.column.id, next.column.id], at, one.base, [
        `This column stands ${metres(distance(at, inPlan(next.column.position)))} off the axis of the column beneath it.`,
        'Put the two over one another, or accept that their line is stepped.',
      ]),
    ];
  });

/** Whether something that carries ends beneath a point of a wall. */
function isCarried(subject: Subject, p: Point, { wall, base }: StandingWall): boolean {
  const near = (outline: readonly Point[]): boolean =>
    contains(outline, p) || awayFromLine([...outline, outline[0]], p) <= beneath;
  return (
    subject
      .wallsNear(p, beneath)
      .some((other) => other.wall.id !== wall.id && endsAt(other.top, base) && near(other.outline)) ||
    subject
      .beamsNear(p, beneath)
      .some(({ beam, outline }) => Math.abs(Math.max(beam.start[2], beam.end[2]) - base) <= between && near(outline)) ||
    subject.columnsNear(p, beneath).some((other) => endsAt(other.top, base) && near(other.outline))
  );
}

/** Walls that carry, over storeys, with neither wall nor beam beneath much of them. */
const hanging = (subject: Subject) => {
  const lowest = Math.min(...subject.model.levels.map(({ elevation }) => elevation));
  return subject.walls.flatMap((one) => {
    const { wall, base, line } = one;
    const onGround = subject.levels.get(wall.level)?.kind === 'ground' || base <= lowest + between;
    if (wall.bearing !== true || onGround) return [];
    const length = lengthOfLine(line);
    const count = Math.max(1, Math.round(length / step));
    const points = Array.from({ length: count }, (_, i) => alongLine(line, ((i + 0.5) * length) / count).point);
    const bare = points.filter((p) => !isCarried(subject, p, one));
    if (bare.length <= share * count) return [];
    return [
      found('warning', [wall.id], bare[0], base, [
        `This wall carries, and ${metres((bare.length * length) / count)} of its ${metres(length)} stand on no wall, beam or column.`,
        'Draw what carries it beneath, say that it does not carry, or accept that the slab takes it.',
      ]),
    ];
  });
};

/** Each storey against the one below: columns that do not stand on one another, walls without walls. */
export const storeys: Rule = {
  name: 'storeys',
  near: true,
  find: (subject) => [...shifted(subject), ...hanging(subject)],
};
