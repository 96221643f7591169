import { area } from '@/core/geometry/polygon';
import { cross, distance, lineCrossing, subtract, type Point } from '@/core/geometry/vector';
import type { Segment } from './network';

/** What the sides of a room are made of: a straight wall between two nodes, which are the same objects where shared. */
export interface Edge {
  start: Point;
  end: Point;
  thickness: number;
}

/** A side of a face of the network: the wall, walked from one node to the other with the face on its left. */
export interface FaceSide<E extends Edge = Segment> {
  segment: E;
  from: Point;
  to: Point;
}

/** A face of the network of centre lines: a room, or, walked the other way round, the outside of a part of it. */
export interface NetworkFace<E extends Edge = Segment> {
  sides: FaceSide<E>[];
  outer: boolean;
}

interface Half<E extends Edge> extends FaceSide<E> {
  angle: number;
  next: Half<E>;
  seen: boolean;
  twin: Half<E>;
}

/**
 * The faces of the planar graph that the walls' centre lines make, by walking its half edges and turning as far to the
 * right as possible at every node (de
 * Berg and others, Computational Geometry, chapter 2). Walls that end free bound no room and are left out.
 */
export function facesOfNetwork<E extends Edge>(segments: readonly E[]): NetworkFace<E>[] {
  const nodes = new Map<Point, Half<E>[]>();
  for (const segment of withoutFreeEnds(segments)) {
    const make = (from: Point, to: Point): Half<E> =>
      ({ segment, from, to, angle: Math.atan2(to[1] - from[1], to[0] - from[0]), seen: false }) as Half<E>;
    const [there, back] = [make(segment.start, segment.end), make(segment.end, segment.start)];
    [there.twin, back.twin] = [back, there];
    for (const half of [there, back]) {
      const list = nodes.get(half.from);
      if (list) list.push(half);
      else nodes.set(half.from, [half]);
    }
  }
  for (const around of nodes.values()) {
    around.sort((a, b) => a.angle - b.angle);
    // Who comes in along a wall leaves along the next one clockwise: so the face stays on the left.
    around.forEach((half, i) => {
      half.twin.next = around[(i + around.length - 1) % around.length];
    });
  }
  const faces: NetworkFace<E>[] = [];
  for (const around of nodes.values()) {
    for (const first of around) {
      if (first.seen) continue;
      const sides: FaceSide<E>[] = [];
      for (let half = first; !half.seen; half = half.next) {
        half.seen = true;
        sides.push({ segment: half.segment, from: half.from, to: half.to });
      }
      faces.push({ sides, outer: area(sides.map(({ from }) => from)) < 0 });
    }
  }
  return faces;
}

/** Leaves out walls with a node that no other wall shares, again and again: nibs and what hangs on them. */
function withoutFreeEnds<E extends Edge>(segments: readonly E[]): E[] {
  let left = segments.filter(({ start, end }) => start !== end);
  for (;;) {
    const degree = new Map<Point, number>();
    for (const { start, end } of left) for (const node of [start, end]) degree.set(node, (degree.get(node) ?? 0) + 1);
    const kept = left.filter(({ start, end }) => degree.get(start)! > 1 && degree.get(end)! > 1);
    if (kept.length === left.length) return kept;
    left = kept;
  }
}

/**
 * The outline of a face by the faces of its walls: every side shifted by half its wall's thickness.
 * @param towards 1 for the faces inside it, -1 for those outside
 */
export function shifted<E extends Edge>({ sides }: NetworkFace<E>, towards: 1 | -1): Point[] {
  const lines = sides.map(({ segment, from, to }) => {
    const length = distance(from, to);
    const [nx, ny] = [-(to[1] - from[1]) / length, (to[0] - from[0]) / length];
    const by = (towards * segment.thickness) / 2;
    return { a: [from[0] + nx * by, from[1] + ny * by] as Point, b: [to[0] + nx * by, to[1] + ny * by] as Point };
  });
  const points: Point[] = [];
  lines.forEach(({ a, b }, i) => {
    const before = lines[(i + lines.length - 1) % lines.length];
    const bend =
      Math.abs(cross(subtract(before.b, before.a), subtract(b, a))) / (distance(before.a, before.b) * distance(a, b));
    const hit = bend < 0.02 ? null : lineCrossing(before.a, before.b, a, b);
    // Walls that go straight on, of one thickness or two, meet in a step.
    if (hit === null) {
      if (distance(before.b, a) > 1e-6) points.push(before.b);
      points.push(a);
    } else points.push(hit.point);
  });
  return points;
}
