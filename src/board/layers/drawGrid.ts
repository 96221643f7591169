import { add, direction, distance, radians, scale, type Point } from '@/core/geometry/vector';
import type { GridLine } from '@/core/kinds/grid';
import type { Candidate } from '@/core/reading/candidate';
import { fonts } from '@/ui/tokens';
import { toScreen } from '../camera';
import { stroke, type Pen } from './pen';

/** Of the rings that labels stand in, pixels. */
const bubbleRadius = 10;
/** Bubbles keep this much room between them, pixels. */
const bubbleRoom = 3;
/** A bubble that has no room steps further out at most this often. */
const mostSteps = 5;

/** Bubbles whose middles are nearer than this overlap, pixels. */
const bubbleWidth = 2 * bubbleRadius + bubbleRoom;

/** Where bubbles stand on a picture, so that the next ones step aside. */
export class Bubbles {
  /** By cells as wide as a bubble: what overlaps a place stands in its cell or in one beside it. */
  private readonly taken = new Map<string, Point[]>();

  /** The first free place from a point on outwards. */
  place(from: Point, outwards: Point): Point {
    const at = (step: number): Point => add(from, scale(outwards, bubbleRadius + step * bubbleWidth));
    let step = 0;
    while (step < mostSteps && this.overlaps(at(step))) step += 1;
    this.take(at(step));
    return at(step);
  }

  private take(place: Point): void {
    const key = cellOf(place).join();
    const here = this.taken.get(key);
    if (here) here.push(place);
    else this.taken.set(key, [place]);
  }

  private overlaps(place: Point): boolean {
    const [column, row] = cellOf(place);
    for (let c = column - 1; c <= column + 1; c += 1)
      for (let r = row - 1; r <= row + 1; r += 1)
        if (this.taken.get(`${c},${r}`)?.some((other) => distance(other, place) < bubbleWidth)) return true;
    return false;
  }
}

const cellOf = ([x, y]: Point): Point => [Math.floor(x / bubbleWidth), Math.floor(y / bubbleWidth)];

/** A grid line with its label at its ends; of an arc at one. */
export function drawGrid(pen: Pen, line: GridLine, candidate: Candidate | null, bubbles: Bubbles): void {
  const { context } = pen;
  stroke(pen, candidate, 'grid');
  // Dash-dot is a grid line; what nobody has accepted is broken up further.
  context.setLineDash(candidate === null ? [14, 4, 2, 4] : [5, 5]);
  context.beginPath();
  const ends = line.kind === 'line' ? traceLine(pen, line.start, line.end) : traceArc(pen, line);
  context.stroke();
  for (const { at, outwards } of ends) drawBubble(pen, at, bubbles.place(at, outwards), line.label, candidate);
}

interface LineEnd {
  at: Point;
  outwards: Point;
}

function traceLine({ context, camera, size }: Pen, start: Point, end: Point): LineEnd[] {
  const [a, b] = [toScreen(camera, size, start), toScreen(camera, size, end)];
  context.moveTo(...a);
  context.lineTo(...b);
  const length = distance(a, b) || 1;
  const u: Point = [(b[0] - a[0]) / length, (b[1] - a[1]) / length];
  return [
    { at: a, outwards: scale(u, -1) },
    { at: b, outwards: u },
  ];
}

function traceArc({ context, camera, size }: Pen, arc: GridLine & { kind: 'arc' }): LineEnd[] {
  const centre = toScreen(camera, size, arc.centre);
  const radius = arc.radius / camera.metresPerPixel;
  context.arc(centre[0], centre[1], radius, -radians(arc.startAngle), -radians(arc.endAngle), true);
  const [c, s] = direction(radians(arc.endAngle));
  return [{ at: [centre[0] + radius * c, centre[1] - radius * s], outwards: [-s, -c] }];
}

function drawBubble({ context, scene }: Pen, end: Point, at: Point, label: string, candidate: Candidate | null): void {
  const [x, y] = at;
  context.setLineDash([]);
  context.beginPath();
  context.moveTo(...end);
  context.lineTo(x, y);
  context.stroke();
  context.setLineDash(candidate === null ? [] : [3, 2.5]);
  context.beginPath();
  context.arc(x, y, bubbleRadius, 0, 2 * Math.PI);
  context.fillStyle = scene.tokens.panel;
  context.fill();
  context.stroke();
  context.fillStyle = scene.tokens.ink;
  context.font = `600 ${label.length > 2 ? 9 : 11}px ${fonts.figures}`;
  context.textAlign = 'center';
  context.textBaseline = 'middle';
  context.fillText(label, x, y + 0.5);
}
