import type { Candidate } from '@/core/reading/candidate';
import { sizeOf } from './facts';

/** What is shown of the candidates of a kind: all, some kind of trouble, or one size. */
export type Filter = 'all' | 'doubtful' | 'conflict' | 'unlike' | 'off grid' | `size ${string}`;

/** What is said of candidates beside their own doubts, by their keys. */
export interface Told {
  /** Those that the model has already, or that call another line alike. */
  conflicts: ReadonlyMap<string, string>;
  /** Those that another drawing of the storey shows otherwise, or not. */
  unlike: ReadonlyMap<string, string>;
}

/** Kinds whose sizes repeat. */
const sized = new Set<Candidate['kind']>(['column', 'beam', 'opening']);

const sizeFilter = (candidate: Candidate): Filter =>
  `size ${candidate.kind === 'wall' ? `${(candidate.element.thickness * 1000).toFixed(0)} mm` : sizeOf(candidate)}`;
const hasSize = ({ kind }: Candidate): boolean => kind === 'wall' || sized.has(kind);

/** @param crossing how near a column stands that is meant to stand on a crossing, metres */
export function passes(candidate: Candidate, filter: Filter, { conflicts, unlike }: Told, crossing: number): boolean {
  switch (filter) {
    case 'all':
      return true;
    case 'doubtful':
      return candidate.doubt !== null;
    case 'conflict':
      return conflicts.has(candidate.key);
    case 'unlike':
      return unlike.has(candidate.key);
    case 'off grid':
      return candidate.kind === 'column' && (candidate.crossing === null || candidate.crossing.distance > crossing);
    default:
      return hasSize(candidate) && sizeFilter(candidate) === filter;
  }
}

/** The filters that leave something, each with how much. */
export function filtersFor(
  candidates: readonly Candidate[],
  told: Told,
  crossing: number,
): { name: Filter; word: string; count: number }[] {
  const words: [Filter, string][] = [
    ['all', 'All'],
    ['doubtful', 'Doubtful'],
    ['conflict', 'In conflict'],
    ['unlike', 'Otherwise elsewhere'],
    ['off grid', 'Off the grid'],
  ];
  const sizes = new Map<Filter, number>();
  for (const candidate of candidates)
    if (hasSize(candidate)) {
      const size = sizeFilter(candidate);
      sizes.set(size, (sizes.get(size) ?? 0) + 1);
    }
  return [
    ...words
      .map(([name, word]) => ({
        name,
        word,
        count: candidates.filter((candidate) => passes(candidate, name, told, crossing)).length,
      }))
      .filter(({ name, count }) => count > 0 || name === 'all'),
    ...[...sizes]
      .sort(([a], [b]) => a.localeCompare(b, 'en', { numeric: true }))
      .map(([name, count]) => ({ name, word: name.slice(5), count })),
  ];
}
