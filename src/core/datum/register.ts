import type { GridLine } from '@/core/kinds/grid';
import { fail, ok, type Result } from '@/core/result';
import { cross, distance, subtract, type Point } from '@/core/geometry/vector';
import { gridCrossings } from '@/core/kinds/gridCrossings';
import { carry, fitRigid, type PointPair, type RigidFit } from './fit';

/** Two labelled grid lines whose distance differs between the drawings, metres. */
export interface SpacingDifference {
  between: string;
  here: number;
  there: number;
}

export interface Registration {
  fit: RigidFit;
  /** Crossings of the same name that do not fit the others. */
  outliers: { name: string; away: number }[];
  differences: SpacingDifference[];
}

/** Crossings that miss by more than this are not the same crossing, metres. */
const agreement = 0.05;
/** At most this many pairs of crossings are tried for a start. */
const mostTrials = 400;
/** Distances that differ by less are the same, metres. */
const sameSpacing = 0.002;

/**
 * Fits a drawing's grid onto another by the crossings of equal labels. The start that most crossings agree with wins
 * (consensus, Fischler
 * and Bolles, 1981), and the fit is the least-squares one through those that do; the others are told, not averaged in.
 */
export function registerByGrid(from: readonly GridLine[], to: readonly GridLine[]): Result<Registration> {
  const pairs = commonCrossings(from, to);
  if (pairs.length < 2) {
    const labels = new Set(to.map(({ label }) => label));
    const common = from.filter(({ label }) => labels.has(label)).length;
    return fail(
      `${common} grid lines have the same label in both drawings, with ${pairs.length} common ` +
        `${pairs.length === 1 ? 'crossing' : 'crossings'}; at least two crossings are needed. ` +
        'Check the role of the grid layers and the labels, or fit by picked points.',
    );
  }
  let best: PointPair[] = [];
  for (const [a, b] of starts(pairs)) {
    const start = fitRigid([a, b]);
    if (!start.ok || start.value.rms > agreement) continue;
    const agreeing = pairs.filter(({ from: p, to: q }) => distance(carry(start.value, p), q) <= agreement);
    if (agreeing.length > best.length) best = agreeing;
  }
  if (best.length < 2 || best.length < pairs.length / 3)
    return fail(
      `Of ${pairs.length} common crossings no more than ${Math.max(best.length, 1)} fit ` +
        `together within ${agreement * 1000} mm: the drawings show different grids, or the unit ` +
        'of one is wrong.',
    );
  const fit = fitRigid(best);
  if (!fit.ok) return fit;
  const agreed = new Set(best);
  return ok({
    fit: fit.value,
    outliers: pairs
      .filter((pair) => !agreed.has(pair))
      .map(({ name, from: p, to: q }) => ({ name, away: distance(carry(fit.value, p), q) })),
    differences: spacingDifferences(from, to),
  });
}

/** Crossings that occur once in each drawing under one name. */
function commonCrossings(from: readonly GridLine[], to: readonly GridLine[]): PointPair[] {
  const once = (lines: readonly GridLine[]) => {
    const found = new Map<string, Point | null>();
    for (const { name, point } of gridCrossings(lines)) found.set(name, found.has(name) ? null : point);
    return found;
  };
  const there = once(to);
  return [...once(from)].flatMap(([name, point]) => {
    const other = there.get(name);
    return point && other ? [{ name, from: point, to: other }] : [];
  });
}

/** Pairs to start from, those far apart first: they fix the turning best. */
function starts(pairs: readonly PointPair[]): [PointPair, PointPair][] {
  const all: { pair: [PointPair, PointPair]; apart: number }[] = [];
  const step = Math.max(1, Math.floor((pairs.length * pairs.length) / 2 / (mostTrials * 4)));
  let n = 0;
  for (let i = 0; i < pairs.length; i += 1)
    for (let j = i + 1; j < pairs.length; j += 1) {
      n += 1;
      if (n % step === 0) all.push({ pair: [pairs[i], pairs[j]], apart: distance(pairs[i].from, pairs[j].from) });
    }
  return all
    .sort((a, b) => b.apart - a.apart)
    .slice(0, mostTrials)
    .map(({ pair }) => pair);
}

/** Distances between neighbouring parallel lines of equal labels, where they differ. */
export function spacingDifferences(from: readonly GridLine[], to: readonly GridLine[]): SpacingDifference[] {
  const there = new Map(to.flatMap((line) => (line.kind === 'line' ? [[line.label, line] as const] : [])));
  const common = from.flatMap((line) => {
    const other = line.kind === 'line' ? there.get(line.label) : undefined;
    return line.kind === 'line' && other ? [{ here: line, there: other }] : [];
  });
  const found: SpacingDifference[] = [];
  const used = new Set<number>();
  for (let i = 0; i < common.length; i += 1) {
    if (used.has(i)) continue;
    const family = common
      .map((_, j) => j)
      .filter((j) => parallel(common[i].here, common[j].here) && parallel(common[i].there, common[j].there));
    family.forEach((j) => used.add(j));
    const ordered = family
      .map((j) => ({ ...common[j], at: offset(common[i].here, common[j].here) }))
      .sort((a, b) => a.at - b.at);
    for (let k = 1; k < ordered.length; k += 1) {
      const [a, b] = [ordered[k - 1], ordered[k]];
      const [here, other] = [Math.abs(offset(a.here, b.here)), Math.abs(offset(a.there, b.there))];
      if (Math.abs(here - other) > sameSpacing)
        found.push({
          between: [a.here.label, b.here.label]
            .sort((x, y) => x.localeCompare(y, 'en', { numeric: true }))
            .join(' and '),
          here,
          there: other,
        });
    }
  }
  return found.sort((a, b) => a.between.localeCompare(b.between, 'en', { numeric: true }));
}

type Straight = Extract<GridLine, { kind: 'line' }>;
const directionOf = ({ start, end }: Straight): Point => {
  const length = distance(start, end);
  return [(end[0] - start[0]) / length, (end[1] - start[1]) / length];
};
const parallel = (a: Straight, b: Straight): boolean => Math.abs(cross(directionOf(a), directionOf(b))) < 0.005;
/** How far a parallel's middle lies to the left of a line. */
const offset = (line: Straight, other: Straight): number =>
  cross(
    directionOf(line),
    subtract([(other.start[0] + other.end[0]) / 2, (other.start[1] + other.end[1]) / 2], line.start),
  );
