import { arcOfBulge, bulgeOfSweep, pointOnArc } from '@/core/geometry/bulge';
import { cross, distance, dot, pointAlong, shareAlong, subtract, type Point } from '@/core/geometry/vector';
import { dropsOf } from '@/core/kinds/beam';
import type { ElementOf, ElementRow } from '@/core/kinds/element';
import { alongWall } from '@/core/kinds/opening';
import { tiesOf, withTies, type LevelTie } from '@/core/kinds/tie';
import { wallLength } from '@/core/kinds/wall';
import { put, remove, type Change, type Edit } from '@/core/model/edits';
import type { Model } from '@/core/model/model';
import { fail, type Result } from '@/core/result';
import { defaultTolerance } from '@/core/tolerance';
import { soundEdit } from './refusals';
import { lineOf, openingIn, withLine } from './restrung';

const { coincidence } = defaultTolerance;

type Line = NonNullable<ReturnType<typeof lineOf>>;

/** The two parts of a line at the point of it nearest to another; null where one would have no length. */
export function partsOf(line: Line, near: Point): [Line, Line] | null {
  const { start, end, bulge } = line;
  if (bulge === 0) {
    const t = shareAlong(start, end, near);
    const at = pointAlong(start, end, t);
    const inside = t > 0 && t < 1 && distance(at, start) > coincidence && distance(at, end) > coincidence;
    return inside
      ? [
          { start, end: at, bulge },
          { start: at, end, bulge },
        ]
      : null;
  }
  const arc = arcOfBulge(start, end, bulge);
  const wall = { ...line, thickness: 1, height: null, outer: false };
  const t = alongWall(wall, near) / wallLength(wall);
  if (!(t > 0 && t < 1)) return null;
  const at = pointOnArc(arc, t);
  return [
    { start, end: at, bulge: bulgeOfSweep(arc.sweep * t) },
    { start: at, end, bulge: bulgeOfSweep(arc.sweep * (1 - t)) },
  ];
}

/** Splits a wall, a beam or a straight grid line in two that share a node; the first part stays what it was. */
export function splitElement(model: Model, id: string, near: Point, newId: () => string): Result<Edit> {
  const element = model.element[id];
  const line = element && lineOf(element);
  if (!element || !line || element.kind === 'grid') return fail('Walls and beams can be split.');
  const parts = partsOf(line, near);
  if (parts === null) return fail('There is nothing to split at its end. Click on it between its ends.');
  const [first, beyond] = dealtHeights(model, withLine(element, parts[0]), withLine(element, parts[1]));
  const second: ElementRow = { ...beyond, id: newId() };
  const openings = first.kind === 'wall' && second.kind === 'wall' ? dealt(model, first, second) : [];
  if (openings === null) return fail('The cut goes through an opening. Split the wall beside it, or move the opening.');
  return soundEdit(model, `Split a ${element.kind}`, [first, second, ...openings]);
}

/** How far the top of a member lies below its storey's at either end, ties to levels told by them. */
function heightsOf(model: Model, { shape, levelId }: ElementOf<'beam'>): [start: number, end: number] {
  const [start, end] = dropsOf(shape);
  const own = levelId === null ? undefined : model.level[levelId];
  const told = (tied: LevelTie | undefined, plain: number): number => {
    const level = tied && model.level[tied.level];
    return tied && level && own ? own.elevation + own.height - level.elevation - tied.offset : plain;
  };
  return [told(shape.ties?.start, start), told(shape.ties?.end, end)];
}

/** The two parts of a member, each with its share of the way down or up; others are as they were. */
function dealtHeights(model: Model, first: ElementRow, second: ElementRow): [ElementRow, ElementRow] {
  if (first.kind !== 'beam' || second.kind !== 'beam') return [first, second];
  const [from, to] = heightsOf(model, first);
  if (from === to) return [first, second];
  const [own, rest] = [first, second].map(({ shape }) => distance(shape.start, shape.end));
  const between = from + ((to - from) * own) / (own + rest);
  return [
    untiedAt('end', { ...first, shape: { ...first.shape, drop: from, endDrop: between } }),
    untiedAt('start', { ...second, shape: { ...second.shape, drop: between, endDrop: to } }),
  ];
}

/** An element whose one end is at a place of its own. */
const untiedAt = (end: 'start' | 'end', element: ElementRow): ElementRow =>
  withTies(element, { ...tiesOf(element), [end]: undefined });

/** The openings of a wall, each in the part that it lies in; null where one lies in both. */
function dealt(model: Model, first: ElementOf<'wall'>, second: ElementOf<'wall'>): ElementRow[] | null {
  const cut = wallLength(first.shape);
  const rows: ElementRow[] = [];
  for (const opening of model.index.openingsOf(first.id)) {
    const { offset, width } = opening.shape;
    if (offset + width <= cut + coincidence) continue;
    if (offset < cut - coincidence) return null;
    rows.push({ ...opening, shape: { ...opening.shape, wall: second.id, offset: Math.max(0, offset - cut) } });
  }
  return rows;
}

/** The line that two make which share a node and go on in one direction, or on one circle; null where they do not. */
export function togetherOf(p: Line, q: Line): Line | null {
  const near = (a: Point, b: Point): boolean => distance(a, b) <= coincidence;
  const turned = (line: Line): Line => ({ start: line.end, end: line.start, bulge: -line.bulge });
  // The second begins where the first ends.
  const pairs: [Line, Line][] = [
    [p, q],
    [p, turned(q)],
    [turned(p), q],
    [turned(p), turned(q)],
  ];
  const pair = pairs.find(([a, b]) => near(a.end, b.start));
  if (pair === undefined) return null;
  const [a, b] = pair;
  const whole = a.bulge === 0 && b.bulge === 0 ? straightTogether(a, b) : bentTogether(a, b);
  return whole !== null && a !== p ? turned(whole) : whole;
}

function straightTogether(a: Line, b: Line): Line | null {
  const [u, v] = [subtract(a.end, a.start), subtract(b.end, b.start)];
  const off = Math.abs(cross(u, v)) / (Math.hypot(...u) || 1);
  return off <= coincidence && dot(u, v) > 0 ? { start: a.start, end: b.end, bulge: 0 } : null;
}

function bentTogether(a: Line, b: Line): Line | null {
  if (a.bulge === 0 || b.bulge === 0 || Math.sign(a.bulge) !== Math.sign(b.bulge)) return null;
  const [p, q] = [arcOfBulge(a.start, a.end, a.bulge), arcOfBulge(b.start, b.end, b.bulge)];
  if (distance(p.centre, q.centre) > coincidence || Math.abs(p.radius - q.radius) > coincidence) return null;
  const sweep = p.sweep + q.sweep;
  return Math.abs(sweep) < 2 * Math.PI ? { start: a.start, end: b.end, bulge: bulgeOfSweep(sweep) } : null;
}

/** Makes one of two walls or beams of one size that share a node and go straight on, or on one circle. */
export function joinElements(model: Model, ids: Iterable<string>): Result<Edit> {
  const [a, b, ...more] = [...ids].flatMap((id) => model.element[id] ?? []);
  const expected = 'Two walls, or two beams, that share a node and go on in one line can be joined.';
  if (!a || !b || more.length > 0 || a.kind !== b.kind || (a.kind !== 'wall' && a.kind !== 'beam'))
    return fail(expected);
  const whole = togetherOf(lineOf(a)!, lineOf(b)!);
  if (whole === null) return fail(expected);
  if (a.kind === 'wall' && b.kind === 'wall' && Math.abs(a.shape.thickness - b.shape.thickness) > coincidence)
    return fail('The two walls have different thicknesses. Make them alike first.');
  const row = withHeights(model, a, b, withLine(a, whole));
  if (row === null)
    return fail('The two beams do not go on in one line: their heights or slopes differ. Change them first.');
  const openings = row.kind === 'wall' ? [a, b].flatMap((part) => rehosted(model, part, row)) : [];
  return soundEdit(model, `Join two ${a.kind}s`, [row, ...openings], mergedInto(model, b.id, a.id));
}

/** The whole of two members with the heights of its ends; null where they make no straight line in space. */
function withHeights(model: Model, a: ElementRow, b: ElementRow, whole: ElementRow): ElementRow | null {
  if (a.kind !== 'beam' || b.kind !== 'beam' || whole.kind !== 'beam') return whole;
  const ends = [a, b].flatMap((member) => {
    const [from, to] = heightsOf(model, member);
    return [
      { at: member.shape.start, drop: from },
      { at: member.shape.end, drop: to },
    ];
  });
  const along = ({ at }: { at: Point }): number => distance(whole.shape.start, at);
  const [first, second, third, last] = ends.sort((p, q) => along(p) - along(q));
  const slope = (last.drop - first.drop) / (along(last) || 1);
  const straight = [second, third].every((end) => Math.abs(first.drop + slope * along(end) - end.drop) <= coincidence);
  if (!straight) return null;
  if (first.drop === last.drop && a.shape.ties === undefined) return whole;
  return withTies({ ...whole, shape: { ...whole.shape, drop: first.drop, endDrop: last.drop } }, {});
}

/** Takes an element away that is part of another now; what it was read from stays accepted. */
export const mergedInto = (model: Model, gone: string, whole: string): Change[] => [
  ...Array.from(model.decisionsOf(gone), (decision) => put('decision', { ...decision, elementId: whole })),
  remove('element', gone),
];

/** The openings of a part of a wall, in the whole of it. */
const rehosted = (model: Model, part: ElementRow, whole: ElementOf<'wall'>): ElementRow[] =>
  part.kind !== 'wall'
    ? []
    : Array.from(model.index.openingsOf(part.id), (opening) => ({
        ...opening,
        shape: { ...openingIn(opening.shape, part.shape, whole.shape), wall: whole.id },
      }));
