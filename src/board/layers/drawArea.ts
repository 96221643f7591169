import type { Point } from '@/core/geometry/vector';
import type { ElementKind } from '@/core/kinds/element';
import type { Candidate } from '@/core/reading/candidate';
import { toScreen } from '../camera';
import { patternOf } from './patterns';
import { stroke, type Pen } from './pen';

/** The path of outlines on the screen; the outlines after the first are holes. */
export function tracePath({ context, camera, size }: Pen, outlines: readonly (readonly Point[])[]): void {
  context.beginPath();
  for (const outline of outlines) {
    outline.forEach((p, i) => {
      const [x, y] = toScreen(camera, size, p);
      if (i === 0) context.moveTo(x, y);
      else context.lineTo(x, y);
    });
    context.closePath();
  }
}

/** The path of a line on the screen. */
export function traceLine({ context, camera, size }: Pen, points: readonly Point[]): void {
  context.beginPath();
  points.forEach((p, i) => {
    const [x, y] = toScreen(camera, size, p);
    if (i === 0) context.moveTo(x, y);
    else context.lineTo(x, y);
  });
}

/** Draws something with outlines: filled where it is part of the model, broken where nobody has accepted it. */
export function drawArea(
  pen: Pen,
  kind: ElementKind,
  outlines: readonly (readonly Point[])[],
  candidate: Candidate | null,
): void {
  const { context, scene } = pen;
  tracePath(pen, outlines);
  if (candidate === null) {
    // The opening is where the wall is not.
    if (kind === 'opening') {
      context.fillStyle = scene.tokens.board;
      context.fill('evenodd');
    }
    context.fillStyle = patternOf(context, scene.tokens, kind);
    context.fill('evenodd');
  } else if (scene.chosen.has(candidate.key)) {
    context.fillStyle = scene.tokens.zirconSoft;
    context.globalAlpha = 0.7;
    context.fill('evenodd');
    context.globalAlpha = 1;
  }
  stroke(pen, candidate, kind);
  context.setLineDash(candidate === null ? [] : [4, 3]);
  context.stroke();
}

/** The stretch over which a zone is open, with a tick at either end. */
export function drawLeak({ context, camera, size, scene }: Pen, [from, to]: readonly [Point, Point]): void {
  const [[x1, y1], [x2, y2]] = [toScreen(camera, size, from), toScreen(camera, size, to)];
  const length = Math.hypot(x2 - x1, y2 - y1) || 1;
  const [nx, ny] = [((y2 - y1) / length) * leakTick, (-(x2 - x1) / length) * leakTick];
  context.setLineDash([]);
  context.strokeStyle = scene.tokens.amber;
  context.lineWidth = 3;
  context.beginPath();
  context.moveTo(x1, y1);
  context.lineTo(x2, y2);
  for (const [x, y] of [
    [x1, y1],
    [x2, y2],
  ]) {
    context.moveTo(x - nx, y - ny);
    context.lineTo(x + nx, y + ny);
  }
  context.stroke();
}

/** Half a tick at the end of an open stretch, pixels. */
const leakTick = 6;

/** Columns are never drawn smaller than a mark that can be seen and hit, pixels from their middle. */
const leastReach = 3.5;

/** Outlines of a column, grown about its position where they would be too small to be seen. */
export function markOf(outlines: readonly (readonly Point[])[], position: Point, metresPerPixel: number): Point[][] {
  const [[x, y]] = [position];
  const reach = outlines[0].reduce((most, p) => Math.max(most, Math.hypot(p[0] - x, p[1] - y)), 0) / metresPerPixel;
  const grow = reach > 0 && reach < leastReach ? leastReach / reach : 1;
  return outlines.map((outline) => outline.map((p): Point => [x + (p[0] - x) * grow, y + (p[1] - y) * grow]));
}
