import { direction, dot, subtract, type Point } from '@/core/geometry/vector';
import type { ElementOf, Source } from '@/core/kinds/element';
import { alongWall, type Opening } from '@/core/kinds/opening';
import { tiesOf, type Tie } from '@/core/kinds/tie';
import type { Edit } from '@/core/model/edits';
import type { Model } from '@/core/model/model';
import { fail, ok, type Result } from '@/core/result';
import { shelved } from '../making/made';
import { soundEdit } from '../refusals';
import { describeElements } from '../words';
import { fromPlan, inPlan, seenWithin, type UprightPlane } from './plane';

/** A window or a door in the plane of a section: two opposite corners, what it is like, and its lines. */
export interface UprightOpening {
  corners: readonly [Point, Point];
  like: Opening;
  source: Source | null;
}

/** A wall runs along the plane where the cosine between them is at least this, 2.6 degrees. */
const alongPlane = 0.999;
/** Ends and heads are drawn on faces: they may reach this far beyond, metres. */
const rounding = 0.005;
/** Millionths of a millimetre: what is worked out comes out clean. */
const clean = (metres: number): number => Number(metres.toFixed(9)) + 0;

/** How far a wall lies from the plane, metres; null where it does not run along it, or is not seen in it. */
function besidePlane({ shape: { start, end, bulge } }: ElementOf<'wall'>, plane: UprightPlane): number | null {
  const d = subtract(end, start);
  const size = Math.hypot(...d);
  if (bulge !== 0 || size === 0 || Math.abs(dot(d, direction(plane.turning))) < alongPlane * size) return null;
  const away = Math.max(...[start, end].map((p) => Math.abs(fromPlan(plane, p).off)));
  return away <= seenWithin ? away : null;
}

/** A wall with the elevations of its foot and its head; one that ends under a roof has those of its level. */
interface Standing {
  wall: ElementOf<'wall'>;
  base: number;
  top: number;
}

function standing(model: Model, wall: ElementOf<'wall'>): Standing[] {
  const level = wall.levelId === null ? undefined : model.level[wall.levelId];
  if (level === undefined) return [];
  const { base: foot, top: head } = tiesOf(wall);
  const tied = (tie: Tie | undefined): number | null =>
    typeof tie === 'object' && model.level[tie.level] ? model.level[tie.level].elevation + tie.offset : null;
  const base = tied(foot) ?? level.elevation;
  const plain = wall.shape.height === null ? level.elevation + level.height : base + wall.shape.height;
  return [{ wall, base, top: tied(head) ?? plain }];
}

/** The walls that stand in the plane, the nearest first. */
function wallsInPlane(model: Model, plane: UprightPlane): Standing[] {
  const near = (Array.from(model.ofKind('wall')) as ElementOf<'wall'>[]).flatMap((wall) => {
    const away = besidePlane(wall, plane);
    return away === null ? [] : [{ wall, away }];
  });
  return near.sort((a, b) => a.away - b.away).flatMap(({ wall }) => standing(model, wall));
}

/** The opening as it lies in a wall; null where it reaches beyond the wall. */
function within({ wall: { id, shape }, base, top }: Standing, plane: UprightPlane, drawn: UprightOpening) {
  const [a, b] = drawn.corners;
  const ends = [a, b].map((p) => alongWall(shape, inPlan(plane, p)));
  const [from, to] = [Math.min(...ends), Math.max(...ends)];
  const [low, high] = [Math.min(a[1], b[1]), Math.max(a[1], b[1])];
  const whole = Math.hypot(...subtract(shape.end, shape.start));
  const fits = from >= -rounding && to <= whole + rounding && low >= base - rounding && high <= top + rounding;
  if (!fits) return null;
  const offset = Math.max(0, from);
  const sill = Math.max(0, low - base);
  return {
    ...drawn.like,
    wall: id,
    offset: clean(offset),
    width: clean(Math.min(to, whole) - offset),
    sill: clean(sill),
    height: clean(Math.min(high, top) - base - sill),
  };
}

const nowhere =
  `No straight wall that runs along this section within ${seenWithin} m of it holds all of that. ` +
  'Draw it within one wall and one storey, or put the section onto its line at Datum.';

/** Makes windows and doors where they are drawn face on, each in the nearest wall that holds all of it. */
export function makeUprightOpenings(
  model: Model,
  plane: UprightPlane,
  drawn: readonly UprightOpening[],
  newId: () => string,
): Result<Edit> {
  const walls = wallsInPlane(model, plane);
  const rows: ElementOf<'opening'>[] = [];
  for (const one of drawn) {
    const [[x1, y1], [x2, y2]] = one.corners;
    if (Math.abs(x2 - x1) < rounding || Math.abs(y2 - y1) < rounding)
      return fail('It has no width or no height. Give two opposite corners.');
    const row = openingRow(plane, walls, one, newId());
    if (row.ok) rows.push(row.value);
    // One that is drawn has to lie in a wall; of many that are taken those count that do.
    else if (drawn.length === 1) return row;
  }
  if (rows.length === 0) return fail(nowhere);
  const left = drawn.length - rows.length;
  const { elements, entries } = shelved(model, rows, newId);
  const words = left === 0 ? '' : `; ${left} lie in no wall`;
  return soundEdit(model, `Draw ${describeElements(elements)} on a section${words}`, elements, entries);
}

function openingRow(
  plane: UprightPlane,
  walls: readonly Standing[],
  one: UprightOpening,
  id: string,
): Result<ElementOf<'opening'>> {
  for (const wall of walls) {
    const shape = within(wall, plane, one);
    const { levelId } = wall.wall;
    if (shape !== null) return ok({ id, levelId, source: one.source, libraryId: null, kind: 'opening', shape });
  }
  return fail(nowhere);
}
