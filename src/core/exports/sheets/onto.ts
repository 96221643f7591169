import type { Box } from '@/core/geometry/boxIndex';
import type { Point } from '@/core/geometry/vector';
import { foot, margin, papers, sheetFor, type Paper, type PlanWish } from './paper';
import { pens, rectangle, type Mark, type Sheet } from './sheet';

/** From metres in the project to millimetres on the sheet. */
export class Onto {
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

/** A sheet as it is laid out: its paper, its scale, its size in millimetres. */
export interface Layout extends PlanWish {
  paper: Paper;
  scale: number;
  width: number;
  height: number;
}

/**
 * A drawing in the middle of what the foot of a sheet leaves, at a true scale, within a frame.
 * @param box what is drawn, metres
 */
export function framed(
  name: string,
  box: Box,
  wish: PlanWish,
  marks: (onto: Onto) => Mark[],
  footMarks: (layout: Layout) => Mark[],
): Sheet {
  const { paper, scale } = sheetFor(box, wish);
  const [width, height] = papers[paper];
  const [wide, tall] = [((box[2] - box[0]) * 1000) / scale, ((box[3] - box[1]) * 1000) / scale];
  const corner: Point = [(width - wide) / 2, margin + (height - 2 * margin - foot + tall) / 2];
  const frame: Mark = {
    kind: 'line',
    points: rectangle(margin, margin, width - margin, height - margin),
    closed: true,
    stroke: pens.strong,
  };
  return {
    name: `${wish.project}, ${name}`,
    width,
    height,
    marks: [...marks(new Onto(box, scale, corner)), frame, ...footMarks({ ...wish, paper, scale, width, height })],
  };
}

/** A turn that can be read from below or from the right, degrees. */
export const readable = (turn: number): number => {
  const within = ((turn % 360) + 360) % 360;
  return within > 90 && within <= 270 ? within - 180 : within;
};
