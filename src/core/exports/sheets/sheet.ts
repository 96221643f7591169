import type { Point } from '@/core/geometry/vector';

/** How a line is drawn: its width, and its dashes, millimetres. */
export interface Stroke {
  width: number;
  dashes?: readonly number[];
}

/** Something drawn on a sheet: millimetres from its upper left corner, y downward. */
export type Mark =
  | { kind: 'line'; points: readonly Point[]; closed: boolean; stroke: Stroke }
  | { kind: 'area'; rings: readonly (readonly Point[])[]; grey: number; stroke: Stroke | null }
  | { kind: 'circle'; at: Point; radius: number; stroke: Stroke }
  | {
      kind: 'text';
      at: Point;
      text: string;
      /** Of its capitals, millimetres. */
      height: number;
      anchor: 'start' | 'middle' | 'end';
      /** Degrees, clockwise. */
      turn: number;
      bold?: true;
    };

/** A sheet with what is drawn on it. */
export interface Sheet {
  name: string;
  /** Millimetres. */
  width: number;
  height: number;
  marks: readonly Mark[];
}

/** Pens of ISO 128, millimetres. */
export const pens = {
  fine: { width: 0.13 },
  thin: { width: 0.18 },
  plain: { width: 0.25 },
  strong: { width: 0.5 },
  axis: { width: 0.18, dashes: [6, 1.5, 0.8, 1.5] },
  hidden: { width: 0.18, dashes: [2, 1] },
} as const satisfies Record<string, Stroke>;

/** How light areas are, from black to white. */
export const greys = { wall: 0.78, column: 0.25, slab: 0.97 } as const;

/** Letters of small texts, of labels and of the title, millimetres (ISO 3098). */
export const letters = { small: 1.8, usual: 2.5, large: 5 } as const;

/** The corners of a rectangle. */
export const rectangle = (x1: number, y1: number, x2: number, y2: number): Point[] => [
  [x1, y1],
  [x2, y1],
  [x2, y2],
  [x1, y2],
];
