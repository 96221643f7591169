import type { Point } from '@/core/geometry/vector';

/** Where a line came from. There is one object an entity and insert, so that sources are compared as objects. */
export interface From {
  handle: string;
  entity: number;
  layer: number;
}

/** A path of the drawing, placed: vertices in metres in the project. */
export interface PlacedPath extends From {
  points: Point[];
  bulges: number[];
  closed: boolean;
  circle: boolean;
  /** How high it lies in the drawing, metres; left out at zero. */
  elevation?: number;
  source: From;
  /** Of a path that loose lines were joined to: where each of them came from. */
  parts?: readonly From[];
}

export interface PlacedText {
  text: string;
  at: Point;
  height: number;
  /** Radians, counter-clockwise. */ angle: number;
  handle: string;
  entity: number;
  layer: number;
}
