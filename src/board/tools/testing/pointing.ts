import type { Point } from '@/core/geometry/vector';
import type { Held } from '../../snapping/held';
import type { Pointing } from '../tool';

/** A pointer at a place of the project, for tests of tools. */
export const at = (p: Point, more: Partial<Pointing> = {}): Pointing => ({
  at: p,
  pixels: [0, 0],
  held: null,
  from: { at: p, pixels: [0, 0] },
  adding: false,
  shift: false,
  alt: false,
  ...more,
});

/** An end of a line of a drawing that the cursor holds on to. */
export const held = (point: Point): Held => ({
  point,
  drawingId: 'd',
  drawingPoint: point,
  words: 'end of line',
  group: 'drawn',
  pixels: 0,
  rank: 0,
});
