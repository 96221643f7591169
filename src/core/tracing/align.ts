import { compose } from '@/core/geometry/transform';
import { footOnLine, subtract, type Point } from '@/core/geometry/vector';
import type { ElementRow } from '@/core/kinds/element';
import { anchorOf } from '@/core/kinds/kinds';
import type { Edit } from '@/core/model/edits';
import type { Model } from '@/core/model/model';
import { fail, type Result } from '@/core/result';
import { carried } from './carried';
import { shift, turn } from './moved';
import type { EndlessLine } from './reach';
import { soundEdit } from './refusals';
import { lineOf } from './restrung';
import { describeElements } from './words';

/** Lines within this of a direction are turned into it when they are aligned, radians (ten degrees). */
const nearlyAlong = Math.PI / 18;

/** The smallest turn from one direction to another, either way round; within a quarter turn. */
function leastTurn(from: Point, to: Point): number {
  const angle = Math.atan2(to[1], to[0]) - Math.atan2(from[1], from[0]);
  return angle - Math.PI * Math.round(angle / Math.PI);
}

/** The map that carries an element onto an endless line: its middle, and its direction where it nearly has it. */
function ontoLine(element: ElementRow, to: EndlessLine) {
  const at = anchorOf(element);
  if (at === null) return null;
  const line = lineOf(element);
  const by = line === null ? 0 : leastTurn(subtract(line.end, line.start), subtract(to[1], to[0]));
  const turned = turn(at, Math.abs(by) <= nearlyAlong ? by : 0);
  return compose(shift(subtract(footOnLine(to[0], to[1], at), at)), turned);
}

/**
 * Puts elements onto an endless line, each by the shortest way; walls and beams that nearly run along it are turned
 * into it. What is joined to them follows.
 */
export function alignElements(model: Model, ids: Iterable<string>, to: EndlessLine): Result<Edit> {
  if (to[0][0] === to[1][0] && to[0][1] === to[1][1]) return fail('The line to align to has no length.');
  const chosen = [...ids].flatMap((id) => model.element[id] ?? []).filter(({ kind }) => kind !== 'opening');
  const rows = new Map<string, ElementRow>();
  for (const element of chosen) {
    const map = ontoLine(element, to);
    if (map === null) continue;
    for (const row of carried(model, [element.id], map, 'torn')) rows.set(row.id, row);
  }
  for (const row of followers(model, chosen, rows, to)) rows.set(row.id, row);
  return soundEdit(model, `Align ${describeElements(chosen)}`, [...rows.values()]);
}

/** What shares a node with what was aligned, with that end where the node is now. */
function followers(
  model: Model,
  chosen: readonly ElementRow[],
  rows: ReadonlyMap<string, ElementRow>,
  to: EndlessLine,
): ElementRow[] {
  const more = new Map<string, ElementRow>();
  for (const element of chosen) {
    const map = ontoLine(element, to);
    if (map === null) continue;
    for (const row of carried(model, [element.id], map, 'joined'))
      if (!rows.has(row.id)) more.set(row.id, merged(more.get(row.id), row, model.element[row.id]));
  }
  return [...more.values()];
}

/** Of a line that follows at both ends each end counts. */
function merged(known: ElementRow | undefined, next: ElementRow, was: ElementRow): ElementRow {
  const [a, b, before] = [known && lineOf(known), lineOf(next), lineOf(was)];
  if (!known || !a || !b || !before) return next;
  const pick = (key: 'start' | 'end'): Point =>
    b[key][0] === before[key][0] && b[key][1] === before[key][1] ? a[key] : b[key];
  return { ...next, shape: { ...next.shape, start: pick('start'), end: pick('end') } } as ElementRow;
}

/** The endless line that a grid line, a wall or a beam runs on. */
export function endlessOf(element: ElementRow): EndlessLine | null {
  const line = lineOf(element);
  return line === null || line.bulge !== 0 ? null : [line.start, line.end];
}
