import { arcOfBulge, bulgeOfSweep } from '@/core/geometry/bulge';
import { cross, distance, dot, lineCrossing, subtract, type Point } from '@/core/geometry/vector';
import type { ElementRow } from '@/core/kinds/element';
import type { Edit } from '@/core/model/edits';
import type { Model } from '@/core/model/model';
import { fail, ok, type Result } from '@/core/result';
import { soundEdit } from './refusals';
import { lineOf, restrung, withLine } from './restrung';
import { describeElements } from './words';

/** Two points that an endless line runs through. */
export type EndlessLine = readonly [Point, Point];

const noMeeting = 'The two run parallel and meet nowhere. Choose another line.';
const noLine = 'That has no line that could be cut back or lengthened: walls, beams and grid lines have.';

/** Where the endless line or the circle of an element meets an endless line; the meeting nearest to a point. */
function meeting(line: { start: Point; end: Point; bulge: number }, to: EndlessLine, near: Point): Point | null {
  if (line.bulge === 0) return lineCrossing(line.start, line.end, to[0], to[1])?.point ?? null;
  const { centre, radius } = arcOfBulge(line.start, line.end, line.bulge);
  const length = distance(to[0], to[1]);
  if (length === 0) return null;
  const u: Point = [(to[1][0] - to[0][0]) / length, (to[1][1] - to[0][1]) / length];
  const foot = dot(subtract(centre, to[0]), u);
  const away = cross(u, subtract(centre, to[0]));
  if (Math.abs(away) > radius) return null;
  const half = Math.sqrt(radius * radius - away * away);
  const [first, second] = [foot - half, foot + half].map((t): Point => [to[0][0] + t * u[0], to[0][1] + t * u[1]]);
  return distance(first, near) <= distance(second, near) ? first : second;
}

/** The bulge of an arc whose end moves along its circle. */
function bulgeTo(line: { start: Point; end: Point; bulge: number }, end: 'start' | 'end', to: Point): number {
  if (line.bulge === 0) return 0;
  const { centre, sweep } = arcOfBulge(line.start, line.end, line.bulge);
  const from = end === 'start' ? to : line.start;
  const until = end === 'start' ? line.end : to;
  const angle = (p: Point): number => Math.atan2(p[1] - centre[1], p[0] - centre[0]);
  const turned = Math.sign(sweep) * (angle(until) - angle(from));
  return Math.sign(sweep) * bulgeOfSweep(turned - 2 * Math.PI * Math.floor(turned / (2 * Math.PI)));
}

/** The end of a line that is nearer to a point. */
const endNear = ({ start, end }: { start: Point; end: Point }, p: Point): 'start' | 'end' =>
  distance(start, p) < distance(end, p) ? 'start' : 'end';

/** An element whose end nearest to a point is cut back or lengthened to an endless line. */
export function reaching(element: ElementRow, near: Point, to: EndlessLine): Result<ElementRow> {
  const line = lineOf(element);
  if (line === null) return fail(noLine);
  const which = endNear(line, near);
  const point = meeting(line, to, near);
  if (point === null) return fail(line.bulge === 0 ? noMeeting : 'The arc does not come as far as that line.');
  if (line.bulge === 0) {
    // A cut beyond the other end would turn the line round, or leave nothing of it.
    const [from, towards] = which === 'start' ? [line.end, line.start] : [line.start, line.end];
    if (dot(subtract(point, from), subtract(towards, from)) <= 0)
      return fail('The cut lies beyond the other end: nothing would be left. Click nearer to the end that is to stay.');
  }
  return ok(withLine(element, { ...line, [which]: point, bulge: bulgeTo(line, which, point) }));
}

/** The rows of an edit that changes lines, with openings where they were. */
export function relined(model: Model, rows: readonly ElementRow[]): ElementRow[] {
  return rows.flatMap((row) => {
    const before = model.element[row.id];
    return row.kind === 'wall' && before?.kind === 'wall' ? [row, ...restrung(model, before, row)] : [row];
  });
}

/** Cuts an element back, or lengthens it, to an endless line, at its end nearest to a point. */
export function reachTo(model: Model, id: string, near: Point, to: EndlessLine): Result<Edit> {
  const element = model.element[id];
  if (element === undefined) return fail(noLine);
  const row = reaching(element, near, to);
  if (!row.ok) return row;
  const [before, after] = [lineOf(element)!, lineOf(row.value)!];
  const longer = distance(after.start, after.end) > distance(before.start, before.end);
  return soundEdit(
    model,
    `${longer ? 'Lengthen' : 'Cut back'} ${describeElements([element])}`,
    relined(model, [row.value]),
  );
}

/** Closes the corner of two straight elements: both end where their lines meet. */
export function closeCorner(model: Model, first: string, second: string): Result<Edit> {
  const [a, b] = [model.element[first], model.element[second]];
  const [p, q] = [a && lineOf(a), b && lineOf(b)];
  if (!p || !q || first === second) return fail('A corner is closed between two walls, beams or grid lines.');
  if (p.bulge !== 0 || q.bulge !== 0) return fail('A corner is closed between straight ones; one of these is bent.');
  const hit = lineCrossing(p.start, p.end, q.start, q.end);
  if (hit === null) return fail(noMeeting);
  const rows = [
    withLine(a, { ...p, [endNear(p, hit.point)]: hit.point }),
    withLine(b, { ...q, [endNear(q, hit.point)]: hit.point }),
  ];
  return soundEdit(model, 'Close a corner', relined(model, rows));
}
