import type { Transform } from '@/core/geometry/transform';
import { apply } from '@/core/geometry/transform';
import type { Point } from '@/core/geometry/vector';
import { eachSide } from '@/core/underlay/pieces';
import type { Primitives } from '@/core/underlay/primitives';
import type { DrawnLine } from './takeMembers';

/**
 * The straight lines of one layer of a drawing.
 * @param placed from the underlay's own coordinates to the plane
 */
export function linesOnLayer(primitives: Primitives, layer: number, placed: Transform): DrawnLine[] {
  const lines: DrawnLine[] = [];
  const at = (v: number): Point => apply(placed, [primitives.xy[2 * v], primitives.xy[2 * v + 1]]);
  eachSide(primitives, (path, v, next) => {
    if (primitives.layer[path] !== layer || primitives.bulge[v] !== 0) return;
    lines.push({ from: at(v), to: at(next), path });
  });
  return lines;
}
