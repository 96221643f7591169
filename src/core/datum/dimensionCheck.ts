import { Kind, handleOf, type Drawing } from '@/core/drawing/drawing';
import { degrees, direction, type Point } from '@/core/geometry/vector';
import { dimensionFacts, spanOf, type DimensionFacts } from '@/core/underlay/dimensionPicture';
import type { Primitives } from '@/core/underlay/primitives';
import { lengthUnits, metresPer, type LengthUnit } from '@/core/units/length';
import { readWritten, type Written } from './evidence/writtenLengths';

/** A dimension whose text is not what lies between its points. Lengths in metres, angles in degrees. */
export interface Differing {
  handle: string;
  at: [number, number];
  ends: [number, number][];
  text: string;
  written: number;
  measured: number;
  kind: 'length' | 'angle';
}

/** All dimensions of a drawing held against what they span. */
export interface DimensionCheck {
  total: number;
  agree: number;
  differ: Differing[];
  /** Dimensions whose text or points say no number: ordinates, words, points that are missing. */
  unread: number;
  /** The unit that the texts are written in, as most of them agree. */
  writtenIn: LengthUnit | null;
}

/** The least that written and drawn may differ by: metres, degrees. */
const leastAgreement = 0.001;
const leastAngle = 0.1;

/** A length dimension with what is written and what is drawn. Lengths in metres, points in the drawing's units. */
export interface ReadLength {
  handle: string;
  text: string;
  written: number;
  measured: number;
  /** What a text of so many decimals can mean apart, and no less than a millimetre. */
  apart: number;
  ends: [Point, Point];
  /** The direction that is measured along, of length one; null of radii and diameters. */
  along: Point | null;
}

/** What the dimensions of a drawing say, as far as they say lengths and angles. */
interface ReadDimensions {
  total: number;
  unread: number;
  lengths: ReadLength[];
  angles: Differing[];
  writtenIn: LengthUnit | null;
}

interface RawLength {
  handle: string;
  text: string;
  form: Written['form'];
  number: number;
  drawn: number;
  step: number;
  ends: [Point, Point];
  along: Point | null;
}

/**
 * Reads every dimension: written lengths in the unit that most texts agree on.
 * @param metresPerUnit true metres of one drawing unit
 */
export function readDimensions(drawing: Drawing, p: Primitives, metresPerUnit: number): ReadDimensions {
  const shown = new Map<number, string>();
  for (const text of p.texts) if (text.kind === Kind.dimension) shown.set(text.top, text.text);
  const [raw, angles]: [RawLength[], Differing[]] = [[], []];
  let [total, unread] = [0, 0];
  const { first, count } = drawing.blocks[drawing.model];
  for (let row = first; row < first + count; row += 1) {
    if (drawing.kind[row] !== Kind.dimension) continue;
    total += 1;
    const facts = dimensionFacts(drawing, row);
    const handle = handleOf(drawing, row);
    const text = ((facts.override?.includes('<>') ? null : facts.override) ?? shown.get(row) ?? '').trim();
    const angle = angleOf(facts);
    const read = angle === null ? lengthRead(facts, text, handle) : angleRead(angle, text, handle);
    if (read === null) unread += 1;
    else if ('form' in read) raw.push(read);
    else angles.push(read);
  }
  const writtenIn = commonUnit(raw, metresPerUnit);
  const lengths = raw.map(({ form, number, drawn, step, ...told }): ReadLength => {
    const unit = form === 'feet' ? 1 : metresPer[writtenIn ?? 'm'];
    const apart = Math.max(leastAgreement, form === 'feet' ? metresPer.in / 16 : (step * unit) / 2);
    return { ...told, written: number * unit, measured: drawn * metresPerUnit, apart };
  });
  return { total, unread, lengths, angles, writtenIn };
}

/** An angular dimension with what is written; null where that is no angle. */
function angleRead(angle: { value: number; ends: Point[] }, text: string, handle: string): Differing | null {
  const number = /(\d+(?:[.,]\d+)?)\s*\u00b0/.exec(text)?.[1];
  if (number === undefined) return null;
  const written = Number(number.replace(',', '.'));
  // An arc between two lines can be dimensioned on either side.
  const measured = [angle.value, 360 - angle.value, 180 - angle.value].reduce((a, b) =>
    Math.abs(b - written) < Math.abs(a - written) ? b : a,
  );
  return { handle, at: pair(angle.ends[0]), ends: angle.ends.map(pair), text, written, measured, kind: 'angle' };
}

/** A length, a radius or a diameter with what is written; null where a point or a number is missing. */
function lengthRead(facts: DimensionFacts, text: string, handle: string): RawLength | null {
  const span = lengthOf(facts);
  // Radius and diameter carry a letter or a sign before the number.
  const number = readWritten(text.replace(/^[R\u00d8\u2300\u03c6]\s*/i, ''));
  if (span === null || !(span.drawn > 0) || number === null) return null;
  return { handle, text, form: number.form, number: number.number, step: stepOf(text), ...span };
}

/** The step of the written angle's last digit. */
const angleStep = (text: string): number => stepOf(/(\d+(?:[.,]\d+)?)\s*\u00b0/.exec(text)?.[1] ?? '');

/**
 * Compares the text of every dimension with what lies between its points.
 * @param metresPerUnit true metres of one drawing unit
 */
export function checkDimensions(drawing: Drawing, p: Primitives, metresPerUnit: number): DimensionCheck {
  const { total, unread, lengths, angles, writtenIn } = readDimensions(drawing, p, metresPerUnit);
  const wrongLengths = lengths
    .filter(({ written, measured, apart }) => !agrees(written, measured, apart))
    .map(({ handle, text, written, measured, ends }): Differing => {
      const [a, b] = ends.map(pair);
      return { handle, at: a, ends: [a, b], text, written, measured, kind: 'length' };
    });
  const wrongAngles = angles.filter(
    ({ text, written, measured }) => !agrees(written, measured, Math.max(leastAngle, angleStep(text) / 2)),
  );
  const differ = [...wrongLengths, ...wrongAngles].sort(
    (a, b) => Math.abs(b.written - b.measured) - Math.abs(a.written - a.measured),
  );
  return { total, agree: lengths.length + angles.length - differ.length, differ, unread, writtenIn };
}

/** Whether a written and a measured value are apart by no more than is allowed, but for rounding. */
export const agrees = (written: number, measured: number, apart: number): boolean =>
  Math.abs(written - measured) <= apart * (1 + 1e-6);

const pair = ([x, y]: Point): [number, number] => [x, y];

/** The step of the last digit written. */
const stepOf = (text: string): number => {
  const decimals = /[.,](\d+)\D*$/.exec(text);
  return decimals ? 10 ** -decimals[1].length : 1;
};

/** The unit in which most written lengths are what is drawn. */
function commonUnit(lengths: readonly RawLength[], metresPerUnit: number): LengthUnit | null {
  const plain = lengths.filter(({ form }) => form !== 'feet');
  const fits = (unit: LengthUnit) =>
    plain.filter(({ number, drawn }) => Math.abs((number * metresPer[unit]) / (drawn * metresPerUnit) - 1) < 0.02)
      .length;
  const best = lengthUnits.map((unit) => ({ unit, fits: fits(unit) })).sort((a, b) => b.fits - a.fits)[0];
  return best.fits > 0 ? best.unit : null;
}

/** What a length, radius or diameter dimension spans. */
function lengthOf(facts: DimensionFacts): Pick<RawLength, 'drawn' | 'ends' | 'along'> | null {
  const { type, points, angle } = facts;
  const span = spanOf(facts);
  if (span !== null) {
    const ends: [Point, Point] = [points[13]!, points[14]!];
    return { drawn: span, ends, along: direction(type === 1 ? angleBetween(...ends) : angle) };
  }
  const [a, b] = [points[10], points[15]];
  // A radius runs from the centre to the circle, a diameter from side to side.
  if ((type !== 3 && type !== 4) || !a || !b) return null;
  return { drawn: Math.hypot(b[0] - a[0], b[1] - a[1]), ends: [a, b], along: null };
}

const angleBetween = (a: Point, b: Point): number => Math.atan2(b[1] - a[1], b[0] - a[0]);

/** The angle of an angular dimension in degrees: between two lines, or at a corner. */
function angleOf({ type, points }: DimensionFacts): { value: number; ends: Point[] } | null {
  const [corner, a, b, other] = [points[15], points[13], points[14], points[10]];
  if (type === 5 && corner && a && b)
    return {
      value: between([a[0] - corner[0], a[1] - corner[1]], [b[0] - corner[0], b[1] - corner[1]]),
      ends: [corner, a, b],
    };
  if (type === 2 && corner && a && b && other)
    return {
      value: between([b[0] - a[0], b[1] - a[1]], [other[0] - corner[0], other[1] - corner[1]]),
      ends: [a, b, corner],
    };
  return null;
}

const between = ([ax, ay]: Point, [bx, by]: Point): number =>
  degrees(Math.abs(Math.atan2(ax * by - ay * bx, ax * bx + ay * by)));
