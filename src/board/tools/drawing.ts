import type { Point } from '@/core/geometry/vector';
import { formatLength } from '@/core/units/length';
import { fonts } from '@/ui/tokens';
import { toScreen } from '../camera';
import type { Pen } from '../layers/pen';
import type { Held } from '../snapping/held';
import type { Pointing } from './tool';
import type { Leak } from './trace/way';

/** Words wider than this go on in the next line, pixels; and how high a line is. */
const [widest, lineHeight] = [380, 17];

/** Words in lines that are no wider than a chip may be. */
function linesOf(context: CanvasRenderingContext2D, words: string): string[] {
  const lines: string[] = [];
  for (const word of words.split(' ')) {
    const longer = lines.length === 0 ? word : `${lines[lines.length - 1]} ${word}`;
    if (lines.length > 0 && context.measureText(longer).width <= widest) lines[lines.length - 1] = longer;
    else lines.push(word);
  }
  return lines;
}

/**
 * A dark chip with words, kept inside the board; what stands aside goes on after the last of them.
 * @param above whether it ends at the place and does not begin there
 */
export function chip({ context, size, scene }: Pen, [x, y]: Point, words: string, aside = '', above = false): void {
  context.font = `600 12px ${fonts.text}`;
  const lines = linesOf(context, words);
  const last = context.measureText(lines[lines.length - 1]).width;
  const wide = Math.max(...lines.map((line) => context.measureText(line).width));
  context.font = `12px ${fonts.text}`;
  const more = aside ? context.measureText(aside).width + 10 : 0;
  const [width, height] = [Math.max(wide, last + more) + 20, lines.length * lineHeight + 7];
  const [left, top] = [Math.min(x, size.width - width - 4), Math.min(above ? y - height : y, size.height - height - 4)];
  context.fillStyle = scene.tokens.ink;
  context.beginPath();
  context.roundRect(left, top, width, height, 4);
  context.fill();
  context.fillStyle = scene.tokens.board;
  context.textAlign = 'left';
  context.textBaseline = 'middle';
  const middle = (n: number): number => top + 4 + (n + 0.5) * lineHeight;
  if (aside) context.fillText(aside, left + 20 + last, middle(lines.length - 1));
  context.font = `600 12px ${fonts.text}`;
  lines.forEach((line, n) => context.fillText(line, left + 10, middle(n)));
}

/** A chip beside the cursor. */
export const chipAtCursor = (pen: Pen, { pixels: [x, y] }: Pointing, words: string, aside = ''): void =>
  chip(pen, [x + 16, y + 16], words, aside);

/** Why something was not done, above the cursor: below it stands what can be typed. */
export const refusalAtCursor = (pen: Pen, { pixels: [x, y] }: Pointing, words: string): void =>
  chip(pen, [x + 16, y - 12], words, '', true);

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

/** A leak is ringed at least this widely, pixels, so that it is seen from afar. */
const leastRing = 14;

/** Where a region is open: the gap, a ring about it, and, unless that is said elsewhere, how wide it is. */
export function drawLeak(pen: Pen, { from, to, width }: Leak, said: boolean): void {
  const { context, camera, size, scene } = pen;
  const [[x1, y1], [x2, y2]] = [from, to].map((p) => toScreen(camera, size, p));
  const middle: Point = [(x1 + x2) / 2, (y1 + y2) / 2];
  const radius = Math.max(leastRing, Math.hypot(x2 - x1, y2 - y1) / 2 + 6);
  context.strokeStyle = scene.tokens.amber;
  context.lineWidth = 2.5;
  context.setLineDash([]);
  context.beginPath();
  context.moveTo(x1, y1);
  context.lineTo(x2, y2);
  context.stroke();
  context.lineWidth = 1.75;
  context.setLineDash([5, 4]);
  context.beginPath();
  context.arc(...middle, radius, 0, 2 * Math.PI);
  context.stroke();
  context.setLineDash([]);
  if (!said)
    chip(pen, [middle[0] + radius + 6, middle[1] - 6], `leaks here, ${formatLength(width, scene.unit)} wide`, '', true);
}

/** A box between two opposite corners of the project. */
export function drawBox(pen: Pen, corners: readonly [Point, Point]): void {
  const [[x1, y1], [x2, y2]] = corners.map((p) => toScreen(pen.camera, pen.size, p));
  drawLine(
    pen,
    [
      [x1, y1],
      [x2, y1],
      [x2, y2],
      [x1, y2],
      [x1, y1],
    ],
    true,
  );
}
