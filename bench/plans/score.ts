import { cross, distance, dot, subtract, type Point } from '@/core/geometry/vector';
import { leastRectangle } from '@/core/geometry/polygon';
import {
  weightOf,
  type BeamCandidate,
  type Candidate,
  type ColumnCandidate,
  type GridCandidate,
  type OpeningCandidate,
  type WallCandidate,
  type ZoneCandidate,
} from '@/core/reading/candidate';
import type { Truth } from './hand';

export const scoredKinds = ['grid lines', 'columns', 'beams', 'walls', 'doors and windows', 'zones'] as const;
export type ScoredKind = (typeof scoredKinds)[number];

/** What was said of a candidate and what it was. */
export interface Judged {
  confidence: number;
  /** The weight of its evidence, before it is calibrated. */
  weight: number;
  /** The share of it that is true: 0 or 1, but for walls a part of their length may be. */
  right: number;
}

/**
 * Matches of one kind: of so many true ones so many were found, of so many read so many are true; the largest errors of
 * position and size, metres. Walls count by their lengths.
 */
export interface Score {
  truth: number;
  found: number;
  read: number;
  right: number;
  position: number;
  size: number;
  labels: number;
  missed: string[];
  judged: Judged[];
}

export type Scores = Record<ScoredKind, Score>;

const fresh = (): Score => ({
  truth: 0,
  found: 0,
  read: 0,
  right: 0,
  position: 0,
  size: 0,
  labels: 0,
  missed: [],
  judged: [],
});

export const noScores = (): Scores =>
  Object.fromEntries(scoredKinds.map((kind) => [kind, fresh()])) as Record<ScoredKind, Score>;

export const recallOf = ({ truth, found }: Score): number => (truth === 0 ? 1 : found / truth);
export const precisionOf = ({ read, right }: Score): number => (read === 0 ? 1 : right / read);
/** The harmonic mean of recall and precision. */
export const balance = (score: Score): number => {
  const [recall, precision] = [recallOf(score), precisionOf(score)];
  return recall + precision === 0 ? 0 : (2 * recall * precision) / (recall + precision);
};

/** Adds the scores of one plan to those of others. */
export function addScores(all: Scores, one: Scores): void {
  for (const kind of scoredKinds) {
    const [sum, add] = [all[kind], one[kind]];
    sum.truth += add.truth;
    sum.found += add.found;
    sum.read += add.read;
    sum.right += add.right;
    sum.labels += add.labels;
    sum.position = Math.max(sum.position, add.position);
    sum.size = Math.max(sum.size, add.size);
    sum.missed.push(...add.missed);
    sum.judged.push(...add.judged);
  }
}

interface Fit {
  /** Metres off. */
  position: number;
  size: number;
  label: boolean;
}

/** Farthest off that the same thing may be, metres; a share for areas. */
const off = { grid: 0.05, column: 0.05, section: 0.02, beam: 0.1, opening: 0.1, wall: 0.03, thick: 0.012, area: 0.03 };

/** Holds what was read against the truth. */
export function scorePlan(truth: Truth, candidates: readonly Candidate[]): Scores {
  const of = <T extends Candidate>(kind: T['kind']): T[] =>
    candidates.filter((candidate): candidate is T => candidate.kind === kind);
  const lines = of<GridCandidate>('grid').filter(({ element }) => element.kind === 'line');
  return {
    'grid lines': match(truth.grids, lines, gridFit, ({ label }) => label),
    columns: match(truth.columns, of<ColumnCandidate>('column'), columnFit, ({ at }) => words(at)),
    beams: match(truth.beams, of<BeamCandidate>('beam'), beamFit, ({ mark }) => mark),
    walls: scoreWalls(truth.walls, of<WallCandidate>('wall')),
    'doors and windows': match(
      truth.openings,
      of<OpeningCandidate>('opening'),
      openingFit,
      ({ use, at }) => `${use} ${words(at)}`,
    ),
    zones: match(truth.zones, of<ZoneCandidate>('zone'), zoneFit, ({ number }) => number),
  };
}

const words = (at: Point) => at.map((value) => value.toFixed(2)).join(',');

function gridFit(t: Truth['grids'][number], { element }: GridCandidate): Fit | null {
  if (element.kind !== 'line') return null;
  const away = Math.max(offLine(element.start, t.a, t.b), offLine(element.end, t.a, t.b));
  return away < off.grid ? { position: away, size: 0, label: element.label === t.label } : null;
}

function columnFit(t: Truth['columns'][number], { element: { position, section } }: ColumnCandidate): Fit | null {
  const away = distance(position, t.at);
  let size = 1;
  if (section.shape === 'circle' && t.round) size = Math.abs(section.diameter - t.width);
  if (!t.round && section.shape !== 'circle' && (section.shape === 'polygon') === t.steel) {
    const { width, depth } = section.shape === 'polygon' ? leastRectangle(section.outline)! : section;
    size = Math.max(
      Math.abs(Math.max(width, depth) - Math.max(t.width, t.depth)),
      Math.abs(Math.min(width, depth) - Math.min(t.width, t.depth)),
    );
  }
  return away > off.column || size > off.section ? null : { position: away, size, label: true };
}

function beamFit(t: Truth['beams'][number], { element }: BeamCandidate): Fit | null {
  const away = Math.min(
    distance(element.start, t.a) + distance(element.end, t.b),
    distance(element.start, t.b) + distance(element.end, t.a),
  );
  const size =
    element.section.shape === 'rectangle'
      ? Math.max(Math.abs(element.section.width - t.width), Math.abs(element.section.depth - t.depth))
      : 1;
  return away < off.beam ? { position: away / 2, size, label: element.mark === t.mark } : null;
}

function openingFit(t: Truth['openings'][number], { at, element }: OpeningCandidate): Fit | null {
  const away = distance(at, t.at);
  return away < off.opening && element.use === t.use
    ? { position: away, size: Math.abs(element.width - t.width), label: true }
    : null;
}

function zoneFit(t: Truth['zones'][number], { element, areas }: ZoneCandidate): Fit | null {
  const same = element.number === t.number && Math.abs(areas.inner / t.area - 1) < off.area;
  return same ? { position: 0, size: 0, label: element.name === t.name } : null;
}

/** One to one, the nearest first. */
function match<T, C extends Candidate>(
  truth: readonly T[],
  read: readonly C[],
  compare: (t: T, c: C) => Fit | null,
  nameOf: (t: T) => string,
): Score {
  const pairs = truth
    .flatMap((t, i) =>
      read.flatMap((c, j) => {
        const fit = compare(t, c);
        return fit ? [{ i, j, fit }] : [];
      }),
    )
    .sort((p, q) => p.fit.position - q.fit.position);
  const score = fresh();
  const [done, used] = [new Set<number>(), new Set<number>()];
  for (const { i, j, fit } of pairs) {
    if (done.has(i) || used.has(j)) continue;
    done.add(i);
    used.add(j);
    score.position = Math.max(score.position, fit.position);
    score.size = Math.max(score.size, fit.size);
    if (fit.label) score.labels += 1;
  }
  return {
    ...score,
    truth: truth.length,
    found: done.size,
    read: read.length,
    right: used.size,
    missed: truth.filter((_, i) => !done.has(i)).map(nameOf),
    judged: read.map((candidate, j) => judgedAs(candidate, used.has(j))),
  };
}

/** Walls count by their lengths: a true wall is found as far as walls of its thickness lie on it. */
function scoreWalls(truth: Truth['walls'], walls: readonly WallCandidate[]): Score {
  const score = fresh();
  for (const t of truth) {
    const length = distance(t.a, t.b);
    let covered = 0;
    for (const wall of walls.filter((one) => liesOn(t, one))) {
      const { start, end, thickness } = wall.element;
      covered += overlap(t, wall);
      score.position = Math.max(score.position, offLine(start, t.a, t.b), offLine(end, t.a, t.b));
      score.size = Math.max(score.size, Math.abs(thickness - t.thickness));
    }
    const found = Math.min(length, covered);
    score.truth += length;
    score.found += found;
    score.labels += found;
    if (found < 0.97 * length)
      score.missed.push(`${words(t.a)} to ${words(t.b)}: ${((100 * found) / length).toFixed(0)} %`);
  }
  for (const wall of walls) {
    const length = distance(wall.element.start, wall.element.end);
    const right = truth.some((t) => liesOn(t, wall)) ? 1 : 0;
    score.read += length;
    score.right += right * length;
    score.judged.push(judgedAs(wall, right === 1));
  }
  return score;
}

const judgedAs = ({ confidence, evidence }: Candidate, isRight: boolean): Judged => ({
  confidence,
  weight: weightOf(evidence),
  right: isRight ? 1 : 0,
});

const liesOn = (t: Truth['walls'][number], { element }: WallCandidate): boolean =>
  element.bulge === 0 &&
  Math.abs(element.thickness - t.thickness) < off.thick &&
  offLine(element.start, t.a, t.b) < off.wall &&
  offLine(element.end, t.a, t.b) < off.wall;

/** The length of a true wall on which another lies. */
function overlap(t: Truth['walls'][number], { element }: WallCandidate): number {
  const length = distance(t.a, t.b);
  const u: Point = [(t.b[0] - t.a[0]) / length, (t.b[1] - t.a[1]) / length];
  const along = [element.start, element.end].map((p) => dot(subtract(p, t.a), u));
  return Math.max(0, Math.min(length, Math.max(...along)) - Math.max(0, Math.min(...along)));
}

/** How far a point is from a segment's line, or beyond its ends by more than half a metre. */
function offLine(p: Point, a: Point, b: Point): number {
  const length = distance(a, b);
  const u: Point = [(b[0] - a[0]) / length, (b[1] - a[1]) / length];
  const along = dot(subtract(p, a), u);
  return along < -0.5 || along > length + 0.5 ? Infinity : Math.abs(cross(u, subtract(p, a)));
}
