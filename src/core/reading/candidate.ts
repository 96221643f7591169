import type { Point } from '@/core/geometry/vector';
import type { GridLine, Column } from '@/core/model/elements';

/** One observation behind a candidate. A positive weight speaks for it, a negative one against it (log-odds). */
export interface Evidence { text: string; weight: number }

interface CandidateBase {
  /** Made of the source, so that a candidate is known again at the next reading. */
  key: string;
  evidence: Evidence[];
  /** Probability, from the sum of the evidence. */
  confidence: number;
  /** Entity handles in the drawing. */
  handles: string[];
  /** Why it deserves a look, in a few words; null where nothing is unusual. */
  doubt: string | null;
}

export interface GridCandidate extends CandidateBase { kind: 'grid'; element: GridLine; proposedLabel: boolean }

export interface ColumnCandidate extends CandidateBase {
  kind: 'column';
  element: Column;
  /** As drawn, before rounding, in metres. */
  raw: { width: number; depth: number };
  crossing: Crossing & { distance: number } | null;
}

export type Candidate = GridCandidate | ColumnCandidate;

/** Where two grid lines cross. */
export interface Crossing { name: string; point: Point }

/** What lies on a role and was not understood. */
export interface Unread { role: 'grid' | 'column'; entity: number; handle: string; layer: number; why: string }

export const confidenceOf = (evidence: readonly Evidence[]): number => 1 / (1 + Math.exp(-evidence.reduce((sum, { weight }) => sum + weight, 0)));

export const keyOf = (kind: string, handles: readonly string[]): string => `${kind}:${[...new Set(handles)].sort().join('+')}`;
