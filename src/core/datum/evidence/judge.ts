import type { Drawing } from '@/core/drawing/drawing';
import { mainContent } from '@/core/underlay/mainContent';
import type { Primitives } from '@/core/underlay/primitives';
import { lengthUnits, metresPer, unitNames, unitOfHeader, type LengthUnit } from '@/core/units/length';
import { columnSides, doorLeaves, gridSpacings, stairGoings, textHeights, wallPairs } from './objects';
import { paperPrior, paperScales, paperUnits } from './paperScale';
import { buildingSides, parallelFamilies } from './sides';
import { effectiveCount, logLikelihood, median, type Observation, type SizeCue } from './sizes';
import { dimensionTexts, logLikelihoodOfWritten, looseDimensions, type Written } from './writtenLengths';

/** One kind of observation and what it says about the unit. */
export interface Cue {
  cue: string;
  observations: number;
  favours: LengthUnit | null;
  /** Log of the likelihood ratio between the favoured unit and the next best. */
  weight: number;
  /** Log-likelihood of each unit, the best of all hypotheses zero, as it enters the sum. */
  logs: Record<LengthUnit, number>;
  /** What was seen, in words; for sizes their range in drawing units. */
  seen: string;
  range: [number, number] | null;
  /** Some of the places where it was seen, in the drawing's coordinates. */
  places: Observation[];
}

export interface UnitVerdict {
  header: LengthUnit | null;
  /** True sizes per drawn size: 1, or that of the paper scale which explains what was seen better. */
  scale: number;
  /** The unit, or null where the evidence does not decide. */
  chosen: LengthUnit | null;
  /** Probability of the chosen unit, or of the likeliest. */
  confidence: number;
  probabilities: Record<LengthUnit, number>;
  cues: Cue[];
}

/**
 * A header names the wrong unit about once in seven files of unknown origin: an assumption, kept on the careful side.
 */
const headerTrust = 0.85;
/** A verdict below this is not one. */
const decisive = 0.9;
/**
 * Cues of one drawing are not independent: an odd building is odd in all of them. Their sum is taken with this share.
 */
const correlated = 0.75;
/** A whole kind of observation may be something else than it is taken for: no cue outweighs a hundred to one. */
const misread = 0.01;
/** Nothing is more certain than this: the drawing may be of something else than a building. */
const mostCertain = 0.998;
/** Places kept of a cue, for the board. */
const mostPlaces = 40;

type Logs = Record<LengthUnit, number>;
const logsOf = (of: (unit: LengthUnit) => number): Logs =>
  Object.fromEntries(lengthUnits.map((unit) => [unit, of(unit)])) as Logs;

/**
 * One kind of observation before it is weighed: how likely it is, as a logarithm, in a unit of which one has `metres`
 * true metres.
 */
interface Finding extends Omit<Cue, 'favours' | 'weight' | 'logs'> {
  log: (unit: LengthUnit, metres: number) => number;
}

/** A way to read the drawing: at true size, or as it is plotted at a scale. */
interface Reading {
  scale: number;
  cues: Cue[];
}

/**
 * The unit of a drawing by what it says of itself and by what can be measured in it: each cue is a likelihood over the
 * units, their logarithms are
 * added, with a discount for what the cues have in common. Where a note or the dimensions speak of a scale, the drawing
 * may also be drawn as it is
 * plotted: then the units come with that scale once more.
 */
export function judgeUnit(drawing: Drawing, primitives: Primitives): UnitVerdict {
  const header = unitOfHeader(drawing.header.insUnits);
  const sides = buildingSides(primitives);
  const families = parallelFamilies(sides);
  const main = mainContent(primitives);
  const span = main && Math.max(main[1][0] - main[0][0], main[1][1] - main[0][1]);
  const findings: Finding[] = [];
  const add = (
    cue: string,
    observations: number,
    seen: string,
    log: Finding['log'],
    range: [number, number] | null = null,
    places: Observation[] = [],
  ) => findings.push({ cue, observations, seen, range, places, log });
  if (header !== null)
    add('header unit', 1, unitNames[header], (unit) => Math.log(unit === header ? headerTrust : (1 - headerTrust) / 4));
  const written = dimensionTexts(drawing, primitives);
  if (written.length > 0)
    add('dimension texts', written.length, 'as written', writtenLog(written), rangeOf(written), written);
  const loose = looseDimensions(primitives, sides);
  if (loose.length > 0)
    add('numbers beside lines', loose.length, 'as written', writtenLog(loose), rangeOf(loose), loose);
  for (const size of [
    doorLeaves(primitives, sides),
    columnSides(primitives),
    wallPairs(primitives, families),
    gridSpacings(primitives),
    stairGoings(primitives, families),
    textHeights(primitives),
  ]) {
    if (size.observations.length > 0)
      add(size.cue, size.observations.length, '', sizeLog(size), rangeOf(size.observations), size.observations);
    if (size.cue === 'grid spacings' && size.observations.length >= fewestRound)
      add(
        'round spacings',
        size.observations.length,
        '',
        roundLog(size.observations),
        rangeOf(size.observations),
        size.observations,
      );
  }
  if (main !== null && span !== null && span > 0)
    add('overall extent', 1, '', (_, metres) => extentLog(span * metres), [
      Math.min(main[1][0] - main[0][0], main[1][1] - main[0][1]),
      span,
    ]);
  const scales = [1, ...paperScales(drawing, primitives, [...written, ...loose])];
  const tops = findings.map(({ log }) =>
    Math.max(...scales.flatMap((scale) => lengthUnits.map((unit) => log(unit, metresPer[unit] * scale)))),
  );
  const readings = scales.map((scale): Reading => ({
    scale,
    cues: findings.map((finding, i) => weighed(finding, scale, tops[i])),
  }));
  const best = readings.reduce((a, b) => (Math.max(...hypotheses(b)) > Math.max(...hypotheses(a)) ? b : a));
  return verdict(header, best.cues, best.scale, readings.filter((reading) => reading !== best).flatMap(hypotheses));
}

/** What speaks for a unit before anything is seen: a plan at true size needs no reason, one at a paper scale does. */
function priorOf(unit: LengthUnit, scale: number): number {
  if (scale === 1) return 0;
  return paperUnits(scale).includes(unit) ? paperPrior : -Infinity;
}

/** What speaks for a unit in all. A paper has the units that papers are drawn in. */
const sumOf = (cues: readonly Cue[], unit: LengthUnit, scale: number): number =>
  cues.reduce(
    (total, { logs, cue }) => total + logs[unit] * (cue === 'header unit' ? 1 : correlated),
    priorOf(unit, scale),
  );

const hypotheses = ({ cues, scale }: Reading): number[] => lengthUnits.map((unit) => sumOf(cues, unit, scale));

/** The logarithm of the odds of a probability: zero is even, 3 is about twenty to one. */
export const logOdds = (probability: number): number => Math.log(probability / (1 - probability));

/**
 * Adds the cues up.
 * @param rivals what speaks for other readings of the drawing
 */
export function verdict(
  header: LengthUnit | null,
  cues: Cue[],
  scale = 1,
  rivals: readonly number[] = [],
): UnitVerdict {
  const sum = logsOf((unit) => sumOf(cues, unit, scale));
  const top = Math.max(...Object.values(sum), ...rivals);
  const total = [...Object.values(sum), ...rivals].reduce((all, log) => all + Math.exp(log - top), 0);
  const doubt = 1 - mostCertain;
  const probabilities = logsOf(
    (unit) => (Math.exp(sum[unit] - top) / total) * (1 - doubt) + doubt / lengthUnits.length,
  );
  const best = lengthUnits.reduce((a, b) => (probabilities[b] > probabilities[a] ? b : a));
  return {
    header,
    scale,
    chosen: probabilities[best] >= decisive ? best : null,
    confidence: probabilities[best],
    probabilities,
    cues,
  };
}

function weighed({ log, ...finding }: Finding, scale: number, top: number): Cue {
  const { cue, places } = finding;
  const logs = logsOf((unit) => {
    const above = log(unit, metresPer[unit] * scale) - top;
    return cue === 'header unit' ? above : Math.log((1 - misread) * Math.exp(above) + misread);
  });
  const ranked = [...lengthUnits].sort((a, b) => logs[b] - logs[a]);
  const weight = logs[ranked[0]] - logs[ranked[1]];
  const step = Math.max(1, Math.ceil(places.length / mostPlaces));
  return {
    ...finding,
    favours: weight > 1e-9 ? ranked[0] : null,
    weight,
    logs,
    places: places.filter((_, i) => i % step === 0),
  };
}

/** Of many of a kind the middle one tells; more of them make it surer, but not in proportion. */
const sizeLog = ({ observations, usual, spread }: SizeCue): Finding['log'] => {
  const [middle, count] = [median(observations.map(({ value }) => value)), effectiveCount(observations.length)];
  return (_, metres) => count * logLikelihood(middle * metres, usual, spread);
};

const writtenLog =
  (written: readonly Written[]): Finding['log'] =>
  (_, metres) =>
    Math.min(2, effectiveCount(written.length)) * logLikelihoodOfWritten(written, metres);

/** Fewer spacings are round by chance. */
const fewestRound = 3;
/**
 * Spacings are laid out in steps of this, metres: of 50 mm where one measures in metres, of half a foot where one does
 * in feet.
 */
const modules = { metric: 0.05, imperial: 0.1524 };
/** A spacing is round in its own unit that often, and by chance in another that often. */
const roundness = { meant: 0.8, chance: 0.08 };

/** Whether spacings are round numbers of the unit's system. */
const roundLog =
  (observations: readonly Observation[]): Finding['log'] =>
  (unit, metres) => {
    const step = unit === 'in' || unit === 'ft' ? modules.imperial : modules.metric;
    const round =
      observations.filter(({ value }) => {
        const steps = (value * metres) / step;
        return steps > 0.5 && Math.abs(steps - Math.round(steps)) * step < 0.0015;
      }).length / observations.length;
    return (
      effectiveCount(observations.length) *
      (round * Math.log(roundness.meant / roundness.chance) +
        (1 - round) * Math.log((1 - roundness.meant) / (1 - roundness.chance)))
    );
  };

/**
 * A building or its site measures between 5 and 500 m across; the likelihood falls off with every power of ten beyond.
 */
const extentLog = (metres: number): number => -4 * Math.max(0, Math.log10(5 / metres), Math.log10(metres / 500));

/** From the tenth to the ninetieth of a hundred. */
function rangeOf(observations: readonly Observation[]): [number, number] {
  const sorted = observations.map(({ value }) => value).sort((a, b) => a - b);
  return [
    sorted[Math.floor(sorted.length * 0.1)],
    sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * 0.9))],
  ];
}
