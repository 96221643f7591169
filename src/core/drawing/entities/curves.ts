import { Flag, Kind } from '../drawing';
import { elevationFlag, extrusionOf, pushElevation, type EntityBuilder } from './context';

const radian = Math.PI / 180;

export const line: EntityBuilder = ({ record, rows, layer, style, handle, flags }) => {
  if (!record.has(10) || !record.has(11)) return 'damaged';
  const [z1, z2] = [record.number(30, 0), record.number(31, 0)];
  const high = z1 !== 0 || z2 !== 0;
  rows.begin(Kind.line, flags | (high ? Flag.elevation : 0), layer, style, handle);
  const numbers = rows.numbers;
  numbers.push(record.number(10, 0));
  numbers.push(record.number(20, 0));
  numbers.push(record.number(11, 0));
  numbers.push(record.number(21, 0));
  if (high) { numbers.push(z1); numbers.push(z2); }
  return null;
};

export const point: EntityBuilder = ({ record, rows, layer, style, handle, flags }) => {
  if (!record.has(10)) return 'damaged';
  const z = record.number(30, 0);
  rows.begin(Kind.point, flags | elevationFlag(z), layer, style, handle);
  rows.numbers.push(record.number(10, 0));
  rows.numbers.push(record.number(20, 0));
  pushElevation(rows, z);
  return null;
};

export const circle: EntityBuilder = ({ record, rows, layer, style, handle, flags }) => {
  if (!record.has(10) || !record.has(40)) return 'damaged';
  const plane = extrusionOf(record);
  if (plane === 'tilted') return 'tilted';
  const radius = Math.abs(record.number(40, 0));
  if (radius === 0) return 'noGeometry';
  const z = record.number(30, 0);
  rows.begin(Kind.circle, flags | elevationFlag(z), layer, style, handle);
  rows.numbers.push(plane === 'mirrored' ? -record.number(10, 0) : record.number(10, 0));
  rows.numbers.push(record.number(20, 0));
  rows.numbers.push(radius);
  pushElevation(rows, z);
  return null;
};

export const arc: EntityBuilder = ({ record, rows, layer, style, handle, flags }) => {
  if (!record.has(10) || !record.has(40)) return 'damaged';
  const plane = extrusionOf(record);
  if (plane === 'tilted') return 'tilted';
  const radius = Math.abs(record.number(40, 0));
  if (radius === 0) return 'noGeometry';
  let [start, end] = [record.number(50, 0) * radian, record.number(51, 360) * radian];
  if (plane === 'mirrored') [start, end] = [Math.PI - end, Math.PI - start];
  const z = record.number(30, 0);
  rows.begin(Kind.arc, flags | elevationFlag(z), layer, style, handle);
  rows.numbers.push(plane === 'mirrored' ? -record.number(10, 0) : record.number(10, 0));
  rows.numbers.push(record.number(20, 0));
  rows.numbers.push(radius);
  rows.numbers.push(start);
  rows.numbers.push(end);
  pushElevation(rows, z);
  return null;
};
