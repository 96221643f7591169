import type { Box } from '@/core/geometry/boxIndex';
import type { ElementRow } from '@/core/kinds/element';
import type { Diff, Model } from '@/core/model/model';
import type { CandidateIndex } from './candidateIndex';
import { preparedCandidate, preparedElement } from './layers/outlines';

/** Of an edit that changes more rows than this not each place is looked up. */
const mostPlaces = 200;

/**
 * The places that an edit makes stale on the board, before and after it; null where all of it is: labels of grid lines
 * step aside for one another, and with one of them all may move.
 */
export function stalePlaces({ rows }: Diff, model: Model, candidates: CandidateIndex): Box[] | null {
  if (rows.length > mostPlaces) return null;
  const boxes: Box[] = [];
  const boxOf = (element: ElementRow): Box => preparedElement(element, model.index.hostOf(element)).box;
  for (const row of rows) {
    if (row.table === 'element') {
      const concerned = [row.before, row.after].filter((element) => element !== null);
      if (concerned.some(({ kind }) => kind === 'grid')) return null;
      // Openings go with their wall.
      boxes.push(...[...concerned, ...model.index.openingsOf(row.id)].map(boxOf));
    } else if (row.table === 'decision') {
      const candidate = candidates.ofDecision(row.id);
      if (candidate?.kind === 'grid') return null;
      if (candidate) boxes.push(preparedCandidate(candidate).box);
    }
  }
  return boxes;
}
