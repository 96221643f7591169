import { contains } from '@/core/geometry/polygon';
import type { Point } from '@/core/geometry/vector';
import { awayFromLine } from '@/core/kinds/lines';
import type { ModelLevel, StandingColumn, Subject } from '../subject';
import type { Found } from '../finding';
import { found, metres, type Rule } from '../rule';

/** Things meet within this, metres: in plan, and in height where slabs and beams lie between. */
const [reach, between] = [0.15, 0.8];

/** Whether an outline holds a point, or lies within reach of it. */
const holds = (outline: readonly Point[], p: Point): boolean =>
  contains(outline, p) || awayFromLine([...outline, outline[0]], p) <= reach;

/** Whether a column, a wall or a beam other than some elements carries a point at a height. */
function carries(subject: Subject, p: Point, z: number, not: string): boolean {
  const spans = (base: number, top: number): boolean => base - between <= z && z <= top + between;
  return (
    subject
      .columnsNear(p, reach)
      .some(({ column, outline, base, top }) => column.id !== not && spans(base, top) && holds(outline, p)) ||
    subject
      .wallsNear(p, reach)
      .some(({ wall, outline, base, top }) => wall.id !== not && spans(base, top) && holds(outline, p)) ||
    subject.beamsNear(p, reach).some(({ beam, outline }) => {
      const low = Math.min(beam.start[2], beam.end[2]);
      const high = Math.max(beam.start[2], beam.end[2]);
      return beam.id !== not && spans(low, high) && holds(outline, p);
    })
  );
}

/** Columns with nothing beneath them above the lowest level, and ends of beams that lie on nothing. */
export const unsupported: Rule = {
  name: 'unsupported',
  near: false,
  find(subject) {
    const { columns, model } = subject;
    const lowest = Math.min(...model.levels.map(({ elevation }) => elevation));
    const loose = columns.filter(({ column, base }) => {
      const at: Point = [column.position[0], column.position[1]];
      // What stands on the lowest level stands on the ground.
      return base > lowest + between && !carriedBelow(subject, at, base, column.id) && !isHeld(subject, at, base);
    });
    const grounded = loose.filter(({ column }) => isGround(subject.levels.get(column.level)));
    const floats = loose
      .filter((one) => !grounded.includes(one))
      .map(({ column, base }) =>
        found('error', [column.id], [column.position[0], column.position[1]], base, [
          `Nothing stands beneath this column at ${metres(base)}: no column, wall or beam within ${metres(reach)}.`,
          'Draw what carries it, move it onto what does, or say a support there.',
        ]),
      );
    const ends = subject.beams.flatMap(({ beam }) =>
      [beam.start, beam.end].flatMap(([x, y, z]) => {
        if ((beam.use ?? 'beam') !== 'beam' || carries(subject, [x, y], z, beam.id)) return [];
        if (isHeld(subject, [x, y], z)) return [];
        return found('error', [beam.id], [x, y], z, [
          `An end of this beam lies on nothing: no column, wall or beam within ${metres(reach)}.`,
          'Take it to what carries it, or draw that.',
        ]);
      }),
    );
    return [...floats, ...foundations(grounded), ...ends];
  },
};

/** Whether a level is that of the ground, on which columns stand on foundations beside a basement. */
const isGround = (level: ModelLevel | undefined): boolean =>
  level !== undefined && (level.kind === 'ground' || level.kind === 'foundation' || Math.abs(level.elevation) < reach);

/** Whether a support is said at a place. */
const isHeld = ({ model }: Subject, [x, y]: Point, z: number): boolean =>
  (model.supports ?? []).some(
    ({ position }) => Math.hypot(position[0] - x, position[1] - y) <= reach && Math.abs(position[2] - z) <= between,
  );

/** Columns on the ground beside a basement, in one finding: their foundations are not in the model. */
function foundations(grounded: readonly StandingColumn[]): Found[] {
  if (grounded.length === 0) return [];
  const [{ column, base }] = grounded;
  const one = grounded.length === 1;
  const ids = grounded.map(({ column: { id } }) => id);
  const told = found(
    'warning',
    ids,
    [column.position[0], column.position[1]],
    base,
    [
      `${grounded.length} ${one ? 'column stands' : 'columns stand'} on the ground at ${metres(base)}, above the lowest ` +
        'level, with nothing beneath and no support said.',
      'Say supports where their foundations are, at Tracing, Support, under columns in a box.',
    ],
    { words: 'Add missing supports', supports: true },
  );
  return [told];
}

/** Whether something beneath a column ends at its foot. */
function carriedBelow(subject: Subject, p: Point, z: number, not: string): boolean {
  const ends = (base: number, top: number): boolean => base < z - reach && Math.abs(top - z) <= between;
  return (
    subject
      .columnsNear(p, reach)
      .some(({ column, outline, base, top }) => column.id !== not && ends(base, top) && holds(outline, p)) ||
    subject.wallsNear(p, reach).some(({ outline, base, top }) => ends(base, top) && holds(outline, p)) ||
    subject
      .beamsNear(p, reach)
      .some(({ beam, outline }) => Math.abs(Math.max(beam.start[2], beam.end[2]) - z) <= between && holds(outline, p))
  );
}
