import { degrees, direction, radians, type Point } from '@/core/geometry/vector';
import { outlinesOf } from '@/core/kinds/kinds';
import type { ElementOf, ElementRow, Source } from '@/core/kinds/element';
import type { Roof } from '@/core/kinds/roof';
import type { Edit } from '@/core/model/edits';
import { levelsUp } from '@/core/model/levels';
import type { Model } from '@/core/model/model';
import { fail, ok, type Result } from '@/core/result';
import { shelved } from '../making/made';
import { soundEdit } from '../refusals';
import { describeElements } from '../words';
import { storeyAt } from './making';
import { fromPlan, onPlane, type UprightPlane } from './plane';

/** A roof plane in a section: its underside from point to point, what it is like, and its line. */
export interface UprightRoof {
  ends: readonly [Point, Point];
  like: Roof;
  source: Source | null;
}

/** Shorter is none, metres; steeper is a wall, degrees. */
const [shortest, steepest] = [0.05, 85];
/** Millionths of a millimetre: what is worked out comes out clean. */
const clean = (metres: number): number => Number(metres.toFixed(9)) + 0;

/** Flatter lines are floors and ceilings, as a rise over the run: one degree. */
const flattest = 0.0175;

/** Whether a line of the plane rises as a roof plane does. */
export function isSlope({ start, end }: { start: Point; end: Point }): boolean {
  const [run, rise] = [Math.abs(end[0] - start[0]), Math.abs(end[1] - start[1])];
  return run >= shortest && rise >= flattest * run && rise <= Math.tan(radians(steepest)) * run;
}

/** What a roof lies over. */
const covered: readonly ElementRow['kind'][] = ['wall', 'column', 'slab', 'beam'];

/**
 * How far across the plane reaches what stands beneath a slope: the walls, columns, beams and slabs of its storey and
 * of the one below it that lie over the slope's stretch. Null where nothing does.
 */
function across(model: Model, plane: UprightPlane, [from, to]: readonly [number, number], height: number) {
  const levels = levelsUp(model);
  const at = levels.findIndex(({ id }) => id === storeyAt(levels, height)?.id);
  const near = new Set(levels.slice(Math.max(0, at - 1), at + 1).map(({ id }) => id));
  let [low, high] = [Infinity, -Infinity];
  for (const element of Object.values(model.element)) {
    if (!covered.includes(element.kind) || element.levelId === null || !near.has(element.levelId)) continue;
    const corners = outlinesOf(element, null).flatMap((ring) => ring.map((p) => fromPlan(plane, p)));
    const alongs = corners.map(({ along }) => along);
    if (corners.length === 0 || Math.max(...alongs) < from || Math.min(...alongs) > to) continue;
    for (const { off } of corners) [low, high] = [Math.min(low, off), Math.max(high, off)];
  }
  return low < high ? { low, high } : null;
}

/** A point of the plan that lies so far along the plane and to its left. */
function beside(plane: UprightPlane, along: number, off: number): Point {
  const [x, y] = onPlane(plane, [along, 0]);
  const [ux, uy] = direction(plane.turning);
  return [clean(x - off * uy), clean(y + off * ux)];
}

function roofRow(
  model: Model,
  plane: UprightPlane,
  { ends, like, source }: UprightRoof,
  id: string,
): Result<ElementOf<'roof'>> {
  const [low, high] = ends[0][1] <= ends[1][1] ? ends : [ends[1], ends[0]];
  const run = Math.abs(high[0] - low[0]);
  const slope = degrees(Math.atan2(high[1] - low[1], run));
  if (run < shortest || slope > steepest)
    return fail(
      `Between these points it rises by ${slope.toFixed(1)} degrees over ${run.toFixed(2)} m; a roof plane has at most ` +
        `${steepest} degrees and at least ${shortest} m.`,
    );
  const level = storeyAt(levelsUp(model), low[1]);
  if (level === undefined)
    return fail('There is no level yet. Add one on the ladder, so that it is known how high it lies.');
  const [from, to] = [Math.min(low[0], high[0]), Math.max(low[0], high[0])];
  const wide = across(model, plane, [from, to], low[1]);
  if (wide === null)
    return fail(
      'Nothing of the model stands beneath it, so that it is not known how far it goes across the section. ' +
        'Read or draw the walls of that storey first, or draw the roof plane in the plan.',
    );
  const outline = [
    beside(plane, from, wide.low),
    beside(plane, to, wide.low),
    beside(plane, to, wide.high),
    beside(plane, from, wide.high),
  ];
  const turned = degrees(plane.turning) + (high[0] >= low[0] ? 0 : 180);
  const shape: Roof = {
    ...like,
    outline,
    slope: clean(slope),
    direction: turned,
    eaves: clean(low[1] - level.elevation),
  };
  return ok({ id, levelId: level.id, source, libraryId: null, kind: 'roof', shape });
}

/** Makes roof planes by their slopes in a section; each goes as far across as what stands beneath it. */
export function makeUprightRoofs(
  model: Model,
  plane: UprightPlane,
  roofs: readonly UprightRoof[],
  newId: () => string,
): Result<Edit> {
  const rows: ElementOf<'roof'>[] = [];
  for (const roof of roofs) {
    const row = roofRow(model, plane, roof, newId());
    if (!row.ok) return row;
    rows.push(row.value);
  }
  if (rows.length === 0) return fail('There is nothing to make there.');
  const { elements, entries } = shelved(model, rows, newId);
  return soundEdit(model, `Draw ${describeElements(elements)} on a section`, elements, entries);
}
