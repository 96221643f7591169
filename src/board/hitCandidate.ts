import { distance, type Point } from '@/core/geometry/vector';
import { contains } from '@/core/geometry/polygon';
import { outlinesOf, wallLine } from '@/core/model/outlines';
import type { Candidate } from '@/core/reading/candidate';
import { anchorOf } from './anchor';

/** How far from a candidate a click still means it, in pixels. */
const reachPixels = 12;

/** How far a point is from a line of points, metres. */
function awayFrom(line: readonly Point[], p: Point): number {
  let best = Infinity;
  for (let i = 0; i + 1 < line.length; i += 1) {
    const [a, b] = [line[i], line[i + 1]];
    const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
    const t = Math.min(1, Math.max(0, ((p[0] - a[0]) * dx + (p[1] - a[1]) * dy) / (dx * dx + dy * dy || 1)));
    best = Math.min(best, distance(p, [a[0] + t * dx, a[1] + t * dy]));
  }
  return best;
}

/** How far a click is from a candidate, in pixels: small things before lines, lines before what lies under them. */
function missedBy(candidate: Candidate, p: Point, metresPerPixel: number): number {
  switch (candidate.kind) {
    case 'column':
      return distance(candidate.element.position, p) / metresPerPixel;
    case 'opening':
      return contains(candidate.outline, p) ? 1 : distance(candidate.at, p) / metresPerPixel + 1;
    case 'grid':
      return (
        (candidate.element.kind === 'line'
          ? awayFrom([candidate.element.start, candidate.element.end], p)
          : distance(anchorOf(candidate), p)) /
          metresPerPixel +
        4
      );
    case 'wall':
      return (
        Math.max(0, awayFrom(wallLine(candidate.element), p) - candidate.element.thickness / 2) / metresPerPixel + 3
      );
    case 'beam':
      return awayFrom([candidate.element.start, candidate.element.end], p) / metresPerPixel + 3;
    default: {
      const [outline, ...holes] = outlinesOf(candidate.kind, candidate.element);
      return contains(outline, p) && !holes.some((hole) => contains(hole, p))
        ? reachPixels - (candidate.kind === 'zone' ? 1 : 0.5)
        : Infinity;
    }
  }
}

/** The candidate that a click at a point means, or null. */
export function candidateAt(candidates: readonly Candidate[], p: Point, metresPerPixel: number): string | null {
  let best: { key: string; missed: number } | null = null;
  for (const candidate of candidates) {
    const missed = missedBy(candidate, p, metresPerPixel);
    if (missed <= reachPixels && (best === null || missed < best.missed)) best = { key: candidate.key, missed };
  }
  return best?.key ?? null;
}
