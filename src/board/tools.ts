import type { Point } from '@/core/geometry/vector';
import { formatLength } from '@/core/units/length';
import { useBoard, type Picked } from './boardStore';
import { toProject, toScreen } from './camera';
import type { Held } from './snapping';
import type { Pen } from './drawModel';
import { fonts } from '@/ui/tokens';

/** What the cursor holds on to, of all it could. */
export interface Grip { holds: Held[]; chosen: number }

export const gripOf = (grip: Grip): Held | null => grip.holds[grip.chosen] ?? null;

/** Whether the tool of the moment looks for points. */
export const wantsPoints = (): boolean => useBoard.getState().tool.kind !== 'look';

/** Takes a click with a point to hold on to. */
export function clickPoint(held: Picked): void {
  const { tool, measured, setMeasured, setTool } = useBoard.getState();
  if (tool.kind === 'pick') {
    setTool({ kind: 'look' });
    tool.take(held);
  } else if (tool.kind === 'measure') {
    setMeasured(measured === null || measured.to !== null ? { from: held, to: null } : { ...measured, to: held });
  }
}

/** How near to the first corner a click closes an outline, in pixels. */
const closingReach = 9;

/** Takes a click of the outline tool. @param metresPerPixel of the view */
export function clickCorner(corner: Point, metresPerPixel: number): void {
  const { corners, setCorners } = useBoard.getState();
  const [first] = corners;
  if (corners.length >= 3 && Math.hypot(corner[0] - first[0], corner[1] - first[1]) <= closingReach * metresPerPixel) closeOutline();
  else setCorners([...corners, corner]);
}

/** Ends an outline; two corners make a rectangle. @returns whether there was enough of one */
export function closeOutline(): boolean {
  const { tool, corners, setTool } = useBoard.getState();
  if (tool.kind !== 'outline' || corners.length < 2) return false;
  const [[x1, y1], [x2, y2]] = corners;
  setTool({ kind: 'look' });
  tool.take(corners.length === 2 ? [[x1, y1], [x2, y1], [x2, y2], [x1, y2]] : corners);
  return true;
}

/** Takes the last corner back. */
export function dropCorner(): boolean {
  const { tool, corners, setCorners } = useBoard.getState();
  if (tool.kind !== 'outline' || corners.length === 0) return false;
  setCorners(corners.slice(0, -1));
  return true;
}

function drawCorners(pen: Pen, next: Point | null): void {
  const { context, camera, size, scene } = pen;
  const { corners } = useBoard.getState();
  const all = next === null ? corners : [...corners, next];
  const shown: Point[] = all.length === 2 ? [all[0], [all[1][0], all[0][1]], all[1], [all[0][0], all[1][1]]] : all;
  const points = shown.map((p) => toScreen(camera, size, p));
  context.setLineDash([]);
  context.beginPath();
  points.forEach(([x, y], i) => { if (i === 0) context.moveTo(x, y); else context.lineTo(x, y); });
  context.closePath();
  context.fillStyle = scene.tokens.zircon;
  context.globalAlpha = 0.1;
  context.fill();
  context.globalAlpha = 1;
  context.strokeStyle = scene.tokens.zircon;
  context.lineWidth = 1.75;
  context.stroke();
  for (const corner of corners) dot(pen, toScreen(camera, size, corner));
}

/** Ends what the tool is about. @returns whether there was something to end */
export function leaveTool(): boolean {
  const { tool, measured, corners, setTool, setMeasured } = useBoard.getState();
  if (tool.kind === 'look' && measured === null) return false;
  if (tool.kind === 'measure' && measured !== null && measured.to === null) setMeasured(null);
  else if (tool.kind === 'outline' && corners.length > 0) useBoard.getState().setCorners([]);
  else { setTool({ kind: 'look' }); setMeasured(null); }
  return true;
}

/** Draws the measured distance and the chip that says what the cursor holds on to. */
export function drawTool(pen: Pen, grip: Grip, cursor: Point | null): void {
  const { context, camera, size, scene } = pen;
  const { tool, measured, corners } = useBoard.getState();
  const held = gripOf(grip);
  if (measured !== null) {
    const to = measured.to?.point ?? held?.point ?? null;
    const a = toScreen(camera, size, measured.from.point);
    if (to !== null) {
      const b = toScreen(camera, size, to);
      context.setLineDash([]);
      context.strokeStyle = scene.tokens.zircon;
      context.lineWidth = 1.75;
      context.beginPath();
      context.moveTo(...a);
      context.lineTo(...b);
      context.stroke();
      for (const end of [a, b]) dot(pen, end);
      const metres = Math.hypot(to[0] - measured.from.point[0], to[1] - measured.from.point[1]);
      chip(pen, [(a[0] + b[0]) / 2 + 8, (a[1] + b[1]) / 2 + 8], formatLength(metres, scene.unit), '');
    } else dot(pen, a);
  }
  if (tool.kind === 'outline') drawCorners(pen, held?.point ?? (cursor === null ? null : toProject(camera, size, cursor)));
  if (tool.kind === 'look' || cursor === null) return;
  if (tool.kind === 'outline' && held === null) { chip(pen, [cursor[0] + 16, cursor[1] + 16], tool.prompt, corners.length < 2 ? 'click corners' : 'Enter closes it'); return; }
  if (held === null) {
    chip(pen, [cursor[0] + 16, cursor[1] + 16], tool.kind === 'pick' ? tool.prompt : measured && !measured.to ? 'second point' : 'first point', 'nothing to hold on to here');
    return;
  }
  const at = toScreen(camera, size, held.point);
  context.setLineDash([]);
  context.beginPath();
  context.arc(at[0], at[1], 7, 0, 2 * Math.PI);
  context.strokeStyle = scene.tokens.zircon;
  context.lineWidth = 2;
  context.stroke();
  chip(pen, [at[0] + 16, at[1] + 16], held.words, grip.holds.length > 1 ? `${grip.chosen + 1} of ${grip.holds.length}, N: next` : '');
}

function dot({ context, scene }: Pen, [x, y]: Point): void {
  context.beginPath();
  context.arc(x, y, 3.5, 0, 2 * Math.PI);
  context.fillStyle = scene.tokens.zircon;
  context.fill();
}

/** A dark chip with words, kept inside the board. */
function chip({ context, size, scene }: Pen, [x, y]: Point, words: string, aside: string): void {
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
