import type { Point } from '@/core/geometry/vector';

/** A column that may interrupt a wall: its middle, and how far it reaches. */
export interface Obstacle {
  at: Point;
  reach: number;
}
