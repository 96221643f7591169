import { boxOf, type Box } from '@/core/geometry/boxIndex';
import { centroid } from '@/core/geometry/polygon';
import { degrees, radians, type Point } from '@/core/geometry/vector';
import { groupBy } from '@/core/groupBy';
import type { ReadModel } from '@/core/handover/model/readModel';
import { columnOutline } from '@/core/kinds/column';
import { alongLine, bandOutline, lengthOfLine, pieceOfLine } from '@/core/kinds/lines';
import { sectionSize } from '@/core/kinds/section';

import { Report } from '@/core/proof/report';
import { roomsOf, Slabs } from '@/core/rooms/rooms';
import { wallPlan } from '../wallPlan';
import { footMarks } from './foot';
import { foot, margin, papers, sheetFor, type PlanWish } from './paper';
import { greys, letters, pens, rectangle, type Mark, type Sheet } from './sheet';

type Level = ReadModel['levels'][number];
type GridLine = Extract<ReadModel['grids'][number], { kind: 'line' }>;

const { small, usual } = letters;
/** Bubbles of grid lines, and how far dimensions lie inside them, millimetres. */
const [bubble, inside] = [4.2, 11];
/** Dimensions have ticks as long as this, millimetres. */
const tick = 1.4;

/** From metres in the project to millimetres on the sheet. */
class Onto {
  constructor(
    private readonly box: Box,
    readonly scale: number,
    private readonly corner: Point,
  ) {}
  at = ([x, y]: Point): Point => [
    this.corner[0] + ((x - this.box[0]) * 1000) / this.scale,
    this.corner[1] - ((y - this.box[1]) * 1000) / this.scale,
  ];
  all = (points: readonly Point[]): Point[] => points.map(this.at);
}

/** The plan of a level at a true scale: its grid, marks, rooms, distances between grid lines and a title block. */
export function planSheet(model: ReadModel, level: Level, wish: PlanWish): Sheet {
  const box = boxAbout(model, level);
  const { paper, scale } = sheetFor(box, wish);
  const [width, height] = papers[paper];
  const [wide, tall] = [((box[2] - box[0]) * 1000) / scale, ((box[3] - box[1]) * 1000) / scale];
  // In the middle of what the foot leaves.
  const corner: Point = [(width - wide) / 2, margin + (height - 2 * margin - foot + tall) / 2];
  const onto = new Onto(box, scale, corner);
  const frame: Mark = {
    kind: 'line',
    points: rectangle(margin, margin, width - margin, height - margin),
    closed: true,
    stroke: pens.strong,
  };
  return {
    name: `${wish.project}, ${level.name}`,
    width,
    height,
    marks: [
      ...slabMarks(model, level, onto),
      ...beamMarks(model, level, onto),
      ...wallMarks(model, level, onto),
      ...columnMarks(model, level, onto),
      ...roomMarks(model, level, onto),
      ...gridMarks(model, onto),
      frame,
      ...footMarks(model, level, { ...wish, paper, scale, width, height }),
    ],
  };
}

/** Everything of a level and the grid, metres. */
function boxAbout(model: ReadModel, { id }: Level): Box {
  const points: Point[] = [
    ...model.grids.flatMap((line): Point[] => (line.kind === 'line' ? [line.start, line.end] : [line.centre])),
    ...model.walls.filter(({ level }) => level === id).flatMap(({ start, end }): Point[] => [start, end]),
    ...model.columns.filter(({ level }) => level === id).map(({ position }): Point => position),
    ...model.slabs.filter(({ level }) => level === id).flatMap(({ outline }): Point[] => outline),
    ...model.zones.filter(({ level }) => level === id).flatMap(({ outline }): Point[] => outline),
  ];
  return points.length === 0 ? [0, 0, 10, 10] : boxOf(points);
}

const slabMarks = (model: ReadModel, { id }: Level, onto: Onto): Mark[] =>
  model.slabs
    .filter(({ level, outline }) => level === id && outline.length >= 3)
    .map(({ outline, holes }) => ({
      kind: 'area',
      rings: [outline, ...holes].map((ring) => onto.all(ring)),
      grey: greys.slab,
      stroke: pens.thin,
    }));

/** Beams lie over what the plan cuts: dashed, with their marks along them. */
const beamMarks = (model: ReadModel, { id }: Level, onto: Onto): Mark[] =>
  model.beams
    .filter(({ level }) => level === id)
    .flatMap(({ start, end, section, mark }): Mark[] => {
      const line: Point[] = [
        [start[0], start[1]],
        [end[0], end[1]],
      ];
      if (lengthOfLine(line) === 0) return [];
      const band = onto.all(bandOutline(line, sectionSize(section).width));
      const [a, b] = onto.all(line);
      const turn = readable(degrees(Math.atan2(b[1] - a[1], b[0] - a[0])));
      const at: Point = [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2];
      return [
        { kind: 'line', points: band, closed: true, stroke: pens.hidden },
        ...(mark === '' ? [] : [{ kind: 'text', at, text: mark, height: small, anchor: 'middle', turn } as const]),
      ];
    });

/** A turn that can be read from below or from the right, degrees. */
const readable = (turn: number): number => {
  const within = ((turn % 360) + 360) % 360;
  return within > 90 && within <= 270 ? within - 180 : within;
};

/** Walls cut, open where doors and windows are; a window has its panes, a door its leaf and its way. */
function wallMarks(model: ReadModel, { id }: Level, onto: Onto): Mark[] {
  const openings = groupBy(model.openings, ({ wall }) => wall);
  return model.walls
    .filter(({ level }) => level === id)
    .flatMap((wall): Mark[] => {
      const plan = wallPlan(wall, openings.get(wall.id) ?? []);
      if (plan === null) return [];
      const { line, length, solid, openings: own } = plan;
      const band = (a: number, b: number, thickness: number): Point[] =>
        onto.all(bandOutline(pieceOfLine(line, a, b), thickness));
      return [
        ...solid.map(([a, b]): Mark => ({
          kind: 'area',
          rings: [band(a, b, wall.thickness)],
          grey: greys.wall,
          stroke: pens.plain,
        })),
        ...own.flatMap(({ kind, offset, width }): Mark[] => {
          const to = Math.min(length, offset + width);
          if (kind === 'window')
            return [wall.thickness, wall.thickness / 4].map((thickness) => ({
              kind: 'line',
              points: band(offset, to, thickness),
              closed: true,
              stroke: pens.thin,
            }));
          return [{ kind: 'line', points: leafOf(line, offset, width).map(onto.at), closed: false, stroke: pens.thin }];
        }),
      ];
    });
}

/** A leaf that stands open, and the quarter of a circle that it goes. */
function leafOf(line: readonly Point[], offset: number, width: number): Point[] {
  const { point: hinge, direction: d } = alongLine(line, offset);
  const steps = Array.from({ length: 13 }, (_, i) => (Math.PI / 2) * (1 - i / 12));
  const arc = steps.map((angle): Point => {
    const [c, s] = [Math.cos(angle) * width, Math.sin(angle) * width];
    return [hinge[0] + c * d[0] - s * d[1], hinge[1] + c * d[1] + s * d[0]];
  });
  return [hinge, ...arc];
}

const columnMarks = (model: ReadModel, { id }: Level, onto: Onto): Mark[] =>
  model.columns
    .filter(({ level }) => level === id)
    .flatMap((column): Mark[] => {
      const outline = onto.all(columnOutline({ ...column, position: column.position }));
      const [, y1, x2] = boxOf(outline);
      return [
        { kind: 'area', rings: [outline], grey: greys.column, stroke: pens.plain },
        ...(column.mark === ''
          ? []
          : [
              {
                kind: 'text',
                at: [x2 + 0.8, y1 - 0.8],
                text: column.mark,
                height: small,
                anchor: 'start',
                turn: 0,
              } as const,
            ]),
      ];
    });

/** Rooms by number and name, with their area by inner faces. */
const roomMarks = (model: ReadModel, { id }: Level, onto: Onto): Mark[] =>
  roomsOf(model, new Slabs(model), new Report())
    .filter(({ zone }) => zone.level === id)
    .flatMap(({ zone, rings, area }): Mark[] => {
      const [x, y] = onto.at(centroid(rings[0]));
      const lines = [zone.number, zone.name, `${area.toFixed(2)} m\u00b2`].filter((text) => text !== '');
      return lines.map((text, i) => ({
        kind: 'text',
        at: [x, y + (i - (lines.length - 1) / 2) * usual * 1.7],
        text,
        height: i === lines.length - 1 ? small : usual,
        anchor: 'middle',
        turn: 0,
        ...(i === 0 ? { bold: true as const } : {}),
      }));
    });

/** Grid lines with a bubble at either end, and the distances between those of one direction. */
function gridMarks(model: ReadModel, onto: Onto): Mark[] {
  const straight = model.grids.filter((line): line is GridLine => line.kind === 'line');
  const arcs = model.grids.flatMap((line): Mark[] => {
    if (line.kind === 'line') return [];
    const sweep = (((line.endAngle - line.startAngle) % 360) + 360) % 360 || 360;
    const points = Array.from({ length: 49 }, (_, i): Point => {
      const angle = radians(line.startAngle + (sweep * i) / 48);
      return [line.centre[0] + line.radius * Math.cos(angle), line.centre[1] + line.radius * Math.sin(angle)];
    }).map(onto.at);
    return [{ kind: 'line', points, closed: false, stroke: pens.axis }, ...bubbleAt(points[0], line.label)];
  });
  const families = groupBy(straight, ({ start, end }) => {
    const angle = degrees(Math.atan2(end[1] - start[1], end[0] - start[0]));
    return String(Math.round(((angle % 180) + 180) % 180) % 180);
  });
  return [
    ...straight.flatMap(({ start, end, label }): Mark[] => {
      const [a, b] = [onto.at(start), onto.at(end)];
      return [
        { kind: 'line', points: [a, b], closed: false, stroke: pens.axis },
        ...bubbleAt(beyond(b, a), label),
        ...bubbleAt(beyond(a, b), label),
      ];
    }),
    ...arcs,
    ...[...families.values()].flatMap((family) => chainOf(family, onto)),
  ];
}

/** The middle of a bubble that touches the end of a line. */
function beyond([x1, y1]: Point, [x2, y2]: Point): Point {
  const size = Math.hypot(x2 - x1, y2 - y1) || 1;
  return [x2 + ((x2 - x1) / size) * bubble, y2 + ((y2 - y1) / size) * bubble];
}

const bubbleAt = (at: Point, label: string): Mark[] => [
  { kind: 'circle', at, radius: bubble, stroke: pens.plain },
  { kind: 'text', at: [at[0], at[1] + usual / 2], text: label, height: usual, anchor: 'middle', turn: 0, bold: true },
];

/** The distances between parallel lines, one after another, near their starts. */
function chainOf(family: readonly GridLine[], onto: Onto): Mark[] {
  if (family.length < 2) return [];
  const [{ start, end }] = family;
  const size = Math.hypot(end[0] - start[0], end[1] - start[1]);
  if (size === 0) return [];
  const d: Point = [(end[0] - start[0]) / size, (end[1] - start[1]) / size];
  const n: Point = [-d[1], d[0]];
  const off = (p: Point): number => p[0] * n[0] + p[1] * n[1];
  const along = (p: Point): number => p[0] * d[0] + p[1] * d[1];
  const first = Math.min(...family.flatMap((line) => [along(line.start), along(line.end)]));
  const reach = first + (inside * onto.scale) / 1000;
  const sorted = [...family].sort((a, b) => off(a.start) - off(b.start));
  const at = (line: GridLine): Point => {
    const o = off(line.start);
    return onto.at([d[0] * reach + n[0] * o, d[1] * reach + n[1] * o]);
  };
  return sorted.slice(1).flatMap((line, i): Mark[] => {
    const [a, b] = [at(sorted[i]), at(line)];
    const apart = off(line.start) - off(sorted[i].start);
    const long = Math.hypot(b[0] - a[0], b[1] - a[1]);
    if (long < 2 * tick) return [];
    const [ux, uy] = [(b[0] - a[0]) / long, (b[1] - a[1]) / long];
    const turn = readable(degrees(Math.atan2(uy, ux)));
    const up: Point = [Math.sin(radians(turn)), -Math.cos(radians(turn))];
    const middle: Point = [(a[0] + b[0]) / 2 + up[0], (a[1] + b[1]) / 2 + up[1]];
    const slash = ([x, y]: Point): Mark => ({
      kind: 'line',
      points: [
        [x - tick * (ux - uy) * 0.5, y - tick * (uy + ux) * 0.5],
        [x + tick * (ux - uy) * 0.5, y + tick * (uy + ux) * 0.5],
      ],
      closed: false,
      stroke: pens.plain,
    });
    return [
      { kind: 'line', points: [a, b], closed: false, stroke: pens.thin },
      slash(a),
      slash(b),
      { kind: 'text', at: middle, text: apart.toFixed(3), height: small, anchor: 'middle', turn },
    ];
  });
}
