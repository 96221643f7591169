import { boxOf } from '@/core/geometry/boxIndex';
import { centroid } from '@/core/geometry/polygon';
import { degrees, distance, subtract, type Point } from '@/core/geometry/vector';
import type { Column } from '@/core/kinds/column';
import type { GridLine } from '@/core/kinds/grid';
import { gridCrossings } from '@/core/kinds/gridCrossings';
import { awayFromLine } from '@/core/kinds/lines';
import type { Model } from '@/core/model/model';
import { defaultTolerance } from '@/core/tolerance';

const { coincidence } = defaultTolerance;

const gridOf = (model: Model): GridLine[] => Array.from(model.ofKind('grid'), ({ shape }) => shape);

/** The turn of the grid at a point, degrees in (-45, 45]; null where no straight grid line passes there. */
export function gridTurnAt(model: Model, p: Point): number | null {
  for (const line of gridOf(model)) {
    if (line.kind !== 'line' || awayFromLine([line.start, line.end], p) > coincidence) continue;
    const [x, y] = subtract(line.end, line.start);
    const angle = degrees(Math.atan2(y, x));
    const turn = angle - 90 * Math.round(angle / 90);
    return turn <= -45 ? turn + 90 : turn;
  }
  return null;
}

/** A column at a point, turned with the grid that passes there. */
export const columnAt = (model: Model, position: Point, like: Column): Column => ({
  ...like,
  position,
  rotation: like.rotation + (gridTurnAt(model, position) ?? 0),
});

/** Whether a column of a level stands at a point already. */
const stands = (model: Model, levelId: string | null, p: Point): boolean =>
  model.index
    .touching(levelId, boxOf([p], coincidence))
    .some((other) => other.kind === 'column' && distance(other.shape.position, p) <= coincidence);

/** Points closer than the tolerance are one. */
const apart = (points: readonly Point[]): Point[] =>
  points.filter((p, i) => points.findIndex((q) => distance(p, q) <= coincidence) === i);

/** Columns at all grid crossings in a box where none stands yet. */
export function columnsAtCrossings(
  model: Model,
  levelId: string | null,
  [a, b]: readonly [Point, Point],
  like: Column,
): Column[] {
  const [minX, minY, maxX, maxY] = boxOf([a, b]);
  const inside = gridCrossings(gridOf(model))
    .map(({ point }) => point)
    .filter(([x, y]) => x >= minX && x <= maxX && y >= minY && y <= maxY);
  return apart(inside)
    .filter((p) => !stands(model, levelId, p))
    .map((p) => columnAt(model, p, like));
}

/** Columns along a line, at both its ends and between them in equal steps. @param count how many in all */
export function columnsAlong(from: Point, to: Point, count: number, like: Column): Column[] {
  const [dx, dy] = subtract(to, from);
  const turn = degrees(Math.atan2(dy, dx));
  return Array.from({ length: count }, (_, i) => {
    const t = count === 1 ? 0 : i / (count - 1);
    return { ...like, position: [from[0] + dx * t, from[1] + dy * t], rotation: like.rotation + turn };
  });
}

/** A column of an outline: its position is the centre of area, its section the outline about it. */
export function columnOfOutline(outline: readonly Point[], like: Column): Column {
  const position = centroid(outline);
  return {
    ...like,
    position,
    rotation: 0,
    section: { shape: 'polygon', outline: outline.map((p) => subtract(p, position)) },
  };
}
