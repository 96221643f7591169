import { fail, ok, type Result } from '@/core/result';
import { formatLength, formatNumber, lengthUnits, metresPer, unitNames, type LengthUnit } from '@/core/units/length';
import type { UnitVerdict } from './evidence/judge';
import { consequences } from './evidence/plausible';

/** What a known length says of a drawing's size. */
export interface KnownLength {
  metresPerUnit: number;
  /** The unit that it comes to, and the scale: 1 where the drawing is at true size in that unit. */
  unit: LengthUnit;
  scale: number;
  /** By which share the length given is longer than the unit and scale make it. */
  off: number;
  /** What of the building would not be as buildings are. */
  against: string[];
}

/**
 * A length that misses a unit by less than this share means that unit: people measure roughly and drawings are rounded.
 */
const meant = 0.02;
/** Scales that drawings are plotted at. */
const plotScales = [5, 10, 20, 25, 50, 100, 200, 250, 500, 1000];
const inchScales = [12, 16, 24, 32, 48, 64, 96, 128, 192];
/** Points closer than this share of the drawing's size are one point. */
const coincident = 1e-9;

/**
 * What a length that somebody knows says about the unit. It overrides the evidence, and is itself held against it.
 * @param drawn the distance between the two points, in drawing units
 * @param metres what it truly is
 */
export function knownLength(drawn: number, metres: number, verdict: UnitVerdict | null): Result<KnownLength> {
  const size = verdict?.cues.find(({ cue }) => cue === 'overall extent')?.range?.[1] ?? 1;
  if (!(drawn > coincident * size))
    return fail(
      'The two points lie on one another: nothing can be measured between them. Pick two points that are apart.',
    );
  if (!(metres > 0))
    return fail(
      `A known length of ${formatLength(metres, 'm')} was given. Type the true distance between the two points, more than zero.`,
    );
  const metresPerUnit = metres / drawn;
  const off = (unit: LengthUnit, scale: number) => metresPerUnit / (metresPer[unit] * scale) - 1;
  const choices = [
    ...lengthUnits.map((unit) => ({ unit, scale: 1 })),
    ...(['mm', 'cm', 'in'] as const).flatMap((unit) =>
      (unit === 'in' ? inchScales : plotScales).map((scale) => ({ unit, scale })),
    ),
  ];
  const fitting = choices.find(({ unit, scale }) => Math.abs(off(unit, scale)) < meant);
  const unit = fitting?.unit ?? verdict?.chosen ?? 'mm';
  const scale = fitting?.scale ?? metresPerUnit / metresPer[unit];
  const against =
    verdict === null
      ? []
      : consequences(verdict, metresPerUnit)
          .filter(({ sound }) => !sound)
          .map(({ words }) => words);
  return ok({ metresPerUnit, unit, scale, off: off(unit, scale), against });
}

/** The finding in a sentence. */
export function knownWords({ unit, scale, off, metresPerUnit }: KnownLength): string {
  const name =
    scale === 1
      ? unitNames[unit]
      : `${unitNames[unit]} at 1:${formatNumber(scale, Number.isInteger(Number(scale.toFixed(6))) ? 0 : 3)}`;
  if (Math.abs(off) < 5e-4) return `The drawing is in ${name}.`;
  return (
    `The drawing is nearest to ${name}; the length given is ` +
    `${formatNumber(Math.abs(off) * 100, 1)} % ${off > 0 ? 'longer' : 'shorter'} than it ` +
    `measures so. One drawing unit would be ${formatNumber(metresPerUnit * 1000, 3)} mm.`
  );
}
