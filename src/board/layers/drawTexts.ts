import { apply, determinant, turnDirection } from '@/core/geometry/transform';
import type { Box } from '@/core/geometry/boxIndex';
import { fonts } from '@/ui/tokens';
import { toScreen } from '../camera';
import type { BoardDrawing } from '../scene';
import type { Pen } from './pen';
import { underlayColour } from './underlayColour';

/** Texts smaller than this on screen are not worth their letters, in pixels. */
const smallestText = 4;
/** Texts looked at before other work gets a turn. */
const breath = 60;

const css = (colour: number) => `#${colour.toString(16).padStart(6, '0')}`;

/** How far below its place the first line's base lies. @param up 0 base line, 1 bottom, 2 middle, 3 top */
function firstBaseLine(up: number, height: number, lines: number, step: number): number {
  if (up === 3) return height;
  return up === 2 ? height / 2 - ((lines - 1) * step) / 2 : -(lines - 1) * step;
}

/** Draws the texts of a drawing that lie in a box, giving way after every few. */
export function* drawTexts({ context, camera, size, scene }: Pen, drawing: BoardDrawing, box: Box): Generator<void> {
  const { texts } = drawing.underlay.primitives;
  const t = drawing.transform;
  const factor = Math.hypot(t[0], t[1]) / camera.metresPerPixel;
  let looked = 0;
  context.textBaseline = 'alphabetic';
  for (const text of texts) {
    looked += 1;
    if (looked % breath === 0) yield;
    const height = text.height * factor;
    if (height < smallestText || drawing.hidden[text.layer] === 1) continue;
    const at = apply(t, [text.x, text.y]);
    const reach = text.height * Math.hypot(t[0], t[1]) * Math.max(2, text.text.length);
    if (at[0] < box[0] - reach || at[0] > box[2] + reach || at[1] < box[1] - reach || at[1] > box[3] + reach) continue;
    const [x, y] = toScreen(camera, size, at);
    context.save();
    context.translate(x, y);
    context.rotate(-turnDirection(t, text.angle));
    // The angle is that of the base line; mirrored letters stand on its other side.
    context.scale(text.widthFactor, text.mirrored === determinant(t) < 0 ? 1 : -1);
    // A letter's height is its capital's; the face's capitals are 0.72 of its size.
    context.font = `${(height / 0.72).toFixed(2)}px ${fonts.text}`;
    context.globalAlpha = 1 - drawing.display.fade;
    context.fillStyle = css(underlayColour(scene, drawing, text.colour, text.layer));
    context.textAlign = (['left', 'center', 'right'] as const)[text.across];
    const lines = text.text.split('\n');
    const step = height * 1.66;
    const first = firstBaseLine(text.up, height, lines.length, step);
    lines.forEach((line, i) => context.fillText(line, 0, first + i * step));
    context.restore();
  }
}
