import { degrees, radians, type Point } from '@/core/geometry/vector';
import { groupBy } from '@/core/groupBy';
import type { ReadModel } from '@/core/handover/model/readModel';
import { readable, type Onto } from './onto';
import { letters, pens, type Mark } from './sheet';

type GridLine = Extract<ReadModel['grids'][number], { kind: 'line' }>;

const { small, usual } = letters;
/** Bubbles of grid lines, and how far dimensions lie inside them, millimetres. */
const [bubble, inside] = [4.2, 11];
/** Dimensions have ticks as long as this, millimetres. */
const tick = 1.4;

/** Grid lines with a bubble at either end, and the distances between those of one direction. */
export function gridMarks(model: ReadModel, onto: Onto, dimensions: boolean): Mark[] {
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
    ...(dimensions ? [...families.values()].flatMap((family) => chainOf(family, onto)) : []),
  ];
}

/** The middle of a bubble that touches the end of a line. */
function beyond([x1, y1]: Point, [x2, y2]: Point): Point {
  const size = Math.hypot(x2 - x1, y2 - y1) || 1;
  return [x2 + ((x2 - x1) / size) * bubble, y2 + ((y2 - y1) / size) * bubble];
}

export const bubbleAt = (at: Point, label: string): Mark[] => [
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
