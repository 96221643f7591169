import { fewestPoints, measure, pointsOf as pointsMeasured, type MeasureMode } from '@/core/datum/measure';
import { add, distance, pointAlong, type Point } from '@/core/geometry/vector';
import { formatAngle } from '@/core/units/angle';
import { formatArea, formatLength } from '@/core/units/length';
import type { Measured, Picked, ToolRequest } from '../../boardStore';
import { toScreen } from '../../camera';
import type { Pen } from '../../layers/pen';
import { chip, chipAtCursor, dot, drawHeld, drawLine } from '../drawing';
import type { BoardTool, Pointing } from '../tool';
import type { World } from '../world';

/** What the next point is called. */
function wanted(mode: MeasureMode, points: number): string {
  if (mode === 'angle' && points === 1) return 'corner';
  return `${['first', 'second', 'third'][points] ?? 'next'} point`;
}

/** Measures between points that are held on to; a click after the last point begins anew. */
export class MeasureTool implements BoardTool {
  readonly wants = 'points';
  readonly cursor = 'crosshair';

  constructor(
    private readonly request: ToolRequest & { kind: 'measure' },
    private readonly world: World,
  ) {}

  click(pointing: Pointing): void {
    const { mode } = this.request;
    const open = this.open();
    const next = nextMeasured(this.request, open, pointing);
    if (next === null) return;
    const points = open === null ? [next] : [...open.points, next];
    this.world.desk.getState().setMeasured({ mode, points, done: points.length >= pointsMeasured[mode] });
  }

  /** What is measured and not ended. */
  private open(): Measured | null {
    const { measured } = this.world.desk.getState();
    return measured === null || measured.done ? null : measured;
  }

  key(key: string): boolean {
    const open = this.open();
    const { setMeasured } = this.world.desk.getState();
    if (open === null) return false;
    if (key === 'Enter') {
      if (open.points.length < fewestPoints[open.mode]) return false;
      setMeasured({ ...open, done: true });
    } else if (key === 'Backspace')
      setMeasured(open.points.length > 1 ? { ...open, points: open.points.slice(0, -1) } : null);
    else if (key === 'Escape') setMeasured(null);
    else return false;
    return true;
  }

  draw(pen: Pen, pointing: Pointing | null): void {
    if (pointing === null) return;
    const open = this.open();
    const { length } = this.request;
    if (length !== undefined && open !== null) drawReach(pen, open.points[0].point, length);
    if (pointing.held !== null) drawHeld(pen, pointing.held, this.world.choice);
    else {
      const points = open?.points.length ?? 0;
      chipAtCursor(pen, pointing, wanted(this.request.mode, points), 'nothing to hold on to here');
    }
  }
}

/** The point that a click measures to: what is held on to, or, with a length, so far towards the pointer. */
export function nextMeasured(
  { length }: { length?: number },
  open: Measured | null,
  { held, at }: Pointing,
): Picked | null {
  const from = open === null || open.done ? undefined : open.points[open.points.length - 1];
  if (length === undefined || from === undefined) return held;
  const towards = held?.point ?? at;
  const away = distance(from.point, towards);
  const point: Point = away === 0 ? add(from.point, [length, 0]) : pointAlong(from.point, towards, length / away);
  return { point, drawingId: '', drawingPoint: point, words: 'measured off' };
}

/** All places that lie just so far from a point. */
function drawReach(pen: Pen, centre: Point, length: number): void {
  const { context, camera, size, scene } = pen;
  const [x, y] = toScreen(camera, size, centre);
  context.strokeStyle = scene.tokens.zircon;
  context.lineWidth = 1;
  context.setLineDash([6, 4]);
  context.beginPath();
  context.arc(x, y, length / camera.metresPerPixel, 0, 2 * Math.PI);
  context.stroke();
  context.setLineDash([]);
}

/** What is measured, with the length of each of its parts; the open end follows the cursor. */
export function drawMeasured(pen: Pen, { mode, points, done }: Measured, next: Point | null): void {
  const { camera, size, scene } = pen;
  const all = [...points.map(({ point }) => point), ...(!done && next !== null ? [next] : [])];
  const at = all.map((p) => toScreen(camera, size, p));
  drawLine(pen, at, mode === 'area');
  for (const p of at) dot(pen, p);
  const found = measure(mode, all, scene.axes);
  if (found === null) return;
  const label = ([x, y]: Point, words: string) => chip(pen, [x + 8, y + 8], words);
  if (found.mode === 'angle') label(at[1], formatAngle(found.angle));
  else if (found.mode === 'area') label(middleOf(at), formatArea(found.area, scene.unit));
  else
    for (let i = 1; i < at.length; i += 1)
      label(
        middleOf([at[i - 1], at[i]]),
        formatLength(found.mode === 'run' ? found.spacings[i - 1] : found.length, scene.unit),
      );
}

const middleOf = (points: readonly Point[]): Point => [
  points.reduce((sum, [x]) => sum + x, 0) / points.length,
  points.reduce((sum, [, y]) => sum + y, 0) / points.length,
];
