import { degrees, type Point } from '@/core/geometry/vector';
import type { Shell } from './body';

/** A door or a window, with the opening of a wall that it fills. */
export interface Filling {
  kind: 'DOOR' | 'WINDOW';
  opening: readonly Shell[];
  /** How a door moves, and where: its own x runs along the wall, it opens towards its own y. Null where not said. */
  swing: Swing | null;
}

/** What a door's leaves do: one hung at the begin or at the end of its x, or two. */
export interface Swing {
  leaves: 'begin' | 'end' | 'both';
  origin: Point;
  /** Along the wall, of length one. */
  along: Point;
  /** The direction it opens to, of length one. */
  towards: Point;
}

/** A leaf as a plan shows it: the leaf open by a right angle, and the way of its end. Angles in degrees. */
export interface Leaf {
  hinge: Point;
  end: Point;
  radius: number;
  from: number;
  to: number;
}

/** The leaves of a door in an opening. @param outline of the opening in plan, metres */
export function leavesOf(outline: readonly Point[], { leaves, origin, along, towards }: Swing): Leaf[] {
  const over = (axis: Point): number[] =>
    outline.map(([x, y]) => (x - origin[0]) * axis[0] + (y - origin[1]) * axis[1]);
  const [xs, ys] = [over(along), over(towards)];
  // Openings often reach beyond their wall, to both sides alike: the middle is the wall's.
  const [begin, end, face] = [Math.min(...xs), Math.max(...xs), (Math.min(...ys) + Math.max(...ys)) / 2];
  const at = (x: number, y: number): Point => [
    origin[0] + along[0] * x + towards[0] * y,
    origin[1] + along[1] * x + towards[1] * y,
  ];
  const leaf = (hinged: number, closing: number): Leaf => {
    const radius = Math.abs(closing - hinged);
    const [hinge, shut, open] = [at(hinged, face), at(closing, face), at(hinged, face + radius)];
    const angle = (to: Point): number => degrees(Math.atan2(to[1] - hinge[1], to[0] - hinge[0]));
    const [a, b] = [angle(shut), angle(open)];
    // Arcs run counter-clockwise: from the shut leaf to the open one, or the other way round.
    const [from, to] = (b - a + 360) % 360 < 180 ? [a, b] : [b, a];
    return { hinge, end: open, radius, from, to };
  };
  const middle = (begin + end) / 2;
  if (leaves === 'both') return [leaf(begin, middle), leaf(end, middle)];
  return [leaves === 'begin' ? leaf(begin, end) : leaf(end, begin)];
}
