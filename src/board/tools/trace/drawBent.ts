import { arcOfBulge, chordCount, pointOnArc } from '@/core/geometry/bulge';
import { distance, type Point } from '@/core/geometry/vector';
import { toScreen } from '../../camera';
import type { Pen } from '../../layers/pen';
import { drawLine } from '../drawing';
import type { Placed } from './way';

/** An arc that is not made yet is shown in chords of at most this many pixels' sagitta. */
const shownSagitta = 0.25;

/** The sides of a path on the board, bent ones as arcs. */
export function drawBent(pen: Pen, points: readonly Placed[], bulges: readonly number[]): void {
  const { camera, size } = pen;
  const chain = points.slice(1).flatMap(({ at }, i): Point[] => {
    const from = points[i].at;
    if ((bulges[i] ?? 0) === 0 || distance(from, at) === 0) return [from, at];
    const arc = arcOfBulge(from, at, bulges[i]);
    const count = Math.max(2, chordCount(arc.radius, arc.sweep, shownSagitta * camera.metresPerPixel));
    return Array.from({ length: count + 1 }, (_, k) => pointOnArc(arc, k / count));
  });
  drawLine(
    pen,
    chain.map((p) => toScreen(camera, size, p)),
    false,
  );
}
