import type { Point } from '@/core/geometry/vector';
import type { Beam } from '@/core/kinds/beam';
import type { Column } from '@/core/kinds/column';
import type { ElementOf, Source } from '@/core/kinds/element';
import type { StandingTies } from '@/core/kinds/tie';
import type { Edit } from '@/core/model/edits';
import { levelsUp } from '@/core/model/levels';
import type { Model } from '@/core/model/model';
import type { LevelRow } from '@/core/model/state';
import { fail, ok, type Result } from '@/core/result';
import { shelved } from '../making/made';
import { soundEdit } from '../refusals';
import { describeElements } from '../words';
import { inPlan, type UprightPlane } from './plane';

/** A member in the plane of a section, by the ends of the line it runs along. */
export interface UprightMember {
  start: Point;
  end: Point;
  /** The line's drawing and entities; null where it was drawn by hand. */
  source: Source | null;
  /** What it is like beside its place. */
  like: Beam;
}

/** Heights closer to a level's than this are the level's, metres. */
const atLevel = 0.025;
/** Millionths of a millimetre: what is worked out comes out clean, and true to nine places. */
const clean = (metres: number): number => Number(metres.toFixed(9));
const none = 'There is no level yet. Add one on the ladder, so that it is known how high things lie.';

/** The storey that a height lies in: of the highest level below it, else of the lowest. */
export function storeyAt(levels: readonly LevelRow[], height: number): LevelRow | undefined {
  const below = levels.filter(({ elevation }) => elevation <= height + atLevel);
  return below[below.length - 1] ?? levels[0];
}

/** A member as it stands in the model: in the plan, with its ends below the top of its storey. */
export function memberRow(
  levels: readonly LevelRow[],
  plane: UprightPlane,
  { start, end, source, like }: UprightMember,
  id: string,
): ElementOf<'beam'> | null {
  const level = storeyAt(levels, Math.min(start[1], end[1]));
  if (level === undefined) return null;
  const top = level.elevation + level.height;
  const { ties: _, ...shape } = like;
  return {
    id,
    levelId: level.id,
    source,
    libraryId: null,
    kind: 'beam',
    shape: {
      ...shape,
      start: inPlan(plane, start),
      end: inPlan(plane, end),
      drop: clean(top - start[1]),
      endDrop: clean(top - end[1]),
    },
  };
}

/** Makes members where they lie in the plane of a section, at their true heights. */
export function makeMembers(
  model: Model,
  plane: UprightPlane,
  members: readonly UprightMember[],
  newId: () => string,
): Result<Edit> {
  const levels = levelsUp(model);
  if (levels.length === 0) return fail(none);
  const rows = members.flatMap((member) => memberRow(levels, plane, member, newId()) ?? []);
  if (rows.length === 0) return fail('There is nothing to make there.');
  const { elements, entries } = shelved(model, rows, newId);
  return soundEdit(model, `Draw ${describeElements(elements)} on a section`, elements, entries);
}

/** Sides of an upright member lean by no more than this share of its length. */
const leaning = 0.02;

/** Whether a line of the plane stands upright, as a column does. */
export const isUpright = ({ start, end }: { start: Point; end: Point }): boolean =>
  Math.abs(end[0] - start[0]) <= leaning * Math.abs(end[1] - start[1]);

/** A column to be made: the ends of its middle line, what it is like, and the lines that it was taken from. */
export interface UprightColumn {
  ends: readonly [Point, Point];
  like: Column;
  source: Source | null;
}

/** An end of something that stands: as its level has it where it is there, else tied to the nearest level below. */
function tieAt(levels: readonly LevelRow[], height: number, plain: number) {
  if (Math.abs(height - plain) <= atLevel) return undefined;
  const level = storeyAt(levels, height);
  return level === undefined ? undefined : { level: level.id, offset: clean(height - level.elevation) };
}

/** Makes columns, each from a point of the plane up or down to the height of another. */
export function makeUprightColumns(
  model: Model,
  plane: UprightPlane,
  columns: readonly UprightColumn[],
  newId: () => string,
): Result<Edit> {
  const levels = levelsUp(model);
  if (levels.length === 0) return fail(none);
  const rows: ElementOf<'column'>[] = [];
  for (const column of columns) {
    const row = columnRow(levels, plane, column, newId());
    if (!row.ok) return row;
    rows.push(row.value);
  }
  if (rows.length === 0) return fail('There is nothing to make there.');
  const { elements, entries } = shelved(model, rows, newId);
  return soundEdit(model, `Draw ${describeElements(elements)} on a section`, elements, entries);
}

function columnRow(
  levels: readonly LevelRow[],
  plane: UprightPlane,
  { ends, like, source }: UprightColumn,
  id: string,
): Result<ElementOf<'column'>> {
  const [low, high] = ends[0][1] <= ends[1][1] ? ends : [ends[1], ends[0]];
  const level = storeyAt(levels, low[1]);
  if (level === undefined) return fail(none);
  if (high[1] - low[1] < atLevel)
    return fail('Its foot and its head lie at one height. Click on another height for the second point.');
  const base = tieAt(levels, low[1], level.elevation);
  const top = tieAt(levels, high[1], level.elevation + level.height);
  const ties: StandingTies = { ...(base ? { base } : {}), ...(top ? { top } : {}) };
  const { ties: _, ...shape } = like;
  return ok({
    id,
    levelId: level.id,
    source,
    libraryId: null,
    kind: 'column',
    shape: {
      ...shape,
      position: inPlan(plane, ends[0]),
      ...(Object.keys(ties).length === 0 ? {} : { ties }),
    },
  });
}
