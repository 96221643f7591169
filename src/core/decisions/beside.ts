import { BoxIndex, boxOf, type Box } from '@/core/geometry/boxIndex';
import { groupBy } from '@/core/groupBy';
import type { Point } from '@/core/geometry/vector';
import { awayFromLine } from '@/core/kinds/lines';
import { wallLine } from '@/core/kinds/wall';
import { shapedOf, type Candidate, type WallCandidate } from '@/core/reading/candidate';
import { sameLine } from './conflicts';
import { onePlace, otherSize, placeOf, together } from './sameThing';
import { isStructural } from './wallsAround';

/** What was read of a drawing of one storey. */
export interface StoreyDrawing {
  name: string;
  candidates: readonly Candidate[];
}

/** How candidates compare with those of another drawing of their storey. */
export interface Beside {
  name: string;
  /** How many of each kind are read in both alike. */
  alike: Map<Candidate['kind'], number>;
  /** Read otherwise there, or missing there: what is said of each, by its key. */
  unlike: Map<string, { words: string; missing: boolean }>;
}

/** Kinds that drawings of one storey have in common. */
const compared = new Set<Candidate['kind']>(['grid', 'column', 'beam', 'wall', 'opening', 'slab', 'zone']);
/** What lies further than this outside all of its kind in another drawing is not missing there, metres. */
const about = 1;

/**
 * Compares what was read of a drawing with what was read of another one of its storey. What the other does not show at
 * all, or not in this part of the building, it does not miss; a structural drawing does not miss what carries nothing.
 */
export function besideOther(own: StoreyDrawing, other: StoreyDrawing): Beside {
  const there = groupBy(
    other.candidates.filter(({ kind }) => compared.has(kind)),
    ({ kind }) => kind,
  );
  const unlike: Beside['unlike'] = new Map();
  const alike: Beside['alike'] = new Map();
  for (const [kind, candidates] of groupBy(own.candidates, (candidate) => candidate.kind)) {
    const others = there.get(kind);
    if (others === undefined) continue;
    const found = finderOf(kind, others);
    const places = others.map(pointOf).filter((p) => p !== null);
    const extent = boxOf(places, about);
    const mayMiss = kind !== 'wall' || isStructural(own.name) || !isStructural(other.name);
    for (const candidate of candidates) {
      const twin = found(candidate);
      if (twin === null) {
        if (mayMiss && liesIn(extent, pointOf(candidate)))
          unlike.set(candidate.key, { words: `not in ${other.name}`, missing: true });
        continue;
      }
      const words = differenceOf(candidate, twin);
      if (words === null) alike.set(kind, (alike.get(kind) ?? 0) + 1);
      else unlike.set(candidate.key, { words: `${words} in ${other.name}`, missing: false });
    }
  }
  return { name: other.name, alike, unlike };
}

const pointOf = (candidate: Candidate): Point | null =>
  candidate.kind === 'opening' ? candidate.at : placeOf(shapedOf(candidate));

const liesIn = ([x1, y1, x2, y2]: Box, p: Point | null): boolean =>
  p !== null && p[0] >= x1 && p[0] <= x2 && p[1] >= y1 && p[1] <= y2;

/** How the other one is, in words; null where they are alike. */
function differenceOf(a: Candidate, b: Candidate): string | null {
  if (a.kind === 'grid' && b.kind === 'grid') {
    if (!sameLine(a.element, b.element)) return `another line is called ${b.element.label}`;
    return a.element.label.toLowerCase() === b.element.label.toLowerCase() ? null : `called ${b.element.label}`;
  }
  return otherSize(shapedOf(a), shapedOf(b));
}

/** Finds the one of others that stands for the same thing as a candidate. */
function finderOf(kind: Candidate['kind'], others: readonly Candidate[]): (candidate: Candidate) => Candidate | null {
  if (kind === 'grid') return (candidate) => sameGridLine(candidate, others);
  if (kind === 'wall') return wallFinder(others);
  const index = new BoxIndex(others, (other) => boxOf([pointOf(other) ?? [0, 0]], onePlace));
  return (candidate) => {
    const at = pointOf(candidate);
    if (at === null) return null;
    return index.around(at).find((other) => together(at, pointOf(other) ?? [Infinity, Infinity])) ?? null;
  };
}

/** The grid line that lies where this one does, else the one with its label. */
function sameGridLine(candidate: Candidate, others: readonly Candidate[]): Candidate | null {
  if (candidate.kind !== 'grid') return null;
  const { element } = candidate;
  const lines = others.flatMap((other) => (other.kind === 'grid' ? [other] : []));
  return (
    lines.find((other) => sameLine(other.element, element)) ??
    lines.find((other) => other.element.label.toLowerCase() === element.label.toLowerCase()) ??
    null
  );
}

/** Walls may be parted differently: one is there where another runs along it at its middle and at both quarters. */
function wallFinder(others: readonly Candidate[]): (candidate: Candidate) => Candidate | null {
  const walls = others.flatMap((other): WallCandidate[] => (other.kind === 'wall' ? [other] : []));
  const index = new BoxIndex(walls, ({ element }) => boxOf(wallLine(element), onePlace));
  return (candidate) => {
    if (candidate.kind !== 'wall') return null;
    const line = wallLine(candidate.element);
    const along = (share: number): WallCandidate | undefined => {
      const p = pointAt(line, share);
      return index.around(p).find(({ element }) => awayFromLine(wallLine(element), p) < onePlace);
    };
    const [first, middle, last] = [0.25, 0.5, 0.75].map(along);
    return first && middle && last ? middle : null;
  };
}

/** A point of a line of points, by its share of the number of its pieces. */
function pointAt(line: readonly Point[], share: number): Point {
  const place = share * (line.length - 1);
  const i = Math.min(line.length - 2, Math.floor(place));
  const t = place - i;
  return [line[i][0] + (line[i + 1][0] - line[i][0]) * t, line[i][1] + (line[i + 1][1] - line[i][1]) * t];
}
