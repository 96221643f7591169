import { mostOf } from '@/core/lists';
import type { Point } from '@/core/geometry/vector';
import type { TextPrimitive } from './primitives';

/** A character is taken to be this wide, as a share of its height; plan lettering about is. */
const characterWidth = 0.6;
/** From line to line, as a share of the height. */
const lineStep = 1.6;

/** Lower left corner, width and height of a text's box in its own axes, about its insertion point. */
function extentOf(text: TextPrimitive): { x: number; y: number; width: number; height: number } {
  const lines = text.text.split('\n');
  const width = mostOf(lines.map((line) => line.length)) * text.height * characterWidth * text.widthFactor;
  const height = text.height * (1 + (lines.length - 1) * lineStep);
  // On the base line of the first line hang all further ones.
  const y = text.up === 0 ? text.height - height : [0, 0, -height / 2, -height][text.up];
  return { x: [0, -width / 2, -width][text.across], y, width, height };
}

function onPlan(text: TextPrimitive, along: number, up: number): Point {
  // The angle is that of the base line; of a mirrored text the letters stand on its other side.
  const y = text.mirrored ? -up : up;
  const [c, s] = [Math.cos(text.angle), Math.sin(text.angle)];
  return [text.x + c * along - s * y, text.y + s * along + c * y];
}

/** The corners of a text's box. */
export function textBox(text: TextPrimitive): [Point, Point, Point, Point] {
  const { x, y, width, height } = extentOf(text);
  return [
    onPlan(text, x, y),
    onPlan(text, x + width, y),
    onPlan(text, x + width, y + height),
    onPlan(text, x, y + height),
  ];
}

/** The middle of a text's box. */
export function centreOfText(text: TextPrimitive): Point {
  const { x, y, width, height } = extentOf(text);
  return onPlan(text, x + width / 2, y + height / 2);
}
