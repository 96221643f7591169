import type { Point } from '@/core/geometry/vector';
import { fewestPoints, measure, pointsOf } from '@/core/datum/measure';
import { formatAngle } from '@/core/units/angle';
import { formatArea, formatLength } from '@/core/units/length';
import { useBoard, type Measured, type Picked, type PickedLine } from './boardStore';
import { toProject, toScreen } from './camera';
import type { Held } from './snapping';
import type { Pen } from './pen';
import { fonts } from '@/ui/tokens';

/** What the cursor holds on to, of all it could. */
export interface Grip {
  holds: Held[];
  chosen: number;
}

export const gripOf = (grip: Grip): Held | null => grip.holds[grip.chosen] ?? null;

/** Whether the tool of the moment looks for points. */
export const wantsPoints = (): boolean => !['look', 'pickLine', 'gather'].includes(useBoard.getState().tool.kind);

/** Whether it looks for a straight line. */
export const wantsLine = (): boolean => useBoard.getState().tool.kind === 'pickLine';

/** Takes a click with a point to hold on to. */
export function clickPoint(held: Picked): void {
  const { tool, measured, setMeasured, setTool } = useBoard.getState();
  if (tool.kind === 'pick') {
    setTool({ kind: 'look' });
    tool.take(held);
  } else if (tool.kind === 'measure') {
    const { mode } = tool;
    const points = measured === null || measured.done ? [held] : [...measured.points, held];
    setMeasured({ mode, points, done: points.length >= pointsOf[mode] });
  }
}

/** Takes a click on a straight line. */
export function clickLine(line: PickedLine | null): void {
  const { tool, setTool } = useBoard.getState();
  if (tool.kind !== 'pickLine' || line === null) return;
  setTool({ kind: 'look' });
  tool.take(line);
}

/** Ends a run or an area. @returns whether there was one with enough points */
function endMeasure(): boolean {
  const { tool, measured, setMeasured } = useBoard.getState();
  if (
    tool.kind !== 'measure' ||
    measured === null ||
    measured.done ||
    measured.points.length < fewestPoints[measured.mode]
  )
    return false;
  setMeasured({ ...measured, done: true });
  return true;
}

/** What Enter does: it ends what takes any number of points. */
export const finishTool = (): boolean => closeOutline() || endMeasure();

/** How near to the first corner a click closes an outline, in pixels. */
const closingReach = 9;

/** Takes a click of the outline tool. @param metresPerPixel of the view */
export function clickCorner(corner: Point, metresPerPixel: number): void {
  const { corners, setCorners } = useBoard.getState();
  const [first] = corners;
  if (corners.length >= 3 && Math.hypot(corner[0] - first[0], corner[1] - first[1]) <= closingReach * metresPerPixel)
    closeOutline();
  else setCorners([...corners, corner]);
}

/** Ends an outline; two corners make a rectangle. @returns whether there was enough of one */
export function closeOutline(): boolean {
  const { tool, corners, setTool } = useBoard.getState();
  if (tool.kind !== 'outline' || corners.length < 2) return false;
  const [[x1, y1], [x2, y2]] = corners;
  setTool({ kind: 'look' });
  tool.take(
    corners.length === 2
      ? [
          [x1, y1],
          [x2, y1],
          [x2, y2],
          [x1, y2],
        ]
      : corners,
  );
  return true;
}

/** Takes the last corner or measured point back. */
export function dropCorner(): boolean {
  const { tool, corners, setCorners, measured, setMeasured } = useBoard.getState();
  if (tool.kind === 'measure' && measured !== null && !measured.done) {
    setMeasured(measured.points.length > 1 ? { ...measured, points: measured.points.slice(0, -1) } : null);
    return true;
  }
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
  points.forEach(([x, y], i) => {
    if (i === 0) context.moveTo(x, y);
    else context.lineTo(x, y);
  });
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
  if (tool.kind === 'measure' && measured !== null && !measured.done) setMeasured(null);
  else if (tool.kind === 'outline' && corners.length > 0) useBoard.getState().setCorners([]);
  else {
    setTool({ kind: 'look' });
    setMeasured(null);
  }
  return true;
}

/** Draws what is measured or outlined, and the chip that says what the cursor holds on to. */
export function drawTool(pen: Pen, grip: Grip, cursor: Point | null, line: PickedLine | null): void {
  const { context, camera, size, scene } = pen;
  const { tool, measured, corners } = useBoard.getState();
  const held = gripOf(grip);
  if (measured !== null) drawMeasured(pen, measured, held?.point ?? null);
  if (tool.kind === 'outline')
    drawCorners(pen, held?.point ?? (cursor === null ? null : toProject(camera, size, cursor)));
  if (tool.kind === 'look' || cursor === null) return;
  const beside: Point = [cursor[0] + 16, cursor[1] + 16];
  if (tool.kind === 'gather') {
    chip(pen, beside, tool.prompt, 'Escape ends it');
    return;
  }
  if (tool.kind === 'outline' && held === null) {
    chip(pen, beside, tool.prompt, corners.length < 2 ? 'click corners' : 'Enter closes it');
    return;
  }
  if (tool.kind === 'pickLine') {
    if (line !== null) {
      context.setLineDash([]);
      context.strokeStyle = scene.tokens.zircon;
      context.lineWidth = 3;
      context.beginPath();
      context.moveTo(...toScreen(camera, size, line.from));
      context.lineTo(...toScreen(camera, size, line.to));
      context.stroke();
    }
    chip(pen, beside, line?.words ?? tool.prompt, line === null ? 'no straight line here' : '');
    return;
  }
  if (held === null) {
    const open = measured !== null && !measured.done ? measured.points.length : 0;
    const wanted =
      tool.kind === 'pick'
        ? tool.prompt
        : tool.kind === 'measure' && tool.mode === 'angle' && open === 1
          ? 'corner'
          : `${['first', 'second', 'third'][open] ?? 'next'} point`;
    chip(pen, beside, wanted, 'nothing to hold on to here');
    return;
  }
  const at = toScreen(camera, size, held.point);
  context.setLineDash([]);
  context.beginPath();
  context.arc(at[0], at[1], 7, 0, 2 * Math.PI);
  context.strokeStyle = scene.tokens.zircon;
  context.lineWidth = 2;
  context.stroke();
  chip(
    pen,
    [at[0] + 16, at[1] + 16],
    held.words,
    grip.holds.length > 1 ? `${grip.chosen + 1} of ${grip.holds.length}, N: next` : '',
  );
}

/** The measured line with the length of each of its parts, or the measured area; the open end follows the cursor. */
function drawMeasured(pen: Pen, { mode, points, done }: Measured, next: Point | null): void {
  const { context, camera, size, scene } = pen;
  const all = points.map(({ point }) => point);
  if (!done && next !== null) all.push(next);
  const at = all.map((p) => toScreen(camera, size, p));
  context.setLineDash([]);
  context.strokeStyle = scene.tokens.zircon;
  context.lineWidth = 1.75;
  context.beginPath();
  at.forEach(([x, y], i) => {
    if (i === 0) context.moveTo(x, y);
    else context.lineTo(x, y);
  });
  if (mode === 'area') {
    context.closePath();
    context.fillStyle = scene.tokens.zircon;
    context.globalAlpha = 0.12;
    context.fill();
    context.globalAlpha = 1;
  }
  context.stroke();
  for (const p of at) dot(pen, p);
  const found = measure(mode, all, scene.axes);
  if (found === null) return;
  const label = ([x, y]: Point, words: string) => chip(pen, [x + 8, y + 8], words, '');
  if (found.mode === 'angle') label(at[1], formatAngle(found.angle));
  else if (found.mode === 'area')
    label(
      [at.reduce((sum, p) => sum + p[0], 0) / at.length, at.reduce((sum, p) => sum + p[1], 0) / at.length],
      formatArea(found.area, scene.unit),
    );
  else
    for (let i = 1; i < at.length; i += 1)
      label(
        [(at[i - 1][0] + at[i][0]) / 2, (at[i - 1][1] + at[i][1]) / 2],
        formatLength(found.mode === 'run' ? found.spacings[i - 1] : found.length, scene.unit),
      );
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
