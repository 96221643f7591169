import { asDrawn } from '@/core/datum/placement';
import { readDxf } from '@/core/drawing/reader';
import { cross, distance, dot, subtract, type Point } from '@/core/geometry/vector';
import type {
  Candidate,
  ColumnCandidate,
  GridCandidate,
  OpeningCandidate,
  WallCandidate,
  ZoneCandidate,
  BeamCandidate,
} from '@/core/reading/candidate';
import { read } from '@/core/reading/read';
import { toleranceFor } from '@/core/patterns/settings';
import { Scene } from '@/core/reading/scene';
import type { Role } from '@/core/sorting/roles';
import { suggestRole } from '@/core/sorting/suggest';
import { flatten } from '@/core/underlay/flatten';
import { tiled } from './tiledPlan';
import { truthPlan, type Truth, type TruthPlan } from './truthPlan';

export const scoredKinds = ['grid lines', 'columns', 'beams', 'walls', 'doors and windows', 'zones'] as const;
export type ScoredKind = (typeof scoredKinds)[number];

/**
 * Matches of one kind: of so many true ones so many were found, of so many read so many are true; the largest errors of
 * position and size, metres.
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
}

const fresh = (): Score => ({ truth: 0, found: 0, read: 0, right: 0, position: 0, size: 0, labels: 0, missed: [] });

/**
 * Where roles come from: they are given, suggested by the layers' names, or told path by path by geometry alone, as of
 * a drawing on one layer.
 */
export type RolesBy = 'given' | 'suggested' | 'by geometry';

/** Reads a plan. */
export function readPlan(plan: TruthPlan, roles: RolesBy): Candidate[] {
  const result = readDxf(new TextEncoder().encode(plan.dxf));
  if (!result.ok) throw new Error(result.message);
  const { drawing } = result.value;
  const role = (name: string): Role | null => {
    if (roles === 'given') return (plan.roles[name] as Role | undefined) ?? null;
    if (roles === 'suggested') return suggestRole(name)?.role ?? null;
    return 'mixed';
  };
  return read({
    scene: new Scene(
      drawing,
      flatten(drawing),
      asDrawn(plan.unit),
      drawing.layers.map(({ name }) => role(name)),
    ),
    tolerance: toleranceFor(plan.unit),
  }).candidates;
}

/** Holds what was read against the truth. */
export function scorePlan(
  truth: Truth,
  candidates: readonly Candidate[],
  scores: Record<ScoredKind, Score>,
  name: string,
): void {
  const of = <T extends Candidate>(kind: T['kind']): T[] =>
    candidates.filter((candidate): candidate is T => candidate.kind === kind);
  match(
    scores['grid lines'],
    truth.grids,
    of<GridCandidate>('grid').filter(({ element }) => element.kind === 'line'),
    (t, { element }) => {
      if (element.kind !== 'line') return null;
      const away = Math.max(offLine(element.start, t.a, t.b), offLine(element.end, t.a, t.b));
      return away < 0.05 ? { position: away, size: 0, label: element.label === t.label } : null;
    },
    (t) => `${name} ${t.label}`,
  );
  match(
    scores.columns,
    truth.columns,
    of<ColumnCandidate>('column'),
    (t, { element: { position, section } }) => {
      const away = distance(position, t.at);
      if (away > 0.05) return null;
      let size;
      if (section.shape === 'circle') {
        if (t.round) size = Math.abs(section.diameter - t.width);
        else size = 1;
      } else if (section.shape === 'rectangle')
        size = Math.max(
          Math.abs(Math.max(section.width, section.depth) - Math.max(t.width, t.depth)),
          Math.abs(Math.min(section.width, section.depth) - Math.min(t.width, t.depth)),
        );
      else size = 1;

      return size > 0.02 ? null : { position: away, size, label: true };
    },
    (t) => `${name} ${t.at.map((v) => v.toFixed(2)).join(',')}`,
  );
  match(
    scores.beams,
    truth.beams,
    of<BeamCandidate>('beam'),
    (t, { element }) => {
      const [a, b] = [
        distance(element.start, t.a) + distance(element.end, t.b),
        distance(element.start, t.b) + distance(element.end, t.a),
      ];
      const size =
        element.section.shape === 'rectangle'
          ? Math.max(Math.abs(element.section.width - t.width), Math.abs(element.section.depth - t.depth))
          : 1;
      return Math.min(a, b) < 0.1 ? { position: Math.min(a, b) / 2, size, label: element.mark === t.mark } : null;
    },
    (t) => `${name} ${t.mark}`,
  );
  scoreWalls(scores.walls, truth.walls, of<WallCandidate>('wall'), name);
  match(
    scores['doors and windows'],
    truth.openings,
    of<OpeningCandidate>('opening'),
    (t, { at, element }) => {
      const away = distance(at, t.at);
      return away < 0.1 && element.use === t.use
        ? { position: away, size: Math.abs(element.width - t.width), label: true }
        : null;
    },
    (t) => `${name} ${t.use} ${t.at.map((v) => v.toFixed(2)).join(',')}`,
  );
  match(
    scores.zones,
    truth.zones,
    of<ZoneCandidate>('zone'),
    (t, { element, areas }) => {
      const ratio = areas.inner / t.area;
      return element.number === t.number && ratio > 0.97 && ratio < 1.03
        ? { position: 0, size: 0, label: element.name === t.name }
        : null;
    },
    (t) => `${name} ${t.number}`,
  );
}

/** One to one, the nearest first. */
function match<T, C>(
  score: Score,
  truth: readonly T[],
  read_: readonly C[],
  compare: (t: T, c: C) => { position: number; size: number; label: boolean } | null,
  nameOf: (t: T) => string,
): void {
  const pairs = truth
    .flatMap((t, i) =>
      read_.flatMap((c, j) => {
        const fit = compare(t, c);
        return fit ? [{ i, j, fit }] : [];
      }),
    )
    .sort((p, q) => p.fit.position - q.fit.position);
  const [done, used] = [new Set<number>(), new Set<number>()];
  for (const { i, j, fit } of pairs) {
    if (done.has(i) || used.has(j)) continue;
    done.add(i);
    used.add(j);
    score.position = Math.max(score.position, fit.position);
    score.size = Math.max(score.size, fit.size);
    if (fit.label) score.labels += 1;
  }
  score.truth += truth.length;
  score.found += done.size;
  score.read += read_.length;
  score.right += used.size;
  truth.forEach((t, i) => {
    if (!done.has(i)) score.missed.push(nameOf(t));
  });
}

/** Walls count by their lengths: a true wall is found as far as walls of its thickness lie on it. */
function scoreWalls(score: Score, truth: Truth['walls'], walls: readonly WallCandidate[], name: string): void {
  const lies = (t: Truth['walls'][number], { element }: WallCandidate) =>
    element.bulge === 0 &&
    Math.abs(element.thickness - t.thickness) < 0.012 &&
    offLine(element.start, t.a, t.b) < 0.03 &&
    offLine(element.end, t.a, t.b) < 0.03;
  for (const t of truth) {
    const length = distance(t.a, t.b);
    const u: Point = [(t.b[0] - t.a[0]) / length, (t.b[1] - t.a[1]) / length];
    let covered = 0;
    for (const wall of walls) {
      if (!lies(t, wall)) continue;
      const [from, to] = [dot(subtract(wall.element.start, t.a), u), dot(subtract(wall.element.end, t.a), u)].sort(
        (p, q) => p - q,
      );
      covered += Math.max(0, Math.min(length, to) - Math.max(0, from));
      score.position = Math.max(
        score.position,
        offLine(wall.element.start, t.a, t.b),
        offLine(wall.element.end, t.a, t.b),
      );
      score.size = Math.max(score.size, Math.abs(wall.element.thickness - t.thickness));
    }
    score.truth += length;
    score.found += Math.min(length, covered);
    score.labels += Math.min(length, covered);
    if (covered < 0.97 * length)
      score.missed.push(
        `${name} wall ${t.a.map((v) => v.toFixed(1)).join(',')} to ${t.b.map((v) => v.toFixed(1)).join(',')}: ${((100 * covered) / length).toFixed(0)} %`,
      );
  }
  for (const wall of walls) {
    const length = distance(wall.element.start, wall.element.end);
    score.read += length;
    if (truth.some((t) => lies(t, wall))) score.right += length;
  }
}

/** How far a point is from a segment's line, or beyond its ends by more than half a metre. */
function offLine(p: Point, a: Point, b: Point): number {
  const length = distance(a, b);
  const u: Point = [(b[0] - a[0]) / length, (b[1] - a[1]) / length];
  const along = dot(subtract(p, a), u);
  return along < -0.5 || along > length + 0.5 ? Infinity : Math.abs(cross(u, subtract(p, a)));
}

/** Scores some plans. @param first the number of the first plan */
export function scorePlans(count: number, dirty: boolean, roles: RolesBy, first = 0): Record<ScoredKind, Score> {
  const scores = Object.fromEntries(scoredKinds.map((kind) => [kind, fresh()])) as Record<ScoredKind, Score>;
  for (let seed = first; seed < first + count; seed += 1) {
    const plan = truthPlan(seed, dirty, roles !== 'by geometry');
    scorePlan(plan.truth, readPlan(plan, roles), scores, `${seed} (${plan.style})`);
  }
  return scores;
}

/** `./run bench reading [plans]`: recall, precision and errors by kind on plans whose truth is known. */
export function readingTable([asked = '40']: string[]): number {
  const count = Number(asked);
  if (!Number.isInteger(count) || count < 1) {
    console.error('Usage: ./run bench reading [plans], for example ./run bench reading 40');
    return 2;
  }
  const cell = (text: string) => text.padStart(11);
  for (const dirty of [false, true])
    for (const roles of ['given', 'suggested', 'by geometry'] as const) {
      console.log(`\n${count} ${dirty ? 'dirty' : 'tidy'} plans, roles ${roles}`);
      console.log(
        ['kind'.padEnd(18), ...['true', 'recall', 'precision', 'labels', 'off mm', 'size mm'].map(cell)].join(''),
      );
      const scores = scorePlans(count, dirty, roles);
      for (const kind of scoredKinds) {
        const { truth, found, read: all, right, position, size, labels, missed } = scores[kind];
        console.log(
          [
            kind.padEnd(18),
            ...[
              truth.toFixed(0),
              (truth === 0 ? 1 : found / truth).toFixed(4),
              (all === 0 ? 1 : right / all).toFixed(4),
              (found === 0 ? 1 : labels / found).toFixed(4),
              (position * 1000).toFixed(2),
              (size * 1000).toFixed(2),
            ].map(cell),
          ].join(''),
        );
        if (roles !== 'suggested') for (const one of missed.slice(0, 6)) console.log(`  missed ${one}`);
      }
    }
  console.log(`\nreading a drawing of many such plans, roles given, median of three`);
  let before: { entities: number; seconds: number } | null = null;
  for (const wanted of [10_000, 50_000, 100_000]) {
    const { entities, seconds, found } = timeReading(wanted);
    const growth =
      before === null
        ? ''
        : `, time times ${(seconds / before.seconds).toFixed(1)} for ${(entities / before.entities).toFixed(1)} times as many`;
    console.log(
      `${entities.toLocaleString('en')} entities: ${seconds.toFixed(2)} s, ${found.toLocaleString('en')} candidates${growth}`,
    );
    before = { entities, seconds };
  }
  return 0;
}

/** The time that reading a drawing of about so many entities takes, without reading its file; the median of three. */
function timeReading(wanted: number): { entities: number; seconds: number; found: number } {
  const plan = tiled(wanted);
  const result = readDxf(new TextEncoder().encode(plan.dxf));
  if (!result.ok) throw new Error(result.message);
  const { drawing } = result.value;
  const primitives = flatten(drawing);
  const runs = Array.from({ length: 3 }, () => {
    const scene = new Scene(
      drawing,
      primitives,
      asDrawn('mm'),
      drawing.layers.map(({ name }) => (plan.roles[name] as Role | undefined) ?? null),
    );
    const start = process.hrtime.bigint();
    const { candidates } = read({ scene, tolerance: toleranceFor('mm') });
    return {
      entities: drawing.kind.length,
      seconds: Number(process.hrtime.bigint() - start) / 1e9,
      found: candidates.length,
    };
  });
  return runs.sort((a, b) => a.seconds - b.seconds)[1];
}
