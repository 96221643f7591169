import { area, centroid, contains } from '@/core/geometry/polygon';
import { distance, type Point } from '@/core/geometry/vector';
import { confidenceOf, keyAt, type Evidence, type SlabCandidate, type Unread } from '../candidate';
import { findOutlines, type Outline } from '@/core/patterns/outlines';
import type { LooseSide } from '@/core/patterns/loops';
import type { Scene } from '../scene';
import type { ReadingSettings } from '@/core/patterns/settings';

/** Openings and slabs smaller than this, square metres, are sleeves. */
const leastOpening = 0.02;

/**
 * Reads slabs: closed outlines of that role with the openings in them, by role or crossed out; without any the
 * building's outline, shifted outwards by the
 * edge distance of the settings.
 * @param building outlines of the building by its outer faces
 * @param voids further outlines that are openings
 */
export function readSlabs(
  scene: Scene,
  building: readonly Point[][],
  settings: ReadingSettings,
  gap: number,
  voids: readonly Outline[] = [],
): { candidates: SlabCandidate[]; unread: Unread[] } {
  const slab = findOutlines(scene.paths('slab'), gap, true);
  const opening = findOutlines(scene.paths('slabOpening'), gap, true);
  const loose = [...slab.loose, ...opening.loose];
  const crossed = slab.outlines.filter((outline) => isCrossed(outline, loose));
  const bodies = slab.outlines.filter((outline) => !crossed.includes(outline) && Math.abs(area(outline.points)) > 1);
  const holes = [...opening.outlines, ...crossed, ...voids].filter(
    ({ points }) => Math.abs(area(points)) > leastOpening,
  );
  const texts = scene.texts('slab', 'label');
  const candidates = bodies.map((body): SlabCandidate => {
    const within = holes.filter(({ points }) => contains(body.points, centroid(points)));
    const noted = texts
      .filter(({ at }) => contains(body.points, at))
      .map(({ text }) => /(?:^|\b)(?:d|h|t|thk)\s*[=:]?\s*(\d{2,4})\b/i.exec(text)?.[1])
      .find(Boolean);
    const evidence: Evidence[] = [
      {
        text: body.gap === 0 ? 'a closed outline' : `an outline that closes across ${(body.gap * 1000).toFixed(0)} mm`,
        weight: body.gap === 0 ? 2.5 : 1,
      },
    ];
    if (within.length > 0)
      evidence.push({ text: `${within.length} ${within.length === 1 ? 'opening' : 'openings'} in it`, weight: 0.5 });
    if (noted) evidence.push({ text: `thickness ${noted} mm written in it`, weight: 0.5 });
    const handles = [...new Set([...body.handles, ...within.flatMap((hole) => hole.handles)])];
    return {
      kind: 'slab',
      key: keyAt('slab', body.handles, centroid(body.points)),
      element: {
        outline: ccw(body.points),
        holes: within.map(({ points }) => ccw(points)),
        thickness: noted ? Number(noted) / 1000 : settings.slab.thickness,
      },
      evidence,
      confidence: confidenceOf('slab', evidence),
      handles,
      doubt: noted ? null : 'thickness by default',
    };
  });
  if (bodies.length === 0) {
    for (const outline of building) {
      const grown = offsetOutline(outline, settings.slab.edge);
      const evidence: Evidence[] = [
        { text: 'the building\u2019s outline by its outer walls; no slab is drawn', weight: 0.5 },
      ];
      candidates.push({
        kind: 'slab',
        key: keyAt('slab', ['outline'], centroid(grown)),
        element: {
          outline: grown,
          holes: holes.filter(({ points }) => contains(grown, centroid(points))).map(({ points }) => ccw(points)),
          thickness: settings.slab.thickness,
        },
        evidence,
        confidence: confidenceOf('slab', evidence),
        handles: [],
        doubt: 'from the walls',
      });
    }
  }
  const unread = slab.loose
    .filter((side) => !crossed.some((outline) => isDiagonal(outline, side)))
    .map((side): Unread => ({
      role: 'slab',
      entity: side.entity,
      handle: side.handle,
      layer: side.layer,
      why: 'lines that close no outline',
    }));
  return { candidates, unread };
}

const ccw = (points: readonly Point[]): Point[] => (area(points) < 0 ? [...points].reverse() : [...points]);

/** Whether a side joins two corners of an outline that are not neighbours. */
function isDiagonal({ points }: Outline, { a, b }: LooseSide): boolean {
  const reach = 0.05;
  const [i, j] = [a, b].map((end) => points.findIndex((p) => distance(p, end) < reach));
  return i >= 0 && j >= 0 && Math.abs(i - j) > 1 && Math.abs(i - j) < points.length - 1;
}

/** A rectangle crossed out by both diagonals, or by one, is a hole. */
const isCrossed = (outline: Outline, loose: readonly LooseSide[]): boolean =>
  outline.points.length === 4 && loose.some((side) => isDiagonal(outline, side));

/** An outline grown by a distance, corner by corner. @param outline counter-clockwise */
export function offsetOutline(outline: readonly Point[], by: number): Point[] {
  if (by === 0) return [...outline];
  return outline.map((p, i) => {
    const [before, after] = [outline[(i + outline.length - 1) % outline.length], outline[(i + 1) % outline.length]];
    const normal = (a: Point, b: Point): Point => {
      const length = distance(a, b);
      return [(b[1] - a[1]) / length, (a[0] - b[0]) / length];
    };
    const [m, n] = [normal(before, p), normal(p, after)];
    const share = 1 + m[0] * n[0] + m[1] * n[1];
    return [p[0] + ((m[0] + n[0]) * by) / share, p[1] + ((m[1] + n[1]) * by) / share];
  });
}
