import type { Box } from '@/core/geometry/boxIndex';
import type { Point } from '@/core/geometry/vector';
import type { ElementKind, ElementRow, Shaped } from '@/core/kinds/element';
import { awayFrom, kinds } from '@/core/kinds/kinds';
import type { Wall } from '@/core/kinds/wall';
import { shapedOf, type Candidate } from '@/core/reading/candidate';
import type { CandidateIndex } from './candidateIndex';
import { elementsIn } from './layers/modelContent';
import { preparedCandidate, preparedElement } from './layers/outlines';
import type { BoardScene } from './scene';

/** How far from something a click still means it, in pixels. */
const reachPixels = 12;

/** What lies under the pointer: an element, or a candidate that nobody has decided on. */
export type Hit = { element: ElementRow; candidate: null } | { element: null; candidate: Candidate };

/** By how many pixels a click misses something; small things come before lines, lines before what lies under them. */
const missedBy = (of: Shaped, host: Wall | null, p: Point, metresPerPixel: number): number =>
  awayFrom(of, p, host) / metresPerPixel + kinds[of.kind].standsBack;

const around = ([x, y]: Point, reach: number): Box => [x - reach, y - reach, x + reach, y + reach];

/** What a click at a point means: the nearest of what is in reach, an open candidate before an element as near. */
export function hitAt(scene: BoardScene, candidates: CandidateIndex, p: Point, metresPerPixel: number): Hit | null {
  const box = around(p, reachPixels * metresPerPixel);
  let best: { hit: Hit; missed: number } | null = null;
  const offer = (hit: Hit, missed: number) => {
    if (missed <= reachPixels && (best === null || missed < best.missed)) best = { hit, missed };
  };
  for (const candidate of candidates.touching(box))
    offer({ element: null, candidate }, candidateMissedBy(candidate, p, metresPerPixel));
  for (const element of elementsIn(scene, box)) {
    // What somebody has checked is there to snap to, and is never caught.
    if (element.held) continue;
    const host = scene.model.index.hostOf(element);
    offer({ element, candidate: null }, missedBy(element, host, p, metresPerPixel));
  }
  return (best as { hit: Hit } | null)?.hit ?? null;
}

/** The element of some kinds that a click at a point means; null where none is in reach. */
export function elementAt(
  scene: BoardScene,
  p: Point,
  metresPerPixel: number,
  wanted: readonly ElementKind[] | 'any',
): ElementRow | null {
  const box = around(p, reachPixels * metresPerPixel);
  let best: { element: ElementRow; missed: number } | null = null;
  for (const element of elementsIn(scene, box)) {
    if (wanted !== 'any' && !wanted.includes(element.kind)) continue;
    const missed = missedBy(element, scene.model.index.hostOf(element), p, metresPerPixel);
    if (missed <= reachPixels && (best === null || missed < best.missed)) best = { element, missed };
  }
  return (best as { element: ElementRow } | null)?.element ?? null;
}

function candidateMissedBy(candidate: Candidate, p: Point, metresPerPixel: number): number {
  if (candidate.kind !== 'opening') return missedBy(shapedOf(candidate), null, p, metresPerPixel);
  // Until it is accepted an opening has no wall to lie in, but the outline that was read.
  const [minX, minY, maxX, maxY] = preparedCandidate(candidate).box;
  const [dx, dy] = [Math.max(minX - p[0], 0, p[0] - maxX), Math.max(minY - p[1], 0, p[1] - maxY)];
  return Math.hypot(dx, dy) / metresPerPixel + kinds.opening.standsBack;
}

/** Whether a box lies wholly within another. */
const within = (inner: Box, outer: Box): boolean =>
  inner[0] >= outer[0] && inner[1] >= outer[1] && inner[2] <= outer[2] && inner[3] <= outer[3];

/** Whether a side of an outline touches a box. */
function touches(points: readonly Point[], closed: boolean, box: Box): boolean {
  const sides = closed ? points.length : points.length - 1;
  for (let i = 0; i < sides; i += 1) if (sideTouches(points[i], points[(i + 1) % points.length], box)) return true;
  return false;
}

/** Whether a straight side has a point in a box, by clipping it (Liang and Barsky, 1984). */
function sideTouches([x1, y1]: Point, [x2, y2]: Point, [minX, minY, maxX, maxY]: Box): boolean {
  let [from, to] = [0, 1];
  const clip = (d: number, q: number): boolean => {
    if (d === 0) return q >= 0;
    if (d < 0) from = Math.max(from, q / d);
    else to = Math.min(to, q / d);
    return from <= to;
  };
  const [dx, dy] = [x2 - x1, y2 - y1];
  return clip(-dx, x1 - minX) && clip(dx, maxX - x1) && clip(-dy, y1 - minY) && clip(dy, maxY - y1);
}

/** The elements that lie inside a box, or, where touching is enough, those that have a part in it. */
export function elementsInBox(scene: BoardScene, box: Box, touching: boolean): ElementRow[] {
  return elementsIn(scene, box).filter((element) => {
    if (element.held) return false;
    const host = scene.model.index.hostOf(element);
    const { outlines, box: own } = preparedElement(element, host);
    if (within(own, box)) return true;
    if (!touching) return false;
    if (element.kind === 'grid') return touches(kinds.grid.points(element.shape, null), false, box);
    const [x, y] = [box[0], box[1]];

    return outlines.some((outline) => touches(outline, true, box)) || awayFrom(element, [x, y], host) === 0;
  });
}
