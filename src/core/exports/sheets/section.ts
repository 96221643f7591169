import { boxOf } from '@/core/geometry/boxIndex';
import { cross, dot, subtract, type Point } from '@/core/geometry/vector';
import type { ReadModel } from '@/core/handover/model/readModel';
import { elevationWords, footMarks } from './foot';
import { bubbleAt } from './grid';
import { framed, type Onto } from './onto';
import { pictureMarks, type Overlay } from './overlay';
import type { PlanWish } from './paper';
import { greys, letters, pens, type Mark, type Sheet } from './sheet';
import { cutThrough, facesFrom, type Built, type Cut, type Face, type NamedCut } from './upright';

/** The two sections that a building has by itself: along its grid lines of one direction and across them. */
export function sectionsOf(built: Built): NamedCut[] {
  const line = built.model.grids.find((one) => one.kind === 'line');
  const d: Point = line === undefined ? [1, 0] : subtract(line.end, line.start);
  return [d, [-d[1], d[0]] as const].flatMap(([x, y], i) => {
    const size = Math.hypot(x, y) || 1;
    // What lies to the left of a plan, or beneath, is drawn to the left.
    const side = Math.abs(x) > Math.abs(y) ? Math.sign(x) : Math.sign(y);
    const cut = cutThrough(built, [(side * x) / size, (side * y) / size]);
    return cut === null ? [] : [{ name: 'AB'[i], cut }];
  });
}

/** How light what is cut is, from black to white. */
const cutGrey: Record<Face['kind'], number> = {
  wall: greys.wall,
  column: greys.column,
  beam: 0.45,
  slab: 0.6,
  opening: 1,
};
/** Level lines go on beyond the building, and bubbles lie above it, metres. */
const [beyond, above] = [1.5, 1.2];

/** @param bare whether it is only what a picture lies over */
const faceMark = ({ ring, kind, behind }: Face, bare: boolean, onto: Onto): Mark => ({
  kind: 'area',
  rings: [onto.all(ring)],
  grey: bare || behind > 0 ? 1 : cutGrey[kind],
  stroke: bare || behind > 0 ? pens.fine : pens.plain,
});

/** A model as an upright plane cuts it and sees it, at a true scale, with levels and the grid lines that it crosses. */
export function sectionSheet(
  built: Built,
  { name, cut }: NamedCut,
  wish: PlanWish,
  over: Overlay | null = null,
): Sheet {
  const { model } = built;
  const faces = facesFrom(built, cut);
  const points = [
    ...faces.flatMap(({ ring }) => ring),
    ...(over?.picture.areas.flat() ?? []),
    ...(over?.picture.lines.flat() ?? []),
  ];
  const [x1, y1, x2, y2] = points.length === 0 ? [0, 0, 10, 10] : boxOf(points);
  const box = [x1 - beyond, y1 - beyond / 2, x2 + beyond, y2 + above] as const;
  return framed(
    over === null ? `section ${name}` : `section ${name}, ${over.title}`,
    box,
    wish,
    (onto) => [
      ...faces.map((face) => faceMark(face, over !== null, onto)),
      ...levelMarks(model, x1, x2, onto),
      ...crossingMarks(model, cut, [x1, x2], [y1, y2], onto),
      ...(over === null ? [] : pictureMarks(over, onto)),
    ],
    (layout) =>
      footMarks(layout, { title: `Section ${name}`, below: over?.title ?? 'what is cut is filled', north: null }),
  );
}

const levelMarks = (model: ReadModel, from: number, to: number, onto: Onto): Mark[] =>
  model.levels.flatMap(({ name, elevation }): Mark[] => {
    const [a, b] = onto.all([
      [from - beyond, elevation],
      [to + beyond, elevation],
    ]);
    return [
      { kind: 'line', points: [a, b], closed: false, stroke: pens.axis },
      {
        kind: 'text',
        at: [b[0] + 1.5, b[1] - 0.8],
        text: `${name} ${elevationWords(elevation)}`,
        height: letters.small,
        anchor: 'start',
        turn: 0,
      },
    ];
  });

/** The straight grid lines that a cut crosses, with their bubbles above. */
function crossingMarks(
  model: ReadModel,
  { from, along }: Cut,
  [left, right]: readonly [number, number],
  [low, high]: readonly [number, number],
  onto: Onto,
): Mark[] {
  return model.grids.flatMap((line): Mark[] => {
    if (line.kind !== 'line') return [];
    const [a, b] = [subtract(line.start, from), subtract(line.end, from)];
    const [p, q] = [cross(along, a), cross(along, b)];
    if (p > 0 === q > 0 || p === q) return [];
    const at = dot(a, along) + ((dot(b, along) - dot(a, along)) * p) / (p - q);
    if (at < left || at > right) return [];
    const [foot, head] = onto.all([
      [at, low],
      [at, high + above / 2],
    ]);
    return [
      { kind: 'line', points: [foot, head], closed: false, stroke: pens.axis },
      ...bubbleAt([head[0], head[1] - 4.2], line.label),
    ];
  });
}

/** How far beyond a plan a section's mark begins, past the bubbles of grid lines, and how long it is, millimetres. */
const [markOff, markLength] = [12, 8];

/** Where sections cut a plan: a strong line at either end, an arrow the way it is looked, and the letter. */
export function cutMarks(
  cuts: readonly NamedCut[],
  box: readonly [number, number, number, number],
  onto: Onto,
): Mark[] {
  const corners: Point[] = [
    [box[0], box[1]],
    [box[2], box[1]],
    [box[2], box[3]],
    [box[0], box[3]],
  ];
  return cuts.flatMap(({ name, cut: { from, along } }) => {
    const reach = corners.map((p) => dot(subtract(p, from), along));
    return [Math.min(...reach), Math.max(...reach)].flatMap((end, i): Mark[] => {
      const [x, y] = onto.at([from[0] + along[0] * end, from[1] + along[1] * end]);
      const out = i === 0 ? -1 : 1;
      // Down the sheet is down the plan: y is turned over.
      const d: Point = [along[0] * out, -along[1] * out];
      const look: Point = [-along[1], -along[0]];
      const at = (far: number, side: number): Point => [
        x + d[0] * (markOff + far) + look[0] * side,
        y + d[1] * (markOff + far) + look[1] * side,
      ];
      return [
        { kind: 'line', points: [at(0, 0), at(markLength, 0)], closed: false, stroke: pens.strong },
        {
          kind: 'area',
          rings: [[at(markLength - 3, 0.4), at(markLength, 0.4), at(markLength - 1.5, 3.4)]],
          grey: 0.25,
          stroke: null,
        },
        {
          kind: 'text',
          at: at(markLength + 3, -0.9),
          text: name,
          height: letters.usual,
          anchor: 'middle',
          turn: 0,
          bold: true,
        },
      ];
    });
  });
}
