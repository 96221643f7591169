import type { Column } from '@/core/kinds/column';
import type { Candidate } from '@/core/reading/candidate';

/** A candidate of a column as a reading gives it, for tests. */
export const candidateFor = (kind: 'column', element: Column, handle = '1A'): Candidate => ({
  kind,
  key: `column:${handle}`,
  element,
  raw: { width: 0.4, depth: 0.4 },
  crossing: null,
  evidence: [],
  confidence: 0.9,
  handles: [handle],
  doubt: null,
});
