import { apply, compose, type Transform } from '@/core/geometry/transform';
import { distance, subtract, type Point } from '@/core/geometry/vector';
import type { ElementRow } from '@/core/kinds/element';
import { fail, type Result } from '@/core/result';
import type { Edit } from '@/core/model/edits';
import type { Model } from '@/core/model/model';
import { carried, type Joints } from './carried';
import { soundEdit } from './refusals';
import { describeElements } from './words';

/** A shift as a map. */
export const shift = ([dx, dy]: Point): Transform => [1, 0, 0, 1, dx, dy];

/** A turn about a point as a map. @param angle radians, counter-clockwise */
export function turn(about: Point, angle: number): Transform {
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  return compose(shift(about), compose([c, s, -s, c, 0, 0], shift([-about[0], -about[1]])));
}

/** A mirror in the line through two points as a map. */
export function mirror(a: Point, b: Point): Transform {
  const [dx, dy] = subtract(b, a);
  const square = dx * dx + dy * dy;
  const [c, s] = [(dx * dx - dy * dy) / square, (2 * dx * dy) / square];
  const [x, y] = apply([c, s, s, -c, 0, 0], a);
  return [c, s, s, -c, a[0] - x, a[1] - y];
}

const chosenOf = (model: Model, ids: Iterable<string>): ElementRow[] =>
  [...ids].flatMap((id) => model.element[id] ?? []);

/** An edit that carries elements by a map, with a word for what it does. */
export function carryElements(
  model: Model,
  verb: string,
  ids: Iterable<string>,
  map: Transform,
  joints: Joints = 'joined',
): Result<Edit> {
  const chosen = [...ids];
  const what = describeElements(chosenOf(model, chosen));
  return soundEdit(model, `${verb} ${what}`, carried(model, chosen, map, joints));
}

/** Moves elements by a shift in plan, metres. */
export const moveElements = (model: Model, ids: Iterable<string>, by: Point, joints?: Joints): Result<Edit> =>
  carryElements(model, 'Move', ids, shift(by), joints);

/** Turns elements about a point. @param angle radians, counter-clockwise */
export const turnElements = (model: Model, ids: Iterable<string>, about: Point, angle: number): Result<Edit> =>
  carryElements(model, 'Turn', ids, turn(about, angle));

/** Mirrors elements in the line through two points. */
export function mirrorElements(model: Model, ids: Iterable<string>, a: Point, b: Point): Result<Edit> {
  if (distance(a, b) === 0) return fail('The two points of the mirror are one. Click two points apart.');
  return carryElements(model, 'Mirror', ids, mirror(a, b));
}
