import { add, degrees, direction, distance, scale, subtract, type Point } from '@/core/geometry/vector';
import type { GridLine } from '@/core/kinds/grid';
import { proposeLabel } from '@/core/kinds/gridLabels';
import type { Model } from '@/core/model/model';
import { fail, ok, type Result } from '@/core/result';
import { labelsTaken } from '../labels';

/** Grid lines by spacings go on this far beyond the outermost lines of the other direction, metres. */
const overrun = 1.5;

/** A label not taken yet, which is taken with it; numbers for what runs up, letters for what runs across. */
function take(taken: Set<string>, upright: boolean): string {
  const label = proposeLabel(upright, taken);
  taken.add(label);
  return label;
}

/** Whether a line runs rather up than across, along axes that are turned by an angle. */
function isUpright(a: Point, b: Point, axes: number): boolean {
  const [x, y] = subtract(b, a);
  const u = direction(axes);
  return Math.abs(-x * u[1] + y * u[0]) > Math.abs(x * u[0] + y * u[1]);
}

/** One straight grid line. @param axes the angle of the working axes, radians */
export const gridLine = (model: Model, start: Point, end: Point, axes: number, label = ''): GridLine => ({
  kind: 'line',
  label: label || proposeLabel(isUpright(start, end, axes), labelsTaken(model)),
  start,
  end,
});

/** Where lines stand by their spacings: the first at zero. */
const places = (spacings: readonly number[]): number[] =>
  spacings.reduce((at, spacing) => [...at, at[at.length - 1] + spacing], [0]);

/**
 * Two families of grid lines at right angles by their spacings, the first crossing at a point.
 * @param across spacings of the lines that run up, metres; `up` those of the lines that run across
 * @param axes the angle of the axes that they follow, radians
 */
export function gridBySpacings(
  model: Model,
  origin: Point,
  { across, up, axes }: { across: readonly number[]; up: readonly number[]; axes: number },
): GridLine[] {
  const taken = labelsTaken(model);
  const [u, v] = [direction(axes), direction(axes + Math.PI / 2)];
  const at = (x: number, y: number): Point => add(origin, add(scale(u, x), scale(v, y)));
  const [xs, ys] = [places(across), places(up)];
  const [right, top] = [xs[xs.length - 1] + overrun, ys[ys.length - 1] + overrun];
  return [
    ...xs.map((x): GridLine => ({
      kind: 'line',
      label: take(taken, true),
      start: at(x, -overrun),
      end: at(x, top),
    })),
    ...ys.map((y): GridLine => ({
      kind: 'line',
      label: take(taken, false),
      start: at(-overrun, y),
      end: at(right, y),
    })),
  ];
}

/** An arc of the grid about a centre, from one point counter-clockwise to the direction of another. */
export function gridArc(model: Model, centre: Point, from: Point, to: Point): Result<GridLine> {
  const radius = distance(centre, from);
  if (radius === 0 || distance(centre, to) === 0) return fail('The arc has no radius. Click beside its centre.');
  const angle = (p: Point): number => degrees(Math.atan2(p[1] - centre[1], p[0] - centre[0]));
  const start = angle(from);
  const sweep = (((angle(to) - start) % 360) + 360) % 360;
  if (sweep === 0) return fail('The arc ends where it begins. Click in another direction from its centre.');
  return ok({
    kind: 'arc',
    label: proposeLabel(false, labelsTaken(model)),
    centre,
    radius,
    startAngle: start,
    endAngle: start + sweep,
  });
}

/**
 * Copies of a grid line beside it, each a spacing further.
 * @param side a point on the side they come to
 */
export function gridCopied(model: Model, line: GridLine, spacings: readonly number[], side: Point): GridLine[] {
  const taken = labelsTaken(model);
  const away = places(spacings).slice(1);
  if (line.kind === 'arc') {
    const outside = distance(line.centre, side) >= line.radius ? 1 : -1;
    return away
      .map((by) => line.radius + outside * by)
      .filter((radius) => radius > 0)
      .map((radius): GridLine => ({ ...line, radius, label: take(taken, false) }));
  }
  const along = subtract(line.end, line.start);
  const length = Math.hypot(...along);
  const normal: Point = [-along[1] / length, along[0] / length];
  const [dx, dy] = subtract(side, line.start);
  const left = dx * normal[0] + dy * normal[1] >= 0 ? 1 : -1;
  return away.map((by): GridLine => {
    const shift = scale(normal, left * by);
    const upright = isUpright(line.start, line.end, 0);
    return { ...line, label: take(taken, upright), start: add(line.start, shift), end: add(line.end, shift) };
  });
}
