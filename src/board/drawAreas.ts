import type { Point } from '@/core/geometry/vector';
import type { ElementKind } from '@/core/model/elements';
import type { Candidate } from '@/core/reading/candidate';
import { toScreen, viewBox } from './camera';
import { patternOf } from './patterns';
import { stroke, type Pen } from './pen';

/** Kinds that are areas in plan, the lowest first. */
export const areaKinds = [
  'outdoor',
  'slab',
  'zone',
  'wall',
  'opening',
  'beam',
] as const satisfies readonly ElementKind[];

/**
 * Draws something with an outline: filled where it is part of the model, broken where nobody has accepted it. The
 * outlines after the first are holes.
 */
export function drawArea(
  pen: Pen,
  kind: (typeof areaKinds)[number],
  outlines: readonly (readonly Point[])[],
  candidate: Candidate | null,
): void {
  const { context, camera, size, scene } = pen;
  const box = viewBox(camera, size);
  const [outer] = outlines;
  if (
    !outer ||
    !outer.some(([x]) => x >= box[0]) ||
    !outer.some(([x]) => x <= box[2]) ||
    !outer.some(([, y]) => y >= box[1]) ||
    !outer.some(([, y]) => y <= box[3])
  )
    return;
  context.beginPath();
  for (const outline of outlines) {
    outline.forEach((p, i) => {
      const [x, y] = toScreen(camera, size, p);
      if (i === 0) context.moveTo(x, y);
      else context.lineTo(x, y);
    });
    context.closePath();
  }
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
