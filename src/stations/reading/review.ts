import { readKinds, type ElementKind, type ReadKind } from '@/core/kinds/element';
import { kinds } from '@/core/kinds/kinds';
import { unplace, type Placement } from '@/core/datum/placement';
import type { Point } from '@/core/geometry/vector';
import type { Candidate, ColumnCandidate, Unread } from '@/core/reading/candidate';
import type { ReadingResult } from '@/core/reading/read';
import { asksAlike } from '@/core/sorting/answers';
import { defaultTolerance } from '@/core/tolerance';
import { nameOfCandidate, type Verdict } from '@/project/readings';
import { sizeOf } from './facts';
import { filtersFor, passes, type Filter, type Told } from './filters';

/** A candidate and what was decided about it. */
export interface Judged {
  candidate: Candidate;
  verdict: Verdict;
}

/** What is looked at, and how it is narrowed down. */
export interface Looking {
  kind: ElementKind;
  verdict: Verdict;
  find: string;
  filter: Filter;
  /** Confidence from which on open candidates are acted on together. */
  threshold: number;
  chosen: ReadonlySet<string>;
  told: Told;
  /** A column within this of a crossing is meant to stand on it, metres. */
  crossing: number;
}

/** A column that stands close to a crossing and not on it. */
const isNearMiss = ({ crossing }: ColumnCandidate, within: number): boolean =>
  crossing !== null && crossing.distance > defaultTolerance.coincidence && crossing.distance <= within;

/** What a candidate is found by. */
function wordsToFind(candidate: Candidate): string {
  let own = '';
  if (candidate.kind === 'column') own = candidate.element.mark;
  else if (candidate.kind === 'zone') own = candidate.element.name;
  return [nameOfCandidate(candidate), sizeOf(candidate), own, candidate.doubt ?? ''].join(' ').toLowerCase();
}

/** What of all candidates is listed and acted on. */
export function lookThrough(all: readonly Judged[], looking: Looking) {
  const { kind, verdict, threshold, told, crossing, chosen } = looking;
  const { conflicts } = told;
  const ofKind = all.filter(({ candidate }) => candidate.kind === kind);
  const judged = ofKind.filter((entry) => entry.verdict === verdict).map(({ candidate }) => candidate);
  const filters = filtersFor(judged, told, crossing);
  const filter = filters.some(({ name }) => name === looking.filter) ? looking.filter : 'all';
  const wanted = looking.find.trim().toLowerCase();
  const listed = judged.filter(
    (candidate) =>
      passes(candidate, filter, told, crossing) && (wanted === '' || wordsToFind(candidate).includes(wanted)),
  );
  const open = ofKind.filter((entry) => entry.verdict === 'open').map(({ candidate }) => candidate);
  // What the model has already is not doubled in passing: it is accepted only where it was chosen.
  const clear = (candidate: Candidate) => candidate.confidence >= threshold && !conflicts.has(candidate.key);
  const picked = listed.filter(({ key }) => chosen.has(key));
  return {
    ofKind,
    filters,
    filter,
    listed,
    open,
    picked,
    doubtful: listed.filter(({ doubt }) => doubt !== null),
    near: open.filter(
      (candidate): candidate is ColumnCandidate => candidate.kind === 'column' && isNearMiss(candidate, crossing),
    ),
    /** Of all kinds. */
    everything: all
      .filter((entry) => entry.verdict === 'open' && clear(entry.candidate))
      .map(({ candidate }) => candidate),
    acted: actedOn({ picked, listed, open, clear, looking, filter, narrowed: filter !== 'all' || wanted !== '' }),
  };
}

interface Acting {
  picked: Candidate[];
  listed: Candidate[];
  open: Candidate[];
  clear: (candidate: Candidate) => boolean;
  looking: Looking;
  filter: Filter;
  narrowed: boolean;
}

/** What the first button is about: what was chosen, else what is listed of it, else all that is sure enough. */
function actedOn({ picked, listed, open, clear, looking, filter, narrowed }: Acting): Candidate[] {
  if (picked.length > 0) return picked;
  if (looking.verdict !== 'open') return listed;
  if (!narrowed) return open.filter(clear);
  return listed.filter(
    ({ confidence, key }) =>
      confidence >= looking.threshold && (filter === 'conflict' || !looking.told.conflicts.has(key)),
  );
}

/** The kinds that have a tab: grid and columns always, others where something was read or left unread of them. */
export const kindsShown = (all: readonly Judged[], result: ReadingResult | null, present: ReadKind): ReadKind[] =>
  readKinds.filter(
    (name) =>
      name === 'grid' ||
      name === 'column' ||
      name === present ||
      all.some(({ candidate }) => candidate.kind === name) ||
      unreadOf(result, name).length > 0,
  );

/** What was drawn for a kind and not read. */
export const unreadOf = (result: ReadingResult | null, kind: ElementKind) =>
  (result?.unread ?? []).filter(({ role }) => kinds[kind].roles.own.includes(role));

/** How many lines there are on the layers of a kind. */
export const drawnOf = (result: ReadingResult | null, kind: ElementKind): number =>
  kinds[kind].roles.own.reduce(
    (sum, role) => sum + Object.values(result?.drawn[role] ?? {}).reduce((all, count) => all + count, 0),
    0,
  );

/** How many are accepted from a threshold on, and how many of those are wrong by what was said of each. */
export function promise(accepted: readonly Candidate[]): string {
  const wrong = Math.round(accepted.reduce((sum, { confidence }) => sum + 1 - confidence, 0));
  return `Accept from here: ${accepted.length}, about ${wrong === 0 ? 'none' : wrong} of them wrong`;
}

/** How many other candidates leave the same open as one does. */
export const alikeAsked = (all: readonly Candidate[], { key, asks }: Candidate): number =>
  asks ? all.filter((other) => other.key !== key && other.asks && asksAlike(other.asks, asks)).length : 0;

/** Where what is unread is open, as x1 y1 x2 y2 each, in the drawing about an origin. */
export function leaksOf(unread: readonly Unread[], placement: Placement, [ox, oy]: Point): Float32Array {
  const ends = unread.flatMap(({ leak }) => leak ?? []).map((p) => unplace(placement, p));
  return Float32Array.from(ends.flatMap(([x, y]) => [x - ox, y - oy]));
}
