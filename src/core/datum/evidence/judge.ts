import type { Drawing } from '@/core/drawing/drawing';
import { mainContent } from '@/core/underlay/mainContent';
import type { Primitives } from '@/core/underlay/primitives';
import { lengthUnits, metresPer, unitNames, unitOfHeader, type LengthUnit } from '@/core/units/length';
import { columnSides, doorLeaves, gridSpacings, stairGoings, textHeights, wallPairs } from './objects';
import { buildingSides } from './sides';
import { effectiveCount, logLikelihood, median, type Observation, type SizeCue } from './sizes';
import { dimensionTexts, logLikelihoodOfWritten, looseDimensions, type Written } from './writtenLengths';

/** One kind of observation and what it says about the unit. */
export interface Cue {
  cue: string;
  observations: number;
  favours: LengthUnit | null;
  /** Log of the likelihood ratio between the favoured unit and the next best. */
  weight: number;
  /** Log-likelihood of each unit, the best zero, as it enters the sum. */
  logs: Record<LengthUnit, number>;
  /** What was seen, in words; for sizes their range in drawing units. */
  seen: string;
  range: [number, number] | null;
  /** Some of the places where it was seen, in the drawing's coordinates. */
  places: Observation[];
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
const decisive = 0.9;
/** Cues of one drawing are not independent: an odd building is odd in all of them. Their sum is taken with this share. */
const correlated = 0.75;
/** A whole kind of observation may be something else than it is taken for: no cue outweighs a hundred to one. */
const misread = 0.01;
/** Nothing is more certain than this: the drawing may be of something else than a building. */
const mostCertain = 0.998;
/** Places kept of a cue, for the board. */
const mostPlaces = 40;

type Logs = Record<LengthUnit, number>;
const logsOf = (of: (unit: LengthUnit) => number): Logs => Object.fromEntries(lengthUnits.map((unit) => [unit, of(unit)])) as Logs;

/**
 * The unit of a drawing by what it says of itself and by what can be measured in it: each cue is a likelihood over the units, their logarithms are
 * added, with a discount for what the cues have in common.
 */
export function judgeUnit(drawing: Drawing, primitives: Primitives): UnitVerdict {
  const header = unitOfHeader(drawing.header.insUnits);
  const sides = buildingSides(primitives);
  const main = mainContent(primitives);
  const span = main && Math.max(main[1][0] - main[0][0], main[1][1] - main[0][1]);
  const cues: Cue[] = [];
  const add = (cue: string, observations: number, seen: string, logs: Logs, range: [number, number] | null = null, places: Observation[] = []) => cues.push(weighed(cue, observations, seen, logs, range, places));
  if (header !== null) add('header unit', 1, unitNames[header], logsOf((unit) => Math.log(unit === header ? headerTrust : (1 - headerTrust) / 4)));
  const written = dimensionTexts(drawing, primitives);
  if (written.length > 0) add('dimension texts', written.length, 'as written', writtenLogs(written), rangeOf(written), written);
  const loose = looseDimensions(primitives, sides);
  if (loose.length > 0) add('numbers beside lines', loose.length, 'as written', writtenLogs(loose), rangeOf(loose), loose);
  for (const size of [doorLeaves(primitives, sides), columnSides(primitives), wallPairs(primitives, sides), gridSpacings(primitives), stairGoings(primitives, sides), textHeights(primitives)]) {
    if (size.observations.length > 0) add(size.cue, size.observations.length, '', sizeLogs(size), rangeOf(size.observations), size.observations);
  }
  if (span !== null && span > 0) add('overall extent', 1, '', logsOf((unit) => extentLog(span * metresPer[unit])), [span, span]);
  return verdict(header, cues);
}

/** Adds the cues up. */
export function verdict(header: LengthUnit | null, cues: Cue[]): UnitVerdict {
  const sum = logsOf((unit) => cues.reduce((total, { logs, cue }) => total + logs[unit] * (cue === 'header unit' ? 1 : correlated), 0));
  const top = Math.max(...Object.values(sum));
  const total = lengthUnits.reduce((all, unit) => all + Math.exp(sum[unit] - top), 0);
  const doubt = 1 - mostCertain;
  const probabilities = logsOf((unit) => (Math.exp(sum[unit] - top) / total) * (1 - doubt) + doubt / lengthUnits.length);
  const best = lengthUnits.reduce((a, b) => (probabilities[b] > probabilities[a] ? b : a));
  return { header, chosen: probabilities[best] >= decisive ? best : null, confidence: probabilities[best], probabilities, cues };
}

function weighed(cue: string, observations: number, seen: string, raw: Logs, range: [number, number] | null, places: Observation[]): Cue {
  const top = Math.max(...Object.values(raw));
  const logs = logsOf((unit) => (cue === 'header unit' ? raw[unit] - top : Math.log((1 - misread) * Math.exp(raw[unit] - top) + misread)));
  const ranked = [...lengthUnits].sort((a, b) => logs[b] - logs[a]);
  const weight = -logs[ranked[1]];
  const step = Math.max(1, Math.ceil(places.length / mostPlaces));
  return { cue, observations, favours: weight > 1e-9 ? ranked[0] : null, weight, logs, seen, range, places: places.filter((_, i) => i % step === 0) };
}

/** Of many of a kind the middle one tells; more of them make it surer, but not in proportion. */
const sizeLogs = ({ observations, usual, spread }: SizeCue): Logs => logsOf((unit) => effectiveCount(observations.length) * logLikelihood(median(observations.map(({ value }) => value)) * metresPer[unit], usual, spread));

const writtenLogs = (written: readonly Written[]): Logs => logsOf((unit) => Math.min(2, effectiveCount(written.length)) * logLikelihoodOfWritten(written, unit));

/** A building or its site measures between 5 and 500 m across; the likelihood falls off with every power of ten beyond. */
const extentLog = (metres: number): number => -4 * (metres < 5 ? Math.log10(5 / metres) : metres > 500 ? Math.log10(metres / 500) : 0);

/** From the tenth to the ninetieth of a hundred. */
function rangeOf(observations: readonly Observation[]): [number, number] {
  const sorted = observations.map(({ value }) => value).sort((a, b) => a - b);
  return [sorted[Math.floor(sorted.length * 0.1)], sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * 0.9))]];
}
