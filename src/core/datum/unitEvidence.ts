import { lengthUnits, metresPer, unitNames, unitOfHeader, type LengthUnit } from '@/core/units/length';

/** One kind of observation and what it says about the unit. */
export interface Cue {
  cue: string;
  observations: number;
  favours: LengthUnit | null;
  /** Log of the likelihood ratio between the favoured unit and the next best. */
  weight: number;
  /** What was seen, in words. */
  seen: string;
}

export interface UnitVerdict {
  header: LengthUnit | null;
  /** The unit, or null where the evidence does not decide. */
  chosen: LengthUnit | null;
  /** Probability of the chosen unit, or of the likeliest. */
  confidence: number;
  probabilities: Record<LengthUnit, number>;
  cues: Cue[];
}

/** A header names the wrong unit about once in seven files of unknown origin: an assumption, kept on the careful side. */
const headerTrust = 0.85;

/** A verdict below this is not one. */
const decisive = 0.8;

/**
 * What the header and the size of the whole say about a drawing's unit. A building or its site measures
 * between 5 and 500 m across; the likelihood falls off with the logarithm beyond.
 * @param insUnits `$INSUNITS`, or null
 * @param span the longer side of the main content, in drawing units
 */
export function judgeUnit(insUnits: number | null, span: number | null): UnitVerdict {
  const header = unitOfHeader(insUnits);
  const logs = Object.fromEntries(lengthUnits.map((unit) => [unit, 0])) as Record<LengthUnit, number>;
  const cues: Cue[] = [];
  const weigh = (cue: string, seen: string, likelihood: (unit: LengthUnit) => number) => {
    const ranked = lengthUnits.map((unit) => ({ unit, log: Math.log(likelihood(unit)) })).sort((a, b) => b.log - a.log);
    for (const { unit, log } of ranked) logs[unit] += log;
    const weight = ranked[0].log - ranked[1].log;
    cues.push({ cue, observations: 1, favours: weight > 1e-9 ? ranked[0].unit : null, weight, seen });
  };
  if (header !== null) weigh('header unit', unitNames[header], (unit) => (unit === header ? headerTrust : (1 - headerTrust) / 4));
  if (span !== null && span > 0) {
    weigh('overall extent', `${Number(span.toPrecision(6))} units`, (unit) => {
      const metres = span * metresPer[unit];
      const outside = metres < 5 ? Math.log10(5 / metres) : metres > 500 ? Math.log10(metres / 500) : 0;
      return Math.exp(-4 * outside);
    });
  }
  const top = Math.max(...Object.values(logs));
  const total = Object.values(logs).reduce((sum, log) => sum + Math.exp(log - top), 0);
  const probabilities = Object.fromEntries(lengthUnits.map((unit) => [unit, Math.exp(logs[unit] - top) / total])) as Record<LengthUnit, number>;
  const best = lengthUnits.reduce((a, b) => (probabilities[b] > probabilities[a] ? b : a));
  return { header, chosen: probabilities[best] >= decisive ? best : null, confidence: probabilities[best], probabilities, cues };
}
