import { dropsOf, otherSide, type Beam } from '@/core/kinds/beam';
import type { ElementRow } from '@/core/kinds/element';
import { radians, subtract, type Point } from '@/core/geometry/vector';
import type { Edit } from '@/core/model/edits';
import type { Model } from '@/core/model/model';
import { fail, type Result } from '@/core/result';
import { soundEdit } from './refusals';
import { describeElements } from './words';

/** A member that runs the other way: what was at its start is at its end, and what was left of it is right of it. */
export function turnedRound(beam: Beam): Beam {
  const { start, end, ties, angle, justification } = beam;
  const [from, to] = dropsOf(beam);
  const swapped = {
    ...(ties?.end ? { start: ties.end } : {}),
    ...(ties?.start ? { end: ties.start } : {}),
  };
  return {
    ...beam,
    start: end,
    end: start,
    ...(beam.drop === undefined && beam.endDrop === undefined ? {} : { drop: to }),
    ...(beam.endDrop === undefined ? {} : { endDrop: from }),
    ...(justification === undefined ? {} : { justification: otherSide[justification] }),
    ...(angle ? { angle: -angle } : {}),
    ...(ties === undefined ? {} : { ties: swapped }),
  };
}

/** A member this close to square to the wanted direction is turned by the one to its left instead: of one degree. */
const square = Math.sin(radians(1));

/** Whether a line runs against a direction; of one that runs square to it the left of the direction decides. */
function runsAgainst([dx, dy]: Point, direction: number): boolean {
  const [c, s] = [Math.cos(direction), Math.sin(direction)];
  const length = Math.hypot(dx, dy) || 1;
  const along = (dx * c + dy * s) / length;
  return Math.abs(along) > square ? along < 0 : -dx * s + dy * c < 0;
}

const membersOf = (model: Model, ids: Iterable<string>) =>
  [...ids].flatMap((id) => {
    const element = model.element[id];
    return element?.kind === 'beam' ? [element] : [];
  });

/** Turns members round, so that start and end change places. */
export function turnRound(model: Model, ids: Iterable<string>): Result<Edit> {
  const rows = membersOf(model, ids).map((row): ElementRow => ({ ...row, shape: turnedRound(row.shape) }));
  if (rows.length === 0) return fail('No beam, brace or member is selected: only they run from a start to an end.');
  return soundEdit(model, `Turn ${describeElements(rows)} round`, rows);
}

/** Lets all members run along a direction, or to its left. @param direction radians, counter-clockwise from +x */
export function runAlike(model: Model, ids: Iterable<string>, direction: number): Result<Edit> {
  const members = membersOf(model, ids);
  const rows = members
    .filter(({ shape }) => runsAgainst(subtract(shape.end, shape.start), direction))
    .map((row): ElementRow => ({ ...row, shape: turnedRound(row.shape) }));
  if (members.length === 0) return fail('No beam, brace or member is selected: only they run from a start to an end.');
  if (rows.length === 0) return fail('They run alike already.');
  return soundEdit(model, `Let ${describeElements(rows)} run alike`, rows);
}
