import { Kind } from '../drawing';
import { plainMultilineText } from '../strings';
import { planeOf, writeRow, type EntityBuilder } from './context';

const radian = Math.PI / 180;

/**
 * INSERT: a block placed with scales, an angle and perhaps an array. Its block is kept by name until the file has
 * ended.
 */
export const insert: EntityBuilder = (context) => {
  const { record, blockNames, decoder } = context;
  const name = record.bytes(2);
  if (name === null || !record.has(10)) return 'damaged';
  writeRow(
    context,
    Kind.insert,
    [
      record.number(10, 0),
      record.number(20, 0),
      record.number(41, 1) || 1,
      record.number(42, 1) || 1,
      record.number(50, 0) * radian,
      blockNames.intern(name, 0, name.length, decoder),
      Math.max(1, record.number(70, 1)),
      Math.max(1, record.number(71, 1)),
      record.number(44, 0),
      record.number(45, 0),
      record.number(43, 1),
    ],
    record.number(30, 0),
    planeOf(context),
  );
  return null;
};

/** ACAD_TABLE: its picture is a block, set down at 10 along the direction 11. */
export const table: EntityBuilder = (context) => {
  const { record, blockNames, decoder } = context;
  const name = record.bytes(2);
  if (name === null || !record.has(10)) return 'damaged';
  writeRow(context, Kind.table, [
    record.number(10, 0),
    record.number(20, 0),
    1,
    1,
    record.has(11) ? Math.atan2(record.number(21, 0), record.number(11, 1)) : 0,
    blockNames.intern(name, 0, name.length, decoder),
    1,
    1,
    0,
    0,
    1,
  ]);
  return null;
};

/** DIMENSION: its picture is a block in the dimension's own coordinates; what it measures is kept beside. */
export const dimension: EntityBuilder = (context) => {
  const { record, rows, blockNames, decoder } = context;
  if (!record.has(10)) return 'damaged';
  const name = record.bytes(2);
  const override = plainMultilineText(record.string(1, decoder)).trim();
  const measured = record.number(42, -1);
  const point = (code: number) => [record.number(code, NaN), record.number(code + 10, NaN)];
  writeRow(context, Kind.dimension, [
    record.number(12, 0),
    record.number(22, 0),
    1,
    1,
    0,
    name === null || name.length === 0 ? -1 : blockNames.intern(name, 0, name.length, decoder),
    1,
    1,
    0,
    0,
    1,
    record.number(70, 0) & 7,
    measured >= 0 ? measured : NaN,
    override === '' ? -1 : rows.string(override),
    ...[10, 11, 13, 14, 15, 16].flatMap(point),
    record.number(50, 0) * radian,
  ]);
  return null;
};
