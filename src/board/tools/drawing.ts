import type { Point } from '@/core/geometry/vector';
import { fonts } from '@/ui/tokens';
import { toScreen } from '../camera';
import type { Pen } from '../layers/pen';
import type { Held } from '../snapping/held';
import type { Pointing } from './tool';

/** A dark chip with words, kept inside the board. */
export function chip({ context, size, scene }: Pen, [x, y]: Point, words: string, aside = ''): void {
  context.font = `600 12px ${fonts.text}`;
  const wide = context.measureText(words).width;
  context.font = `12px ${fonts.text}`;
  const more = aside ? context.measureText(aside).width + 10 : 0;
  const [width, height] = [wide + more + 20, 24];
  const [left, top] = [Math.min(x, size.width - width - 4), Math.min(y, size.height - height - 4)];
  context.fillStyle = scene.tokens.ink;
  context.beginPath();
  context.roundRect(left, top, width, height, 4);
  context.fill();
  context.fillStyle = scene.tokens.board;
  context.textAlign = 'left';
  context.textBaseline = 'middle';
  context.font = `600 12px ${fonts.text}`;
  context.fillText(words, left + 10, top + height / 2 + 1);
  context.font = `12px ${fonts.text}`;
  if (aside) context.fillText(aside, left + 20 + wide, top + height / 2 + 1);
}

/** A chip beside the cursor. */
export const chipAtCursor = (pen: Pen, { pixels: [x, y] }: Pointing, words: string, aside = ''): void =>
  chip(pen, [x + 16, y + 16], words, aside);

/** The neutral ring round what is held on to, with its words. */
export function drawHeld(pen: Pen, held: Held, choice: { chosen: number; of: number }): void {
  const { context, camera, size, scene } = pen;
  const at = toScreen(camera, size, held.point);
  context.setLineDash([]);
  context.beginPath();
  context.arc(at[0], at[1], 7, 0, 2 * Math.PI);
  context.strokeStyle = scene.tokens.zircon;
  context.lineWidth = 2;
  context.stroke();
  chip(pen, [at[0] + 16, at[1] + 16], held.words, choice.of > 1 ? `${choice.chosen + 1} of ${choice.of}, N: next` : '');
}

export function dot({ context, scene }: Pen, [x, y]: Point): void {
  context.beginPath();
  context.arc(x, y, 3.5, 0, 2 * Math.PI);
  context.fillStyle = scene.tokens.zircon;
  context.fill();
}

/** A line through points on the screen, closed and lightly filled where it is an area. */
export function drawLine({ context, scene }: Pen, points: readonly Point[], filled: boolean): void {
  context.setLineDash([]);
  context.strokeStyle = scene.tokens.zircon;
  context.lineWidth = 1.75;
  context.beginPath();
  points.forEach(([x, y], i) => {
    if (i === 0) context.moveTo(x, y);
    else context.lineTo(x, y);
  });
  if (filled) {
    context.closePath();
    context.fillStyle = scene.tokens.zircon;
    context.globalAlpha = 0.1;
    context.fill();
    context.globalAlpha = 1;
  }
  context.stroke();
}
