import type { Point } from '@/core/geometry/vector';
import { gridPoints } from '@/core/kinds/grid';
import { lookOf } from '@/ui/others';
import { fonts } from '@/ui/tokens';
import { toScreen } from '../camera';
import type { OtherHand } from '../scene';
import { traceLine, tracePath } from './drawArea';
import { preparedElement } from './outlines';
import type { Pen } from './pen';

/** What somebody else has selected and what they draw, in their colour and pattern, with their name above it. */
export function drawOther(pen: Pen, { name, place, selected, draft }: OtherHand): void {
  const { context, scene } = pen;
  const { colour, pattern } = lookOf(place);
  context.strokeStyle = scene.tokens[colour];
  context.lineWidth = 2;
  context.setLineDash([...pattern]);
  const drawn: Point[] = [];
  for (const id of selected) {
    const element = scene.model.element[id];
    if (element === undefined) continue;
    const { outlines, box } = preparedElement(element, scene.model.index.hostOf(element));
    if (element.kind === 'grid') traceLine(pen, gridPoints(element.shape));
    else tracePath(pen, outlines);
    context.stroke();
    drawn.push([(box[0] + box[2]) / 2, box[3]]);
  }
  for (const line of draft) {
    traceLine(pen, line);
    context.stroke();
    drawn.push(...line);
  }
  context.setLineDash([]);
  if (drawn.length > 0) drawName(pen, name, scene.tokens[colour], drawn);
}

/** A name above the highest of some points. */
function drawName({ context, camera, size, scene }: Pen, name: string, colour: string, points: readonly Point[]): void {
  const top = points.reduce((best, p) => (p[1] > best[1] ? p : best));
  const [x, y] = toScreen(camera, size, top);
  context.font = `600 11px ${fonts.text}`;
  context.textAlign = 'center';
  context.textBaseline = 'bottom';
  context.lineWidth = 3;
  context.strokeStyle = scene.tokens.board;
  context.strokeText(name, x, y - 5);
  context.fillStyle = colour;
  context.fillText(name, x, y - 5);
}
