import type { Point } from '@/core/geometry/vector';

/** Something to be looked at: its corners, about the drawing's origin and in its units. */
export interface Target {
  drawingId: string;
  corners: Point[];
  height: number;
}
