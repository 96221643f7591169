import type { Point } from '@/core/geometry/vector';
import { alongLine, lengthOfLine } from '@/core/kinds/lines';
import type { ModelOpening, StandingWall } from '../subject';
import { found, metres, type Rule } from '../rule';

/** Ends are rounded: openings may reach this far beyond, metres. */
const rounding = 0.001;

/** Openings without a wall, beyond or over its end or its top, and over one another. */
export const openings: Rule = {
  name: 'openings',
  near: true,
  find({ model, walls }) {
    const known = new Set(walls.map(({ wall }) => wall.id));
    const lost = model.openings
      .filter(({ wall }) => !known.has(wall))
      .map(({ id, wall, kind }) =>
        found(
          'error',
          [id],
          [0, 0],
          0,
          [
            `A ${kind} is in wall ${wall || '(none)'}, which the model has not got.`,
            'Put it into a wall, or delete it.',
          ],
          { words: 'Delete it', delete: [id] },
        ),
      );
    return [...lost, ...walls.flatMap((standing) => [...beyond(standing), ...overlapping(standing)])];
  },
};

const placeOf = ({ line }: StandingWall, at: number): Point => alongLine(line, at).point;

function beyond(standing: StandingWall) {
  const { wall, line, base, top, openings: own } = standing;
  const length = lengthOfLine(line);
  return own.flatMap(({ id, kind, offset, width, sill, height }) => {
    const at = placeOf(standing, offset + width / 2);
    if (offset < -rounding || offset + width > length + rounding)
      return found('error', [id, wall.id], at, base, [
        `A ${kind} reaches from ${metres(offset)} to ${metres(offset + width)} along a wall that is ${metres(length)} long.`,
        'Move it into the wall, make it narrower, or make the wall longer.',
      ]);
    if (base + sill + height > top + rounding)
      return found('error', [id, wall.id], at, base + sill, [
        `A ${kind} ends ${metres(sill + height)} above the foot of a wall that is ${metres(top - base)} high.`,
        'Give it a lower head, or the wall a greater height.',
      ]);
    return [];
  });
}

function overlapping(standing: StandingWall) {
  const sorted = [...standing.openings].sort((a, b) => a.offset - b.offset);
  const over = (a: ModelOpening, b: ModelOpening): boolean =>
    b.offset < a.offset + a.width - rounding && b.sill < a.sill + a.height && a.sill < b.sill + b.height;
  return sorted.flatMap((a, i) =>
    sorted
      .slice(i + 1)
      .filter((b) => over(a, b))
      .map((b) =>
        found('error', [a.id, b.id], placeOf(standing, b.offset), standing.base + b.sill, [
          `Two openings of one wall lie over one another for ${metres(Math.min(a.offset + a.width, b.offset + b.width) - b.offset)}.`,
          'Move one of them, or delete it.',
        ]),
      ),
  );
}
