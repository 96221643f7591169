import type { Drawing } from '@/core/drawing/drawing';
import type { Primitives } from '@/core/underlay/primitives';
import { lengthUnits, metresPer, type LengthUnit } from '@/core/units/length';
import { scaleNote } from './objects';
import { median } from './sizes';
import type { Written } from './writtenLengths';

/**
 * Units that a drawing at a paper scale may be in. One in which the scale only gives another unit (1:10 in millimetres
 * is full size in
 * centimetres) cannot be told from that, and is none.
 */
export const paperUnits = (scale: number): LengthUnit[] =>
  (['mm', 'cm', 'in'] as const).filter(
    (unit) => !lengthUnits.some((other) => Math.abs((metresPer[unit] * scale) / metresPer[other] - 1) < 0.01),
  );

/** One drawing in fifty is drawn as it is plotted; an assumption. */
export const paperPrior = Math.log(0.02);

/**
 * Scales that plans are plotted at (ISO 5455, with the usual fifths and quarters), and the inch scales of 1/16\" to 1\"
 * to the foot.
 */
const usualScales = [5, 10, 20, 25, 50, 75, 100, 125, 150, 200, 250, 500, 12, 16, 24, 32, 48, 64, 96, 128, 192];

/**
 * Scales that a drawing speaks of: in a note (1:100), by the factor of its dimensions, or by dimensions whose texts are
 * a usual scale times what is
 * drawn.
 */
export function paperScales(drawing: Drawing, primitives: Primitives, written: readonly Written[]): number[] {
  const factor = drawing.header.dimensionFactor ?? 1;
  const ratio = median(
    written.map(({ number, value, form }) => (form === 'feet' ? number / metresPer.in : number) / value),
  );
  const spoken = [scaleNote(primitives), ...(factor > 1.5 ? [factor] : []), ...[1, 10].map((more) => ratio * more)];
  const scales = spoken.flatMap((scale) => {
    const usual = scale === null ? undefined : usualScales.find((other) => Math.abs(scale / other - 1) < 0.01);
    return usual === undefined ? [] : [usual];
  });
  return [...new Set(scales)].filter((scale) => paperUnits(scale).length > 0);
}
