import type { PlacedPath } from '@/core/placed/placed';
import { area, centroid, contains } from '@/core/geometry/polygon';
import { distance, type Point } from '@/core/geometry/vector';
import { confidenceOf, keyAt, type Evidence, type OutdoorCandidate, type Unread } from '../candidate';
import { findOutlines, pathPoints } from '@/core/patterns/outlines';
import type { Scene } from '../scene';
import type { ReadingSettings } from '@/core/patterns/settings';

/** Two open lines further apart than this bound no road, metres. */
const widestRoad = 14;

/**
 * Reads outdoor surfaces: closed outlines, and pairs of open lines of one layer that run beside one another, as roads
 * and paths are drawn. The name is the
 * text inside, a height the one written in it.
 */
export function readOutdoor(
  scene: Scene,
  settings: ReadingSettings,
  gap: number,
): { candidates: OutdoorCandidate[]; unread: Unread[] } {
  const paths = scene.paths('outdoor');
  const open = paths.filter(
    ({ points, closed, circle }) =>
      !closed && !circle && points.length >= 2 && distance(points[0], points[points.length - 1]) > gap,
  );
  const { outlines } = findOutlines(
    paths.filter((path) => !open.includes(path)),
    gap,
  );
  const found = outlines
    .filter(({ points }) => Math.abs(area(points)) > 0.05)
    .map(({ points, handles }) => ({ outline: points, handles, between: false }));
  const paired = pairs(open);
  for (const [a, b] of paired)
    found.push({
      outline: [...pathPoints(a), ...pathPoints(b).reverse()],
      handles: [a.handle, b.handle],
      between: true,
    });
  const texts = scene.texts('outdoor', 'label');
  const used = new Set(paired.flat());
  return {
    candidates: found.map(({ outline, handles, between }): OutdoorCandidate => {
      const inside = texts.filter(({ at }) => contains(outline, at));
      const noted = inside.map(({ text }) => /h\s*=\s*(\d+(?:[.,]\d+)?)/i.exec(text)?.[1]).find(Boolean);
      const name =
        inside
          .map(({ text }) => text.replace(/\n/g, ' '))
          .find((text) => /\p{L}{2}/u.test(text) && !/h\s*=/.test(text)) ?? '';
      const evidence: Evidence[] = [
        { text: between ? 'two lines beside one another' : 'a closed outline', weight: between ? 1 : 2 },
        ...(name ? [{ text: `\u201c${name}\u201d written in it`, weight: 1 }] : []),
      ];
      const ring = area(outline) < 0 ? [...outline].reverse() : outline;
      return {
        kind: 'outdoor',
        key: keyAt('outdoor', handles, centroid(ring)),
        element: { name, outline: ring, height: noted ? Number(noted.replace(',', '.')) : settings.outdoor.height },
        evidence,
        confidence: confidenceOf(evidence),
        handles,
        doubt: null,
      };
    }),
    unread: open
      .filter((path) => !used.has(path))
      .map(({ entity, handle, layer }) => ({
        role: 'outdoor',
        entity,
        handle,
        layer,
        why: 'an open line without another beside it',
      })),
  };
}

const lengthOf = (points: readonly Point[]): number =>
  points.slice(1).reduce((sum, p, i) => sum + distance(points[i], p), 0);

/** Open lines of one layer whose ends lie beside one another, the nearest first; each is taken once. */
function pairs(open: readonly PlacedPath[]): [PlacedPath, PlacedPath][] {
  const found: { pair: [PlacedPath, PlacedPath]; apart: number }[] = [];
  open.forEach((a, i) => {
    for (const b of open.slice(i + 1)) {
      if (a.layer !== b.layer) continue;
      const [p, q] = [a.points, b.points];
      const apart = (distance(p[0], q[0]) + distance(p[p.length - 1], q[q.length - 1])) / 2;
      const ratio = lengthOf(p) / lengthOf(q);
      if (apart > 0.2 && apart < widestRoad && apart < lengthOf(p) && ratio > 0.5 && ratio < 2)
        found.push({ pair: [a, b], apart });
    }
  });
  const taken = new Set<PlacedPath>();
  return found
    .sort((a, b) => a.apart - b.apart)
    .flatMap(({ pair }) => {
      if (pair.some((path) => taken.has(path))) return [];
      pair.forEach((path) => taken.add(path));
      return [pair];
    });
}
