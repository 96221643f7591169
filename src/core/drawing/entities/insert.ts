import { Flag, Kind } from '../drawing';
import { elevationFlag, extrusionOf, pushElevation, type EntityBuilder } from './context';

/** INSERT: a block placed with scales, an angle and perhaps an array. Its block is kept by name until the file has ended. */
export const insert: EntityBuilder = ({ record, rows, blockNames, decoder, layer, style, handle, flags }) => {
  const name = record.bytes(2);
  if (name === null || !record.has(10)) return 'damaged';
  const plane = extrusionOf(record);
  if (plane === 'tilted') return 'tilted';
  const z = record.number(30, 0);
  rows.begin(Kind.insert, flags | (plane === 'mirrored' ? Flag.mirrored : 0) | elevationFlag(z), layer, style, handle);
  const numbers = [
    record.number(10, 0), record.number(20, 0), record.number(41, 1), record.number(42, 1), (record.number(50, 0) * Math.PI) / 180,
    blockNames.intern(name, 0, name.length, decoder),
    Math.max(1, record.number(70, 1)), Math.max(1, record.number(71, 1)), record.number(44, 0), record.number(45, 0),
  ];
  for (const value of numbers) rows.numbers.push(value);
  pushElevation(rows, z);
  return null;
};
