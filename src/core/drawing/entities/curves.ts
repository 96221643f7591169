import { Kind } from '../drawing';
import { Flag } from '../drawing';
import { splineNumbers } from '../splineLayout';
import { beginRow, endRow, planeOf, writeRow, type EntityBuilder } from './context';

const radian = Math.PI / 180;

export const line: EntityBuilder = ({ record, rows, layer, style, handle, flags }) => {
  if (!record.has(10) || !record.has(11)) return 'damaged';
  const [z1, z2] = [record.number(30, 0), record.number(31, 0)];
  const high = z1 !== 0 || z2 !== 0;
  rows.begin(Kind.line, flags | (high ? Flag.heights : 0), layer, style, handle);
  const numbers = rows.numbers;
  numbers.push(record.number(10, 0));
  numbers.push(record.number(20, 0));
  numbers.push(record.number(11, 0));
  numbers.push(record.number(21, 0));
  if (high) {
    numbers.push(z1);
    numbers.push(z2);
  }
  return null;
};

export const point: EntityBuilder = (context) => {
  const { record } = context;
  if (!record.has(10)) return 'damaged';
  writeRow(context, Kind.point, [record.number(10, 0), record.number(20, 0)], record.number(30, 0));
  return null;
};

/** CIRCLE and ARC, whose centre lies in the entity's own plane. */
const round =
  (kind: number, angles: boolean): EntityBuilder =>
  (context) => {
    const { record, rows } = context;
    if (!record.has(10) || !record.has(40)) return 'damaged';
    const radius = Math.abs(record.number(40, 0));
    if (radius === 0) return 'noGeometry';
    const z = record.number(30, 0);
    const plane = planeOf(context);
    beginRow(context, kind, 0, z, plane);
    rows.numbers.push(record.number(10, 0));
    rows.numbers.push(record.number(20, 0));
    rows.numbers.push(radius);
    if (angles) {
      rows.numbers.push(record.number(50, 0) * radian);
      rows.numbers.push(record.number(51, 360) * radian);
    }
    endRow(rows, z, plane);
    return null;
  };

export const circle = round(Kind.circle, false);
export const arc = round(Kind.arc, true);

/** ELLIPSE: centre and major axis in world coordinates; the minor axis is normal x major, times the ratio. */
export const ellipse: EntityBuilder = (context) => {
  const { record } = context;
  if (!record.has(10) || !record.has(11)) return 'damaged';
  const [mx, my, mz] = [record.number(11, 0), record.number(21, 0), record.number(31, 0)];
  const ratio = record.number(40, 1);
  if (Math.hypot(mx, my, mz) === 0 || ratio === 0) return 'noGeometry';
  let [nx, ny, nz] = [record.number(210, 0), record.number(220, 0), record.number(230, 1)];
  const size = Math.hypot(nx, ny, nz) || 1;
  [nx, ny, nz] = [nx / size, ny / size, nz / size];
  const [bx, by] = [(ny * mz - nz * my) * ratio, (nz * mx - nx * mz) * ratio];
  writeRow(
    context,
    Kind.ellipse,
    [record.number(10, 0), record.number(20, 0), mx, my, bx, by, record.number(41, 0), record.number(42, 2 * Math.PI)],
    record.number(30, 0),
  );
  return null;
};

/** SPLINE: knots 40, control points 10, weights 41, fit points 11, end tangents 12 and 13. */
export const spline: EntityBuilder = (context) => {
  const { record } = context;
  const [knots, controls, weights, fits]: number[][] = [[], [], [], []];
  const z = record.number(record.has(10) ? 30 : 31, 0);
  for (let i = 0; i < record.length; i += 1) {
    const value = record.values[i];
    switch (record.codes[i]) {
      case 40:
        knots.push(value);
        break;
      case 41:
        weights.push(value);
        break;
      case 10:
        controls.push(value, 0);
        break;
      case 20:
        if (controls.length > 0) controls[controls.length - 1] = value;
        break;
      case 11:
        fits.push(value, 0);
        break;
      case 21:
        if (fits.length > 0) fits[fits.length - 1] = value;
        break;
    }
  }
  const numbers = splineNumbers({
    degree: record.number(71, 3),
    closed: (record.number(70, 0) & 1) === 1,
    knots,
    controls,
    weights,
    fits,
  });
  if (numbers === null) return controls.length + fits.length < 4 ? 'noGeometry' : 'damaged';
  writeRow(context, Kind.spline, numbers, z);
  return null;
};

/** XLINE (both ways) and RAY (one way), a point and a direction. */
export const endless =
  (kind: number, both: number): EntityBuilder =>
  (context) => {
    const { record } = context;
    if (!record.has(10) || !record.has(11)) return 'damaged';
    const [dx, dy] = [record.number(11, 0), record.number(21, 0)];
    const size = Math.hypot(dx, dy);
    if (size < 1e-12) return 'noGeometry';
    writeRow(context, kind, [record.number(10, 0), record.number(20, 0), dx / size, dy / size, both]);
    return null;
  };
