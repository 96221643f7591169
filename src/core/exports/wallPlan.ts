import type { Point } from '@/core/geometry/vector';
import type { ReadModel } from '@/core/handover/model/readModel';
import { bulgedLine, lengthOfLine } from '@/core/kinds/lines';

type Opening = ReadModel['openings'][number];

/** A wall as a plan cuts it. */
export interface WallPlan {
  /** Its centre line; arcs as chords. */
  line: Point[];
  length: number;
  /** From where to where it is solid, metres along its line. */
  solid: [from: number, to: number][];
  /** Its openings in their order. */
  openings: Opening[];
}

/** A wall with its openings, as a plan cuts it; null of one without length. */
export function wallPlan(wall: ReadModel['walls'][number], all: readonly Opening[]): WallPlan | null {
  const line = bulgedLine(wall.start, wall.end, wall.bulge);
  const length = lengthOfLine(line);
  if (length === 0) return null;
  const openings = [...all].sort((a, b) => a.offset - b.offset);
  const solid: [number, number][] = [];
  let from = 0;
  for (const { offset, width } of openings) {
    if (offset > from) solid.push([from, offset]);
    from = Math.max(from, offset + width);
  }
  if (from < length) solid.push([from, length]);
  return { line, length, solid, openings };
}
