import { Kind, handleOf, type Drawing } from '@/core/drawing/drawing';
import { degrees, type Point } from '@/core/geometry/vector';
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

/** What a text of so many decimals can mean apart, and no less than a millimetre. */
const leastAgreement = 0.001;
const leastAngle = 0.1;

interface Read {
  row: number;
  facts: DimensionFacts;
  text: string;
  written: Written['form'];
  number: number;
  drawn: number;
  step: number;
  ends: Point[];
}

/**
 * Compares the text of every dimension with what lies between its points: written lengths in the unit that most texts
 * agree on.
 * @param metresPerUnit true metres of one drawing unit
 */
export function checkDimensions(drawing: Drawing, p: Primitives, metresPerUnit: number): DimensionCheck {
  const shown = new Map<number, string>();
  for (const text of p.texts) if (text.kind === Kind.dimension) shown.set(text.top, text.text);
  const lengths: Read[] = [];
  const differ: Differing[] = [];
  let [total, agree, unread] = [0, 0, 0];
  const { first, count } = drawing.blocks[drawing.model];
  for (let row = first; row < first + count; row += 1) {
    if (drawing.kind[row] !== Kind.dimension) continue;
    total += 1;
    const facts = dimensionFacts(drawing, row);
    const text = ((facts.override?.includes('<>') ? null : facts.override) ?? shown.get(row) ?? '').trim();
    const angle = angleOf(facts);
    if (angle !== null) {
      const written = /(\d+(?:[.,]\d+)?)\s*\u00b0/.exec(text);
      if (!written) {
        unread += 1;
        continue;
      }
      const value = Number(written[1].replace(',', '.'));
      // An arc between two lines can be dimensioned on either side.
      const measured = [angle.value, 360 - angle.value, 180 - angle.value].reduce((a, b) =>
        Math.abs(b - value) < Math.abs(a - value) ? b : a,
      );
      if (Math.abs(measured - value) <= Math.max(leastAngle, stepOf(written[1]) / 2)) agree += 1;
      else
        differ.push({
          handle: handleOf(drawing, row),
          at: pair(angle.ends[0]),
          ends: angle.ends.map(pair),
          text,
          written: value,
          measured,
          kind: 'angle',
        });
      continue;
    }
    const span = lengthOf(facts);
    // Radius and diameter carry a letter or a sign before the number.
    const number = readWritten(text.replace(/^[R\u00d8\u2300\u03c6]\s*/i, ''));
    if (span === null || !(span.drawn > 0) || number === null) {
      unread += 1;
      continue;
    }
    lengths.push({ row, facts, text, written: number.form, number: number.number, step: stepOf(text), ...span });
  }
  const writtenIn = commonUnit(lengths, metresPerUnit);
  for (const { row, text, written, number, drawn, step, ends } of lengths) {
    const unit = written === 'feet' ? 1 : metresPer[writtenIn ?? 'm'];
    const [said, measured] = [number * unit, drawn * metresPerUnit];
    const apart = Math.max(leastAgreement, written === 'feet' ? metresPer.in / 16 : (step * unit) / 2);
    if (Math.abs(said - measured) <= apart * (1 + 1e-6)) agree += 1;
    else
      differ.push({
        handle: handleOf(drawing, row),
        at: pair(ends[0]),
        ends: ends.map(pair),
        text,
        written: said,
        measured,
        kind: 'length',
      });
  }
  return {
    total,
    agree,
    differ: differ.sort((a, b) => Math.abs(b.written - b.measured) - Math.abs(a.written - a.measured)),
    unread,
    writtenIn,
  };
}

const pair = ([x, y]: Point): [number, number] => [x, y];

/** The step of the last digit written. */
const stepOf = (text: string): number => {
  const decimals = /[.,](\d+)\D*$/.exec(text);
  return decimals ? 10 ** -decimals[1].length : 1;
};

/** The unit in which most written lengths are what is drawn. */
function commonUnit(lengths: readonly Read[], metresPerUnit: number): LengthUnit | null {
  const plain = lengths.filter(({ written }) => written !== 'feet');
  const fits = (unit: LengthUnit) =>
    plain.filter(({ number, drawn }) => Math.abs((number * metresPer[unit]) / (drawn * metresPerUnit) - 1) < 0.02)
      .length;
  const best = lengthUnits.map((unit) => ({ unit, fits: fits(unit) })).sort((a, b) => b.fits - a.fits)[0];
  return best.fits > 0 ? best.unit : null;
}

/** What a length, radius or diameter dimension spans. */
function lengthOf(facts: DimensionFacts): { drawn: number; ends: Point[] } | null {
  const { type, points } = facts;
  const span = spanOf(facts);
  if (span !== null) return { drawn: span, ends: [points[13]!, points[14]!] };
  const [a, b] = [points[10], points[15]];
  // A radius runs from the centre to the circle, a diameter from side to side.
  return (type === 3 || type === 4) && a && b ? { drawn: Math.hypot(b[0] - a[0], b[1] - a[1]), ends: [a, b] } : null;
}

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
