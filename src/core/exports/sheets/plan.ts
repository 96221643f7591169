import { boxOf, type Box } from '@/core/geometry/boxIndex';
import { centroid } from '@/core/geometry/polygon';
import { degrees, type Point } from '@/core/geometry/vector';
import { groupBy } from '@/core/groupBy';
import type { ReadModel } from '@/core/handover/model/readModel';
import { columnOutline } from '@/core/kinds/column';
import { alongLine, bandOutline, lengthOfLine, pieceOfLine } from '@/core/kinds/lines';
import { sectionSize } from '@/core/kinds/section';
import { Report } from '@/core/proof/report';
import { roomsOf, Slabs } from '@/core/rooms/rooms';
import { wallPlan } from '../wallPlan';
import { elevationWords, footMarks } from './foot';
import { gridMarks } from './grid';
import { framed, readable, type Onto } from './onto';
import { pictureMarks, tintMarks, type Overlay } from './overlay';
import { planLayers, type PlanLayer, type PlanWish } from './paper';
import { cutMarks } from './section';
import { greys, letters, pens, type Mark, type Sheet } from './sheet';

type Level = ReadModel['levels'][number];

const { small, usual } = letters;

/** The plan of a level at a true scale: its grid, marks, rooms, distances between grid lines and a title block. */
export function planSheet(model: ReadModel, level: Level, wish: PlanWish, over: Overlay | null = null): Sheet {
  const shown = new Set(wish.layers ?? planLayers);
  const parts: Record<PlanLayer, (onto: Onto) => Mark[]> = {
    slabs: (onto) => slabMarks(model, level, onto),
    beams: (onto) => beamMarks(model, level, onto),
    walls: (onto) => wallMarks(model, level, onto),
    columns: (onto) => columnMarks(model, level, onto),
    rooms: (onto) => roomMarks(model, level, onto),
    grid: (onto) => gridMarks(model, onto, shown.has('dimensions')),
    dimensions: () => [],
  };
  const marksOf = (layers: readonly PlanLayer[], onto: Onto): Mark[] =>
    layers.filter((layer) => shown.has(layer)).flatMap((layer) => parts[layer](onto));
  const box = boxAbout(model, level);
  return framed(
    over === null ? level.name : `${level.name}, ${over.title}`,
    box,
    wish,
    (onto) => [
      // Slabs lie beneath what tints them.
      ...marksOf(['slabs'], onto),
      ...(over === null ? [] : tintMarks(over.picture, onto)),
      ...marksOf(
        planLayers.filter((layer) => layer !== 'slabs'),
        onto,
      ),
      ...cutMarks(wish.cuts ?? [], box, onto),
      ...(over === null ? [] : pictureMarks(over, onto)),
    ],
    (layout) =>
      footMarks(layout, {
        title: level.name,
        below: over?.title ?? elevationWords(level.elevation),
        north: model.survey?.north ?? 0,
      }),
  );
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
