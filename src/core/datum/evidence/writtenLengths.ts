import { Kind, type Drawing } from '@/core/drawing/drawing';
import { lengthUnits, metresPer, type LengthUnit } from '@/core/units/length';
import { dimensionFacts, spanOf } from '@/core/underlay/dimensionPicture';
import type { Primitives } from '@/core/underlay/primitives';
import { centreOfText } from '@/core/underlay/textBox';
import { PointGrid } from '@/core/geometry/pointGrid';
import type { Point } from '@/core/geometry/vector';
import { median, type Observation } from './sizes';
import type { Side } from './sides';

/**
 * A length as it is drawn, in drawing units, and as it is written beside: the number, and whether it was written with
 * decimals or in feet and inches.
 */
export interface Written extends Observation {
  number: number;
  form: 'whole' | 'decimals' | 'feet';
}

const most = 400;

/** A written length: its number, in metres for feet and inches. */
export function readWritten(text: string): { number: number; form: Written['form'] } | null {
  const words = text
    .trim()
    .replace(/\u2032/g, "'")
    .replace(/\u2033/g, '"');
  const feet = /^(?:(\d+)\s*'\s*-?\s*)?(?:(\d+(?:\.\d+)?)?\s*(?:(\d+)\/(\d+))?\s*")?$/.exec(words);
  if (feet && /['"]/.test(words)) {
    const inches = Number(feet[2] ?? 0) + (feet[3] ? Number(feet[3]) / Number(feet[4]) : 0);
    const metres = Number(feet[1] ?? 0) * metresPer.ft + inches * metresPer.in;
    return metres > 0 ? { number: metres, form: 'feet' } : null;
  }
  const plain = /^[~\u2248]?\s*(\d{1,6})(?:[.,](\d{1,3}))?$/.exec(words);
  if (!plain) return null;
  const number = Number(`${plain[1]}.${plain[2] ?? '0'}`);
  return number > 0 ? { number, form: plain[2] ? 'decimals' : 'whole' } : null;
}

/** Lengths of dimensions with the texts that their pictures or overrides show. */
export function dimensionTexts(drawing: Drawing, p: Primitives): Written[] {
  const texts = new Map<number, string>();
  for (const text of p.texts) if (text.kind === Kind.dimension) texts.set(text.top, text.text);
  const found: Written[] = [];
  const { first, count } = drawing.blocks[drawing.model];
  for (let row = first; row < first + count && found.length < most; row += 1) {
    if (drawing.kind[row] !== Kind.dimension) continue;
    const facts = dimensionFacts(drawing, row);
    const span = spanOf(facts);
    const written = readWritten((facts.override?.includes('<>') ? null : facts.override) ?? texts.get(row) ?? '');
    if (span !== null && span > 0 && written) found.push({ value: span, at: facts.points[13] ?? [0, 0], ...written });
  }
  return found;
}

/**
 * Numbers written along loose lines: parallel to a line, at its middle, close by. Only what at least three agree on
 * counts.
 */
export function looseDimensions(p: Primitives, sides: readonly Side[]): Written[] {
  const numbers = p.texts
    .flatMap((text) => {
      const written = text.kind === Kind.dimension ? null : readWritten(text.text);
      return written && (written.number >= 10 || written.form !== 'whole') ? [{ text, written }] : [];
    })
    .slice(0, most);
  if (numbers.length < 3) return [];
  const reach = 3 * median(numbers.map(({ text }) => text.height));
  if (!(reach > 0)) return [];
  const grid = new PointGrid(reach, sides.length);
  sides.forEach((side, i) => grid.add(i, (side.x1 + side.x2) / 2, (side.y1 + side.y2) / 2));
  const found = numbers.flatMap(({ text, written }): Written[] => {
    const [x, y] = centreOfText(text);
    let best: { away: number; side: Side } | null = null;
    grid.near(x, y, (i) => {
      const side = sides[i];
      const away = Math.hypot((side.x1 + side.x2) / 2 - x, (side.y1 + side.y2) / 2 - y);
      const turn = Math.abs(Math.sin(side.angle - text.angle));
      if (away < reach && turn < 0.05 && side.length > 2 * text.height && (best === null || away < best.away))
        best = { away, side };
    });
    const side = (best as { side: Side } | null)?.side;
    return side ? [{ value: side.length, at: [x + p.origin[0], y + p.origin[1]] as Point, ...written }] : [];
  });
  const factor = median(found.map(({ number, value }) => number / value));
  const agree = found.filter(({ number, value }) => Math.abs(number / value / factor - 1) < 0.01);
  return agree.length >= 3 && agree.length >= 0.5 * found.length ? agree : [];
}

/** How often offices write lengths of whole numbers, of decimals, in each unit. */
const writtenIn: Record<Written['form'], Record<LengthUnit, number>> = {
  whole: { mm: 0.72, cm: 0.22, m: 0.01, in: 0.04, ft: 0.01 },
  decimals: { mm: 0.02, cm: 0.06, m: 0.86, in: 0.03, ft: 0.03 },
  feet: { mm: 0, cm: 0, m: 1, in: 0, ft: 0 },
};
/** A whole number of thousands is in millimetres; that of a few hundred may be in centimetres too. */
const unlikely = 2e-4;

/**
 * The logarithm of how likely written lengths are, were one drawing unit so many metres: the unit that they are then
 * written in
 * has to be one that lengths are written in, and what they come to has to be a length of a building.
 */
export function logLikelihoodOfWritten(written: readonly Written[], metresPerUnit: number): number {
  const of = ({ value, number, form }: Written): number => {
    const metres = value * metresPerUnit;
    const ratio = metres / number;
    const sense = metres > 0.02 && metres < 400 ? 1 : 0.01;
    if (form === 'feet') return Math.log(Math.abs(ratio - 1) < 0.01 ? sense : unlikely);
    const as = lengthUnits.find((candidate) => Math.abs(ratio / metresPer[candidate] - 1) < 0.01);
    return Math.log(as === undefined ? unlikely : Math.max(unlikely, writtenIn[form][as] * sense));
  };
  return median(written.map(of));
}
