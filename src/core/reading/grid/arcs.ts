import type { PlacedPath } from '@/core/placed/placed';
import { arcOfBulge } from '@/core/geometry/bulge';
import { distance, type Point } from '@/core/geometry/vector';

/** An arc of the grid put together from its pieces; angles in radians, counter-clockwise. */
export interface JoinedArc {
  centre: Point;
  radius: number;
  start: number;
  sweep: number;
  handles: string[];
  pieces: number;
}

/** Arcs on the grid's layers, those round one centre with one radius joined where they touch or overlap. */
export function joinArcs(paths: readonly PlacedPath[], tolerance: number): JoinedArc[] {
  const joined: JoinedArc[] = [];
  for (const path of paths) {
    const last = path.points.length - (path.closed ? 0 : 1);
    for (let i = 0; i < last; i += 1) {
      if (path.bulges[i] === 0) continue;
      const arc = arcOfBulge(path.points[i], path.points[(i + 1) % path.points.length], path.bulges[i]);
      const start = arc.sweep >= 0 ? arc.start : arc.start + arc.sweep;
      const sweep = Math.abs(arc.sweep);
      const twin = joined.find(
        (other) =>
          distance(other.centre, arc.centre) <= tolerance &&
          Math.abs(other.radius - arc.radius) <= tolerance &&
          meet(other, start, sweep, tolerance / arc.radius),
      );
      if (twin) extend(twin, start, sweep, path.handle);
      else joined.push({ centre: arc.centre, radius: arc.radius, start, sweep, handles: [path.handle], pieces: 1 });
    }
  }
  return joined;
}

const turn = (angle: number) => angle - Math.floor(angle / (2 * Math.PI)) * 2 * Math.PI;

function meet(arc: JoinedArc, start: number, sweep: number, slack: number): boolean {
  return (
    turn(start - arc.start + slack) <= arc.sweep + 2 * slack || turn(arc.start - start + slack) <= sweep + 2 * slack
  );
}

function extend(arc: JoinedArc, start: number, sweep: number, handle: string): void {
  const ahead = turn(start - arc.start);
  if (ahead <= arc.sweep + 1e-9) arc.sweep = Math.min(2 * Math.PI, Math.max(arc.sweep, ahead + sweep));
  else {
    const behind = turn(arc.start - start);
    arc.sweep = Math.min(2 * Math.PI, Math.max(sweep, behind + arc.sweep));
    arc.start = start;
  }
  arc.handles.push(handle);
  arc.pieces += 1;
}
