import { pushAll } from '@/core/lists';
import { familiesOf } from './families';
import type { From, PlacedPath } from '@/core/placed/placed';
import { arcOfBulge } from '@/core/geometry/bulge';
import { direction, type Point } from '@/core/geometry/vector';

/** Faces drawn this far from one another are one, metres. */
export const doubled = 0.012;

/** A straight side on the wall layers, in the coordinates of its family: along from `from` to `to`. */
export interface FaceSpan {
  from: number;
  to: number;
  sources: From[];
}

/** All spans that lie on one line, which is `offset` to the left of its family's direction. */
export interface Face {
  offset: number;
  spans: FaceSpan[];
}

/** Faces of one direction. A point of the plan is `origin` + along times `u` + offset times the left of `u`. */
export interface FaceFamily {
  origin: Point;
  u: Point;
  faces: Face[];
}

/** A curved side. Angles in radians, counter-clockwise from `start` by `sweep`. */
export interface CurvedFace {
  centre: Point;
  radius: number;
  start: number;
  sweep: number;
  sources: readonly From[];
}

/** The point of the plan that lies so in a family. */
export const inPlan = ({ origin, u }: Pick<FaceFamily, 'origin' | 'u'>, along: number, offset: number): Point => [
  tidy(origin[0] + u[0] * along - u[1] * offset),
  tidy(origin[1] + u[1] * along + u[0] * offset),
];

/** To a hundredth of a micrometre: what only the last digits differ in is equal, and zero has no sign. */
const tidy = (value: number): number => Math.round(value * 1e8) / 1e8 + 0;

/** Along and offset of a point of the plan in a family. */
export const inFamily = (
  { origin, u }: Pick<FaceFamily, 'origin' | 'u'>,
  [x, y]: Point,
): [along: number, offset: number] => {
  const [dx, dy] = [x - origin[0], y - origin[1]];
  return [dx * u[0] + dy * u[1], dy * u[0] - dx * u[1]];
};

/**
 * The straight and curved sides of paths as faces: sides of one direction are a family, those on one line a face, and
 * what is drawn twice or in
 * pieces that touch is one span.
 * @param offAxis directions within this are one, radians
 * @param sideways sides closer than this across are on one line, metres
 * @param gap spans closer than this along are one, metres
 */
export function facesOf(
  paths: readonly PlacedPath[],
  offAxis: number,
  sideways: number,
  gap: number,
): { families: FaceFamily[]; curved: CurvedFace[] } {
  const straight: { a: Point; b: Point; source: From }[] = [];
  const curved: CurvedFace[] = [];
  for (const { points, bulges, closed, source, parts } of paths) {
    const sides = points.length - (closed ? 0 : 1);
    for (let i = 0; i < sides; i += 1) {
      const [a, b] = [points[i], points[(i + 1) % points.length]];
      if (Math.hypot(b[0] - a[0], b[1] - a[1]) < 1e-4) continue;
      if (bulges[i] === 0) {
        straight.push({ a, b, source });
        continue;
      }
      const arc = arcOfBulge(a, b, bulges[i]);
      curved.push({
        centre: arc.centre,
        radius: arc.radius,
        start: arc.sweep >= 0 ? arc.start : arc.start + arc.sweep,
        sweep: Math.abs(arc.sweep),
        sources: parts ?? [source],
      });
    }
  }
  const families =
    straight.length === 0
      ? []
      : familiesOf(straight, offAxis).map(({ angle, pieces }): FaceFamily => {
          const family = { origin: pieces[0].a, u: direction(angle) };
          const spans = pieces
            .map((piece) => {
              const [p, q] = [inFamily(family, piece.a), inFamily(family, piece.b)];
              return {
                offset: (p[1] + q[1]) / 2,
                from: Math.min(p[0], q[0]),
                to: Math.max(p[0], q[0]),
                sources: [piece.source],
              };
            })
            .sort((p, q) => p.offset - q.offset);
          const faces: Face[] = [];
          for (let i = 0; i < spans.length;) {
            let j = i + 1;
            while (j < spans.length && spans[j].offset - spans[i].offset <= sideways) j += 1;
            faces.push(faceOf(spans.slice(i, j), gap));
            i = j;
          }
          return { ...family, faces };
        });
  return { families, curved };
}

/** One face of spans that lie on one line: its offset is the mean by length, touching spans are joined. */
function faceOf(spans: (FaceSpan & { offset: number })[], gap: number): Face {
  const length = spans.reduce((sum, { from, to }) => sum + to - from, 0);
  const offset = spans.reduce((sum, span) => sum + span.offset * (span.to - span.from), 0) / length;
  const joined: FaceSpan[] = [];
  for (const { from, to, sources } of spans.sort((p, q) => p.from - q.from)) {
    const last = joined[joined.length - 1];
    if (last && from <= last.to + gap) {
      last.to = Math.max(last.to, to);
      pushAll(last.sources, sources);
    } else joined.push({ from, to, sources: [...sources] });
  }
  return { offset, spans: joined };
}
