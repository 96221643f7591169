import { radians, type Point } from '@/core/geometry/vector';
import type { ReadModel } from '@/core/handover/model/readModel';
import { columnReach } from '../sizes';

/** The least and the greatest of something, metres; in height alone where it is round, which files have as chords. */
export interface Box {
  plan: [low: Point, high: Point] | null;
  low: number;
  high: number;
}

const planOf = (corners: readonly Point[]): [Point, Point] => {
  const over = [0, 1].map((axis) => corners.map((corner) => corner[axis]));
  return [
    [Math.min(...over[0]), Math.min(...over[1])],
    [Math.max(...over[0]), Math.max(...over[1])],
  ];
};

/** The corners of a rectangle about a point. @param turn radians */
function turnedRectangle([x, y]: Point, length: number, width: number, turn: number): Point[] {
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  return (
    [
      [1, 1],
      [1, -1],
      [-1, -1],
      [-1, 1],
    ] as const
  ).map(([u, w]) => {
    const [a, b] = [(u * length) / 2, (w * width) / 2];
    return [x + a * c - b * s, y + a * s + b * c];
  });
}

type Of<K extends 'columns' | 'beams' | 'walls' | 'slabs'> = ReadModel[K][number];

function boxOfColumn(column: Of<'columns'>, model: ReadModel): Box {
  const [low, high] = columnReach(column, model);
  const { section, position, rotation } = column;
  const plan =
    section.shape === 'rectangle'
      ? planOf(turnedRectangle(position, section.width, section.depth, radians(rotation)))
      : null;
  return { plan, low, high };
}

/** Beams that are level and lie about their line; null of others. */
function boxOfBeam({
  start,
  end,
  section,
  angle = 0,
  justification = 'centre',
  use = 'beam',
}: Of<'beams'>): Box | null {
  const lies = start[2] === end[2] && angle === 0 && justification === 'centre' && use === 'beam';
  if (!lies || section.shape !== 'rectangle') return null;
  const [dx, dy] = [end[0] - start[0], end[1] - start[1]];
  const middle: Point = [(start[0] + end[0]) / 2, (start[1] + end[1]) / 2];
  const plan = planOf(turnedRectangle(middle, Math.hypot(dx, dy), section.width, Math.atan2(dy, dx)));
  return { plan, low: start[2] - section.depth, high: start[2] };
}

/** Straight walls with a level head; null of others. */
function boxOfWall({ start, end, thickness, bulge, profile, base, top, height, level }: Of<'walls'>, model: ReadModel) {
  if (bulge !== 0 || profile !== undefined) return null;
  const [dx, dy] = [end[0] - start[0], end[1] - start[1]];
  const middle: Point = [(start[0] + end[0]) / 2, (start[1] + end[1]) / 2];
  const low = base ?? model.levels.find(({ id }) => id === level)?.elevation ?? 0;
  const plan = planOf(turnedRectangle(middle, Math.hypot(dx, dy), thickness, Math.atan2(dy, dx)));
  return { plan, low, high: top ?? low + height };
}

function boxOfSlab({ outline, thickness, top, level }: Of<'slabs'>, model: ReadModel): Box {
  const high = top ?? model.levels.find(({ id }) => id === level)?.elevation ?? 0;
  return { plan: planOf(outline), low: high - thickness, high };
}

/**
 * Where elements of a model lie, by their ids, from its own numbers and not from what a writer makes of them: columns,
 * straight walls, slabs, and beams that are level. Elements without a size are left out.
 */
export function boxesOf(model: ReadModel): Map<string, Box> {
  const boxes: [string, Box | null][] = [
    ...model.columns.map((one): [string, Box] => [one.id, boxOfColumn(one, model)]),
    ...model.beams.map((one): [string, Box | null] => [one.id, boxOfBeam(one)]),
    ...model.walls.map((one): [string, Box | null] => [one.id, boxOfWall(one, model)]),
    ...model.slabs.map((one): [string, Box] => [one.id, boxOfSlab(one, model)]),
  ];
  return new Map(boxes.flatMap(([id, box]) => (box === null || isFlat(box) ? [] : [[id, box] as const])));
}

const isFlat = ({ plan, low, high }: Box): boolean =>
  high <= low || (plan !== null && (plan[1][0] <= plan[0][0] || plan[1][1] <= plan[0][1]));

/** Elements of a file agree with the model within this, metres. */
const agreement = 1e-4;

/** Whether something lies where it should. @param corners x, y and z of each of its corners */
export function liesIn(corners: Iterable<ArrayLike<number>>, { plan, low, high }: Box): boolean {
  const least = [Infinity, Infinity, Infinity];
  const most = [-Infinity, -Infinity, -Infinity];
  for (const list of corners)
    for (let i = 0; i < list.length; i += 1) {
      least[i % 3] = Math.min(least[i % 3], list[i]);
      most[i % 3] = Math.max(most[i % 3], list[i]);
    }
  const near = (a: number, b: number): boolean => Math.abs(a - b) <= agreement;
  const upright = near(least[2], low) && near(most[2], high);
  return upright && (plan === null || [0, 1].every((k) => near(least[k], plan[0][k]) && near(most[k], plan[1][k])));
}
