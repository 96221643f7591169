import { direction, type Point } from '@/core/geometry/vector';
import type { ElementRow } from '@/core/kinds/element';
import { gridPoints } from '@/core/kinds/grid';
import { anchorOf } from '@/core/kinds/kinds';
import type { LevelRow } from '@/core/model/state';
import { shapedOf, type Candidate } from '@/core/reading/candidate';
import { formatLength } from '@/core/units/length';
import { fonts } from '@/ui/tokens';
import { toScreen } from '../camera';
import type { Trace } from '../scene';
import { traceLine, tracePath } from './drawArea';
import { drawOther } from './others';
import { preparedElement } from './outlines';
import type { Pen } from './pen';

/** The point that a candidate is looked for at. */
export const candidateAnchor = (candidate: Candidate): Point =>
  candidate.kind === 'opening' ? candidate.at : anchorOf(shapedOf(candidate))!;

/** What a board tells of: what is selected, what of it is dragged, and the candidate that is pointed at. */
interface Marked {
  selected: readonly ElementRow[];
  dragged: readonly ElementRow[];
  pointed: Candidate | null;
}

/** What others have in hand, what is selected or dragged, what is pointed at, and the signs of the board. */
export function drawBoardMarks(pen: Pen, { selected, dragged, pointed }: Marked): void {
  const { scene } = pen;
  for (const other of scene.others) drawOther(pen, other);
  drawSelected(pen, dragged.length > 0 ? dragged : selected, dragged.length > 0);
  if (pointed !== null) ringPointed(pen, pointed);
  for (const trace of scene.traces) drawTrace(pen, trace);
  if (scene.heights !== null) drawHeights(pen, scene.heights);
  else drawZero(pen);
}

/** More selected elements than this in view are drawn as one box each. */
const mostOutlined = 2000;

/** What is selected, outlined; while it is dragged, where it would come to lie. */
export function drawSelected(pen: Pen, elements: readonly ElementRow[], dragged: boolean): void {
  const { context, scene } = pen;
  context.setLineDash(dragged ? [6, 4] : []);
  context.strokeStyle = scene.tokens.zircon;
  context.lineWidth = 2.25;
  for (const element of elements.slice(0, mostOutlined)) {
    if (element.kind === 'grid') traceLine(pen, gridPoints(element.shape));
    else tracePath(pen, preparedElement(element, scene.model.index.hostOf(element)).outlines);
    context.stroke();
  }
  context.setLineDash([]);
}

/** A ring round the candidate that bench and board point at. */
function ringPointed({ context, camera, size, scene }: Pen, candidate: Candidate): void {
  const [x, y] = toScreen(camera, size, candidateAnchor(candidate));
  const radius =
    candidate.kind === 'column' || candidate.kind === 'opening' ? Math.max(14, 0.6 / camera.metresPerPixel) : 9;
  context.setLineDash([]);
  context.beginPath();
  context.arc(x, y, radius, 0, 2 * Math.PI);
  context.strokeStyle = scene.tokens.board;
  context.lineWidth = 5;
  context.stroke();
  context.strokeStyle = scene.tokens.zircon;
  context.lineWidth = 2.5;
  context.stroke();
}

/** The line that a section stands on, with its name; short strokes at the ends point the way it looks. */
function drawTrace({ context, camera, size, scene }: Pen, { name, from, to }: Trace): void {
  const [[x1, y1], [x2, y2]] = [toScreen(camera, size, from), toScreen(camera, size, to)];
  const length = Math.hypot(x2 - x1, y2 - y1) || 1;
  const [nx, ny] = [((y2 - y1) / length) * 12, (-(x2 - x1) / length) * 12];
  context.setLineDash([18, 5, 3, 5]);
  context.strokeStyle = scene.tokens.zircon;
  context.lineWidth = 1.5;
  context.beginPath();
  context.moveTo(x1, y1);
  context.lineTo(x2, y2);
  context.stroke();
  context.setLineDash([]);
  context.lineWidth = 3;
  context.beginPath();
  for (const [x, y] of [
    [x1, y1],
    [x2, y2],
  ]) {
    context.moveTo(x, y);
    context.lineTo(x + nx, y + ny);
  }
  context.stroke();
  context.font = `600 11px ${fonts.text}`;
  context.fillStyle = scene.tokens.zircon;
  context.textAlign = 'left';
  context.textBaseline = 'bottom';
  context.fillText(name, x2 + 6, y2 - 4);
}

/** The project's levels over a section seen face on. */
function drawHeights({ context, camera, size, scene }: Pen, levels: readonly LevelRow[]): void {
  context.lineWidth = 1.25;
  context.font = `600 11px ${fonts.text}`;
  context.textAlign = 'left';
  context.textBaseline = 'bottom';
  for (const { name, elevation } of levels) {
    const y = toScreen(camera, size, [0, elevation])[1];
    context.strokeStyle = scene.tokens.zircon;
    context.setLineDash([10, 6]);
    context.beginPath();
    context.moveTo(0, y);
    context.lineTo(size.width, y);
    context.stroke();
    context.fillStyle = scene.tokens.zircon;
    context.fillText(`${name} ${formatLength(elevation, scene.unit)}`, 12, y - 3);
  }
  context.setLineDash([]);
}

/** The project's zero, or that of the axes worked along: a small cross along them with its word. */
function drawZero({ context, camera, size, scene }: Pen): void {
  const { axes } = scene;
  const [x, y] = toScreen(camera, size, axes?.origin ?? [0, 0]);
  if (x < -20 || y < -20 || x > size.width + 20 || y > size.height + 20) return;
  const arm = axes === null ? 8 : 28;
  const [c, s] = direction(axes?.angle ?? 0);
  context.setLineDash([]);
  context.strokeStyle = scene.tokens.zircon;
  context.lineWidth = 1.5;
  context.beginPath();
  context.moveTo(x - 8 * c, y + 8 * s);
  context.lineTo(x + arm * c, y - arm * s);
  context.moveTo(x + 8 * s, y + 8 * c);
  context.lineTo(x - arm * s, y - arm * c);
  context.stroke();
  context.font = `10px ${fonts.figures}`;
  context.fillStyle = scene.tokens.zircon;
  context.textAlign = 'left';
  context.textBaseline = 'top';
  context.fillText(axes?.name ?? 'zero', x + 5, y + 4);
}

/** A bar of a round length in the corner. */
export function drawScaleBar({ context, camera, size, scene }: Pen): void {
  const most = 140 * camera.metresPerPixel;
  const power = 10 ** Math.floor(Math.log10(most));
  const metres = [5, 2, 1].map((n) => n * power).find((n) => n <= most) ?? power;
  const [x, y, wide] = [16, size.height - 16, metres / camera.metresPerPixel];
  context.setLineDash([]);
  context.strokeStyle = scene.tokens.ink2;
  context.lineWidth = 1;
  context.beginPath();
  context.moveTo(x, y - 5);
  context.lineTo(x, y);
  context.lineTo(x + wide, y);
  context.lineTo(x + wide, y - 5);
  context.stroke();
  context.fillStyle = scene.tokens.ink2;
  context.font = '11px "Overpass Mono", monospace';
  context.textAlign = 'left';
  context.textBaseline = 'bottom';
  const places = scene.unit.unit === 'm' ? Math.max(0, -Math.floor(Math.log10(metres))) : undefined;
  context.fillText(formatLength(metres, scene.unit, places), x + 4, y - 3);
}
