import { direction, distance, radians, scale, subtract, type Point } from '@/core/geometry/vector';
import { textHeight, type Mark } from './plan';

/** A grid line with its label, metres; arcs counter-clockwise, degrees. */
export type Axis =
  | { label: string; shape: 'line'; points: readonly Point[] }
  | { label: string; shape: 'arc'; centre: Point; radius: number; from: number; to: number };

/** Rings about labels have this radius, metres: 5 mm at 1:100. */
const ringRadius = 0.5;

/** A grid line, with its label in a ring at each end. */
export function marksOf(axis: Axis): Mark[] {
  const layer = 'GRID';
  const ends = endsOf(axis);
  const line: Mark =
    axis.shape === 'line'
      ? { layer, shape: 'line', points: [...axis.points], closed: false }
      : { layer, shape: 'arc', centre: axis.centre, radius: axis.radius, from: axis.from, to: axis.to };
  const rings = ends.flatMap(({ at, away }): Mark[] => {
    const centre: Point = [at[0] + away[0] * ringRadius, at[1] + away[1] * ringRadius];
    return [
      { layer, shape: 'circle', centre, radius: ringRadius },
      { layer, shape: 'text', at: centre, height: textHeight, text: axis.label },
    ];
  });
  return axis.label === '' ? [line] : [line, ...rings];
}

/** The ends of a grid line, and the direction in which it would go on there. */
function endsOf(axis: Axis): { at: Point; away: Point }[] {
  if (axis.shape === 'line') {
    const { points } = axis;
    const last = points.length - 1;
    return [
      { at: points[0], away: towards(points[1], points[0]) },
      { at: points[last], away: towards(points[last - 1], points[last]) },
    ];
  }
  const { centre, radius, from, to } = axis;
  return (
    [
      [from, -1],
      [to, 1],
    ] as const
  ).map(([degrees, sign]) => {
    const [c, s] = direction(radians(degrees));
    return { at: [centre[0] + radius * c, centre[1] + radius * s], away: [-s * sign, c * sign] };
  });
}

const towards = (from: Point, to: Point): Point => scale(subtract(to, from), 1 / (distance(from, to) || 1));
