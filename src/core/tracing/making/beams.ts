import { boxOf, type Box } from '@/core/geometry/boxIndex';
import { distance, dot, subtract, type Point } from '@/core/geometry/vector';
import type { Beam } from '@/core/kinds/beam';
import { columnOutline } from '@/core/kinds/column';
import type { ElementOf } from '@/core/kinds/element';
import { awayFromLine } from '@/core/kinds/lines';
import type { Model } from '@/core/model/model';
import { defaultTolerance } from '@/core/tolerance';

/** A column this close to a grid line stands on it, metres. */
const onLine = 0.05;
const { coincidence } = defaultTolerance;

type GridElement = ElementOf<'grid'>;

/** Whether beams end in the middle of their supports, or at their faces. */
export const beamEnds = ['centres', 'faces'] as const;
export type BeamEnds = (typeof beamEnds)[number];

const columnsOf = (model: Model, levelId: string | null): ElementOf<'column'>[] =>
  levelId === null
    ? []
    : [...model.index.onLevel(levelId)].flatMap((element) => (element.kind === 'column' ? [element] : []));

/** The columns on a grid line, in their order along it. */
function columnsOn(line: GridElement['shape'], columns: readonly ElementOf<'column'>[]): Point[] {
  if (line.kind !== 'line') return [];
  const along = subtract(line.end, line.start);
  return columns
    .map(({ shape }) => shape.position)
    .filter((p) => awayFromLine([line.start, line.end], p) <= onLine)
    .sort((p, q) => dot(subtract(p, line.start), along) - dot(subtract(q, line.start), along));
}

/** Whether a beam of a level runs between two points already. */
const runs = (model: Model, levelId: string | null, a: Point, b: Point): boolean =>
  [...model.index.endingAt(levelId, a)].some(
    (other) =>
      other.kind === 'beam' && [other.shape.start, other.shape.end].some((end) => distance(end, b) <= coincidence),
  );

/** Where a line leaves a column that it begins in; its beginning where it begins in none. */
function faceOf(model: Model, levelId: string | null, from: Point, to: Point): Point {
  const column = model.index
    .touching(levelId, boxOf([from], coincidence))
    .find((other) => other.kind === 'column' && distance(other.shape.position, from) <= coincidence);
  if (column?.kind !== 'column') return from;
  const outline = columnOutline(column.shape);
  const d = subtract(to, from);
  let furthest = 0;
  for (const [i, a] of outline.entries()) {
    const e = subtract(outline[(i + 1) % outline.length], a);
    const denominator = d[0] * e[1] - d[1] * e[0];
    if (denominator === 0) continue;
    const f = subtract(a, from);
    const t = (f[0] * e[1] - f[1] * e[0]) / denominator;
    const u = (f[0] * d[1] - f[1] * d[0]) / denominator;
    if (u >= -1e-9 && u <= 1 + 1e-9 && t > furthest && t < 1) furthest = t;
  }
  return [from[0] + d[0] * furthest, from[1] + d[1] * furthest];
}

/** A beam between two points, to the middles of the columns there or to their faces. */
export function beamBetween(
  model: Model,
  levelId: string | null,
  [start, end]: readonly [Point, Point],
  like: Beam,
  ends: BeamEnds,
): Beam {
  if (ends === 'centres') return { ...like, start, end };
  return { ...like, start: faceOf(model, levelId, start, end), end: faceOf(model, levelId, end, start) };
}

function betweenAll(
  model: Model,
  levelId: string | null,
  lines: readonly GridElement[],
  within: Box | null,
): [Point, Point][] {
  const inside = ([x, y]: Point): boolean =>
    within === null || (x >= within[0] && x <= within[2] && y >= within[1] && y <= within[3]);
  const columns = columnsOf(model, levelId).filter(({ shape }) => inside(shape.position));
  return lines.flatMap(({ shape }) => {
    const points = columnsOn(shape, columns);
    return points
      .slice(1)
      .map((p, i): [Point, Point] => [points[i], p])
      .filter(([a, b]) => distance(a, b) > coincidence && !runs(model, levelId, a, b));
  });
}

/** Beams along grid lines between neighbouring columns in a box, where none runs yet. */
export function beamsBetweenSupports(
  model: Model,
  levelId: string | null,
  [a, b]: readonly [Point, Point],
  like: Beam,
  ends: BeamEnds,
): Beam[] {
  return betweenAll(model, levelId, [...model.ofKind('grid')], boxOf([a, b])).map((between) =>
    beamBetween(model, levelId, between, like, ends),
  );
}

/** Beams along one grid line between its columns, where none runs yet. */
export function beamsAlongGrid(
  model: Model,
  levelId: string | null,
  gridId: string,
  like: Beam,
  ends: BeamEnds,
): Beam[] {
  const line = model.element[gridId];
  if (line?.kind !== 'grid') return [];
  return betweenAll(model, levelId, [line], null).map((between) => beamBetween(model, levelId, between, like, ends));
}
