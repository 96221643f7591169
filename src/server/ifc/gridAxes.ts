import * as v from 'valibot';
import type { Axis } from '@/core/cut/axes';
import { degrees, type Point } from '@/core/geometry/vector';
import { number, reference, text, type IfcFile } from './ifcFile';
import type { FileUnits } from './units';

const place = v.object({ Coordinates: v.pipe(v.array(number), v.minLength(2)) });
const heading = v.object({ DirectionRatios: v.pipe(v.array(number), v.minLength(2)) });

/** The reader gives truths as they are, or as words. */
const truth = v.pipe(
  v.union([v.boolean(), v.object({ value: v.union([v.boolean(), v.string()]) })]),
  v.transform((found) => (typeof found === 'boolean' ? found : found.value === true || found.value === 'T')),
);

/** The curves that grid lines are, by their classes. */
function curvesOf({ names }: IfcFile) {
  const polyline = v.object({ type: v.literal(names.IFCPOLYLINE), Points: v.pipe(v.array(place), v.minLength(2)) });
  const indexed = v.object({
    type: v.literal(names.IFCINDEXEDPOLYCURVE),
    Points: v.object({ CoordList: v.pipe(v.array(v.pipe(v.array(number), v.minLength(2))), v.minLength(2)) }),
    Segments: v.nullish(v.array(v.object({ type: v.number() }))),
  });
  const line = v.object({
    type: v.literal(names.IFCLINE),
    Pnt: place,
    Dir: v.object({ Orientation: heading, Magnitude: number }),
  });
  const circle = v.object({
    type: v.literal(names.IFCCIRCLE),
    Radius: number,
    Position: v.object({ Location: place, RefDirection: v.nullish(heading) }),
  });
  const end = v.pipe(v.array(v.union([number, place])), v.minLength(1));
  const trimmed = v.object({
    type: v.literal(names.IFCTRIMMEDCURVE),
    BasisCurve: v.variant('type', [line, circle]),
    Trim1: end,
    Trim2: end,
    SenseAgreement: truth,
  });
  return v.variant('type', [polyline, indexed, line, circle, trimmed]);
}
type Curve = v.InferOutput<ReturnType<typeof curvesOf>>;
type Trimmed = Extract<Curve, { BasisCurve: unknown }>;

const grid = v.object({
  ObjectPlacement: v.nullish(reference),
  UAxes: v.array(reference),
  VAxes: v.array(reference),
  WAxes: v.nullish(v.array(reference)),
});
const tag = v.object({ AxisTag: v.nullish(text) });

/** Grid lines that are drawn without ends reach so far from their point, metres. */
const reach = 50;

/**
 * The grid lines of a file in the world, metres.
 * @param untold told the label of each whose curve is none that is read here
 */
export function gridAxesOf(file: IfcFile, units: FileUnits, untold: (label: string) => void): Axis[] {
  const schema = v.object({ AxisCurve: curvesOf(file) });
  return file.idsOf(file.names.IFCGRID).flatMap((id) => {
    const found = file.line(id, grid);
    if (found === null) return [];
    const turn = found.ObjectPlacement ? file.placeOf(found.ObjectPlacement.value) : level;
    const world = ([x, y]: Point): Point => [
      (turn[0] * x + turn[4] * y + turn[12]) * units.length,
      (turn[1] * x + turn[5] * y + turn[13]) * units.length,
    ];
    const turned = degrees(Math.atan2(turn[1], turn[0]));
    return [...found.UAxes, ...found.VAxes, ...(found.WAxes ?? [])].flatMap(({ value }): Axis[] => {
      const label = file.line(value, tag)?.AxisTag?.value ?? '';
      const curve = file.line(value, schema, true)?.AxisCurve;
      const shape = curve === undefined ? null : shapeOf(curve, units);
      if (shape === null) {
        untold(label);
        return [];
      }
      if ('points' in shape) return [{ label, shape: 'line', points: shape.points.map(world) }];
      const { centre, radius, from, to } = shape;
      const placed = { centre: world(centre), radius: radius * units.length };
      return [{ label, shape: 'arc', ...placed, from: from + turned, to: to + turned }];
    });
  });
}

/** The place of what has none: the world's own. */
const level = [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1];

type Shape = { points: Point[] } | { centre: Point; radius: number; from: number; to: number };

const pointOf = ({ Coordinates: [x, y] }: v.InferOutput<typeof place>): Point => [x, y];

/** A curve in the unit of the file, angles in degrees; null for one with arcs among lines. */
function shapeOf(curve: Curve, units: FileUnits): Shape | null {
  if ('BasisCurve' in curve) return trimmedShape(curve, units);
  if ('Radius' in curve) return { centre: pointOf(curve.Position.Location), radius: curve.Radius, from: 0, to: 360 };
  if ('Pnt' in curve) return { points: [-1, 1].map((side) => alongLine(curve, (side * reach) / units.length)) };
  if (Array.isArray(curve.Points)) return { points: curve.Points.map(pointOf) };
  if ('Segments' in curve && (curve.Segments ?? []).length > 0) return null;
  return { points: curve.Points.CoordList.map(([x, y]): Point => [x, y]) };
}

type Line = Extract<Trimmed['BasisCurve'], { Pnt: unknown }>;

/** A point of a line. @param length from its own point, in the unit of the file */
function alongLine({ Pnt, Dir }: Line, length: number): Point {
  const [x, y] = pointOf(Pnt);
  const [dx, dy] = Dir.Orientation.DirectionRatios;
  const size = Math.hypot(dx, dy) || 1;
  return [x + (dx / size) * length, y + (dy / size) * length];
}

function trimmedShape({ BasisCurve: basis, Trim1, Trim2, SenseAgreement }: Trimmed, units: FileUnits): Shape | null {
  const ends = [Trim1, Trim2].map((trim) => trim.find((one) => typeof one !== 'number') ?? trim[0]);
  if ('Pnt' in basis)
    return {
      points: ends.map((end) => (typeof end === 'number' ? alongLine(basis, end * basis.Dir.Magnitude) : pointOf(end))),
    };
  const centre = pointOf(basis.Position.Location);
  const [rx, ry] = basis.Position.RefDirection?.DirectionRatios ?? [1, 0];
  const own = degrees(Math.atan2(ry, rx));
  const [a, b] = ends.map((end) => {
    if (typeof end === 'number') return own + degrees(end * units.angle);
    const [x, y] = pointOf(end);
    return degrees(Math.atan2(y - centre[1], x - centre[0]));
  });
  const [from, to] = SenseAgreement ? [a, b] : [b, a];
  return { centre, radius: basis.Radius, from, to };
}
