import { BoxIndex, boxOf } from '@/core/geometry/boxIndex';
import type { Point } from '@/core/geometry/vector';
import { groupBy } from '@/core/groupBy';
import type { ReadModel } from '@/core/handover/model/readModel';
import { columnOutline } from '@/core/kinds/column';
import { bandOutline, pieceOfLine } from '@/core/kinds/lines';
import { columnReach } from '../sizes';
import { wallPlan } from '../wallPlan';
import { elevationWords, footMarks } from './foot';
import { framed, type Onto } from './onto';
import type { PlanWish } from './paper';
import { greys, letters, pens, type Mark, type Sheet } from './sheet';

type Level = ReadModel['levels'][number];

/** A plan is seen from in front: its depth is so much shorter, and goes so much aside. */
const [depth, aside] = [0.5, 0.4];
/** Room between one storey and the next, metres. */
const between = 2;

/** Storeys lifted over one another far enough that each is seen. */
class Stack {
  private readonly box: readonly [number, number, number, number];
  private readonly lift: number;

  constructor(points: readonly Point[]) {
    this.box = points.length === 0 ? [0, 0, 10, 10] : boxOf(points);
    this.lift = (this.box[3] - this.box[1]) * depth + between;
  }

  /** A place of a storey on the drawing, metres. */
  at =
    (storey: number) =>
    ([x, y]: Point): Point => [
      x - this.box[0] + (y - this.box[1]) * aside,
      (y - this.box[1]) * depth + this.foot(storey),
    ];

  /** How far up the drawing a storey begins. */
  foot = (storey: number): number => storey * this.lift;

  /** What all storeys together take. */
  extent(storeys: number): [number, number, number, number] {
    const [wide, deep] = [this.box[2] - this.box[0], this.box[3] - this.box[1]];
    return [0, 0, wide + deep * aside, deep * depth + this.foot(Math.max(0, storeys - 1))];
  }
}

/** The storeys over one another on one sheet: lengths across are true, and columns are joined to those beneath them. */
export function stackSheet(model: ReadModel, wish: PlanWish): Sheet {
  const levels = [...model.levels].sort((a, b) => a.elevation - b.elevation);
  const points = [
    ...model.slabs.flatMap(({ outline }): Point[] => outline),
    ...model.zones.flatMap(({ outline }): Point[] => outline),
    ...model.walls.flatMap(({ start, end }): Point[] => [start, end]),
    ...model.columns.map(({ position }): Point => position),
  ];
  const stack = new Stack(points);
  return framed(
    'storeys',
    stack.extent(levels.length),
    wish,
    (onto) => [
      ...levels.flatMap((level, i) => storeyMarks(model, level, (p) => onto.at(stack.at(i)(p)))),
      ...standingMarks(model, levels, stack, onto),
      ...levels.map((level, i) => nameMark(level, onto.at([0, stack.foot(i)]))),
    ],
    (layout) =>
      footMarks(layout, { title: 'Storeys', below: 'over one another; lengths across are true', north: null }),
  );
}

const nameMark = ({ name, elevation }: Level, [x, y]: Point): Mark => ({
  kind: 'text',
  at: [x - 2, y],
  text: `${name} ${elevationWords(elevation)}`,
  height: letters.small,
  anchor: 'end',
  turn: 0,
});

/** A storey: its slabs, the outlines of its rooms, its walls and columns as they are cut. */
function storeyMarks(model: ReadModel, { id }: Level, at: (p: Point) => Point): Mark[] {
  const openings = groupBy(model.openings, ({ wall }) => wall);
  const here = <T extends { level: string }>(all: readonly T[]): T[] => all.filter(({ level }) => level === id);
  return [
    ...here(model.slabs).map(({ outline, holes }): Mark => ({
      kind: 'area',
      rings: [outline, ...holes].map((ring) => ring.map(at)),
      grey: greys.slab,
      stroke: pens.thin,
    })),
    ...here(model.zones).map(({ outline, holes }): Mark => ({
      kind: 'area',
      rings: [outline, ...holes].map((ring) => ring.map(at)),
      grey: 1,
      stroke: null,
    })),
    ...here(model.walls).flatMap((wall): Mark[] => {
      const plan = wallPlan(wall, openings.get(wall.id) ?? []);
      return (plan?.solid ?? []).map(([from, to]) => ({
        kind: 'area',
        rings: [bandOutline(pieceOfLine(plan?.line ?? [], from, to), wall.thickness).map(at)],
        grey: greys.wall,
        stroke: pens.fine,
      }));
    }),
    ...here(model.columns).map((column): Mark => ({
      kind: 'area',
      rings: [columnOutline(column).map(at)],
      grey: greys.column,
      stroke: pens.fine,
    })),
  ];
}

/** Columns stand on one another within this, metres. */
const same = 0.05;

/** A dashed line from each column's foot down to the head of the one that it stands on. */
function standingMarks(model: ReadModel, levels: readonly Level[], stack: Stack, onto: Onto): Mark[] {
  const storey = new Map(levels.map(({ id }, i) => [id, i]));
  const reaches = model.columns.map((column) => ({ column, reach: columnReach(column, model) }));
  const index = new BoxIndex(reaches, ({ column }) => boxOf([column.position]));
  return reaches.flatMap(({ column, reach: [foot] }): Mark[] => {
    const [x, y] = column.position;
    const under = index
      .around([x, y], same)
      .find(({ column: other, reach: [, head] }) => other !== column && Math.abs(head - foot) < same);
    const [own, below] = [storey.get(column.level), storey.get(under?.column.level ?? '')];
    if (own === undefined || below === undefined) return [];
    const points = [onto.at(stack.at(own)([x, y])), onto.at(stack.at(below)([x, y]))];
    return [{ kind: 'line', points, closed: false, stroke: pens.hidden }];
  });
}
