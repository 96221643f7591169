import type { Shapes } from '@/core/kinds/element';
import type { DrawingRow } from '@/core/model/state';
import type { Candidate } from '@/core/reading/candidate';

export const uuid = (n: number): string => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;

/** Gives another id each time. */
export function idsFrom(first: number): () => string {
  let next = first;
  return () => uuid((next += 1));
}

/** A drawing that hangs on no level. */
export const drawingRow = (n: number): DrawingRow => ({
  id: uuid(n),
  name: 'plan',
  fileId: uuid(51),
  fileName: 'plan.dxf',
  revision: 1,
  levelId: null,
  alsoOn: [],
  discarded: false,
  setAside: false,
});

/** A candidate of which the source and the shape matter. */
export const read = <K extends keyof Shapes>(kind: K, key: string, element: Shapes[K]): Candidate =>
  ({
    kind,
    key: `${kind}:${key}`,
    element,
    evidence: [],
    confidence: 0.9,
    handles: [key],
    doubt: null,
  }) as unknown as Candidate;

export const gridLine = (key: string, label: string, x: number): Candidate =>
  read('grid', key, { label, kind: 'line', start: [x, 0], end: [x, 9] });
