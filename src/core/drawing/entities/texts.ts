import { Flag, Kind } from '../drawing';
import { plainMultilineText, plainText } from '../strings';
import { elevationFlag, extrusionOf, pushElevation, type EntityBuilder, type EntityContext } from './context';

const radian = Math.PI / 180;

function write(context: EntityContext, kind: number, x: number, y: number, height: number, angle: number, width: number, across: number, up: number, text: string, mirrored: boolean, z: number): void {
  const { rows } = context;
  rows.begin(kind, context.flags | (mirrored ? Flag.mirrored : 0) | elevationFlag(z), context.layer, context.style, context.handle);
  for (const value of [mirrored ? -x : x, y, height, mirrored ? Math.PI - angle : angle, width, across, up, rows.string(text)]) rows.numbers.push(value);
  pushElevation(rows, z);
}

/** TEXT, ATTRIB and ATTDEF share their groups, but for the vertical justification: 73 in a text, 74 in an attribute. */
function singleLine(context: EntityContext, kind: number, upCode: number): ReturnType<EntityBuilder> {
  const { record, decoder } = context;
  if (!record.has(10)) return 'damaged';
  const plane = extrusionOf(record);
  if (plane === 'tilted') return 'tilted';
  const text = plainText(record.string(1, decoder));
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
  const column = across === 1 || middle ? 1 : across === 2 ? 2 : 0;
  write(context, kind, x, y, record.number(40, 1), angle, record.number(41, 1) || 1, column, middle ? 2 : Math.min(3, Math.max(0, up)), text, plane === 'mirrored', record.number(30, 0));
  return null;
}

export const text: EntityBuilder = (context) => singleLine(context, Kind.text, 73);

/** A value written into an inserted block; an invisible one (70, bit 1) stays readable but is not drawn. */
export const attribute: EntityBuilder = (context) =>
  singleLine((context.record.number(70, 0) & 1) === 1 ? { ...context, flags: context.flags | Flag.invisible } : context, Kind.attribute, 74);

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
  for (const piece of pieces) { joined.set(piece, at); at += piece.length; }
  const words = plainMultilineText(decoder.decode(joined));
  if (words.trim() === '') return 'noGeometry';
  const attachment = Math.min(9, Math.max(1, record.number(71, 1)));
  const angle = record.has(11) ? Math.atan2(record.number(21, 0), record.number(11, 1)) : record.number(50, 0) * radian;
  write(context, Kind.multilineText, record.number(10, 0), record.number(20, 0), record.number(40, 1), angle, 1, (attachment - 1) % 3, attachment <= 3 ? 3 : attachment <= 6 ? 2 : 1, words, false, record.number(30, 0));
  return null;
};
