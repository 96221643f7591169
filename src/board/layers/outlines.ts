import type { Point } from '@/core/geometry/vector';
import { boxOf, type Box } from '@/core/geometry/boxIndex';
import { outlinesOf, pointsOf } from '@/core/kinds/kinds';
import type { ElementRow } from '@/core/kinds/element';
import type { Wall } from '@/core/kinds/wall';
import { shapedOf, type Candidate } from '@/core/reading/candidate';

/** What is drawn of a shape: outlines made once, as long as the shape is the same. */
interface Prepared {
  host: Wall | null;
  outlines: Point[][];
  box: Box;
}

const prepared = new WeakMap<object, Prepared>();

function prepare(shape: object, host: Wall | null, make: () => { outlines: Point[][]; points: Point[] }): Prepared {
  const known = prepared.get(shape);
  if (known && known.host === host) return known;
  const { outlines, points } = make();
  const made = { host, outlines, box: boxOf(points) };
  prepared.set(shape, made);
  return made;
}

/** The outlines of an element, and the box round it. @param host the wall that an opening is in */
export const preparedElement = (element: ElementRow, host: Wall | null): Prepared =>
  prepare(element.shape, host, () => ({ outlines: outlinesOf(element, host), points: pointsOf(element, host) }));

/** The same of a candidate. */
export const preparedCandidate = (candidate: Candidate): Prepared =>
  prepare(candidate.element, null, () =>
    candidate.kind === 'opening'
      ? { outlines: [candidate.outline], points: candidate.outline }
      : { outlines: outlinesOf(shapedOf(candidate)), points: pointsOf(shapedOf(candidate)) },
  );
