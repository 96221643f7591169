import { Flag, Kind } from '../drawing';
import { plainMultilineText, plainText } from '../strings';
import { planeOf, writeRow, type EntityBuilder, type EntityContext } from './context';

const radian = Math.PI / 180;

/** A text as a row keeps it; a negative width is that of a text written mirror-wise. */
export interface TextData {
  x: number;
  y: number;
  height: number;
  angle: number;
  width: number;
  across: number;
  up: number;
  text: string;
}

export function writeText(
  context: EntityContext,
  kind: number,
  { x, y, height, angle, width, across, up, text }: TextData,
  z: number,
  plane: number,
): void {
  writeRow(context, kind, [x, y, height, angle, width, across, up, context.rows.string(text)], z, plane);
}

/** TEXT, ATTRIB and ATTDEF share their groups, but for the vertical justification: 73 in a text, 74 in an attribute. */
function singleLine(context: EntityContext, kind: number, upCode: number, textCode = 1): ReturnType<EntityBuilder> {
  const { record, decoder } = context;
  if (!record.has(10)) return 'damaged';
  const text = plainText(record.string(textCode, decoder));
  if (text.trim() === '') return 'noGeometry';
  const [across, up] = [record.number(72, 0), record.number(upCode, 0)];
  let [x, y] = [record.number(10, 0), record.number(20, 0)];
  let angle = record.number(50, 0) * radian;
  const second = record.has(11);
  if ((across === 3 || across === 5) && second) {
    // Aligned and fitted texts run from the first point to the second.
    angle = Math.atan2(record.number(21, 0) - y, record.number(11, 0) - x);
  } else if ((across !== 0 || up !== 0) && second) [x, y] = [record.number(11, 0), record.number(21, 0)];
  const middle = across === 4;
  let column;
  if (across === 1 || middle) column = 1;
  else if (across === 2) column = 2;
  else column = 0;

  // Written backwards (71, bit 2) it runs the other way with its letters turned over; upside down (bit 4) they are
  // turned over only.
  const generation = record.number(71, 0);
  const [backwards, upsideDown] = [(generation & 2) !== 0, (generation & 4) !== 0];
  if (backwards) angle += Math.PI;
  const width = Math.abs(record.number(41, 1)) || 1;
  writeText(
    context,
    kind,
    {
      x,
      y,
      height: record.number(40, 1),
      angle,
      width: backwards === upsideDown ? width : -width,
      across: column,
      up: middle ? 2 : Math.min(3, Math.max(0, up)),
      text,
    },
    record.number(30, 0),
    planeOf(context),
  );
  return null;
}

export const text: EntityBuilder = (context) => singleLine(context, Kind.text, 73);

/** A value written into an inserted block; an invisible one (70, bit 1) stays readable but is not drawn. */
export const attribute: EntityBuilder = (context) =>
  singleLine(
    (context.record.number(70, 0) & 1) === 1 ? { ...context, flags: context.flags | Flag.invisible } : context,
    Kind.attribute,
    74,
  );

/**
 * What an attribute is to be: in the model space its tag is drawn; inside a block only a constant one is, with its
 * value.
 */
export const attributeDefinition: EntityBuilder = (context) => {
  const flags = context.record.number(70, 0);
  const constant = (flags & 2) === 2;
  return singleLine(
    { ...context, flags: context.flags | ((flags & 1) === 1 ? Flag.invisible : 0) | (constant ? Flag.constant : 0) },
    Kind.attributeDefinition,
    74,
    constant ? 1 : 2,
  );
};

/** MTEXT: pieces of 250 characters under 3, the last under 1; attachment 71 counts from top left to bottom right. */
export const multilineText: EntityBuilder = (context) => {
  const { record, decoder } = context;
  if (!record.has(10)) return 'damaged';
  const pieces: Uint8Array[] = [];
  let size = 0;
  for (let i = 0; i < record.length; i += 1) {
    if (record.codes[i] !== 3 && record.codes[i] !== 1) continue;
    const bytes = record.bytesAt(i);
    pieces.push(bytes);
    size += bytes.length;
  }
  const joined = new Uint8Array(size);
  let at = 0;
  for (const piece of pieces) {
    joined.set(piece, at);
    at += piece.length;
  }
  const words = plainMultilineText(decoder.decode(joined));
  if (words.trim() === '') return 'noGeometry';
  const attachment = Math.min(9, Math.max(1, record.number(71, 1)));
  const angle = record.has(11) ? Math.atan2(record.number(21, 0), record.number(11, 1)) : record.number(50, 0) * radian;
  writeText(
    context,
    Kind.multilineText,
    {
      x: record.number(10, 0),
      y: record.number(20, 0),
      height: record.number(40, 1),
      angle,
      width: 1,
      across: (attachment - 1) % 3,
      // Top, middle and bottom come in threes.
      up: 3 - Math.floor((attachment - 1) / 3),
      text: words,
    },
    record.number(30, 0),
    -1,
  );
  return null;
};
