import { distance, type Point } from '@/core/geometry/vector';
import type { ToolRequest } from '../../boardStore';
import { toScreen } from '../../camera';
import type { Pen } from '../../layers/pen';
import { chipAtCursor, dot, drawHeld, drawLine } from '../drawing';
import type { BoardTool, Pointing } from '../tool';
import type { World } from '../world';

/** How near to the first corner a click closes an outline, in pixels. */
const closingReach = 9;

/** The outline of two opposite corners is a rectangle. */
const outlineOf = (corners: readonly Point[]): Point[] => {
  if (corners.length !== 2) return [...corners];
  const [[x1, y1], [x2, y2]] = corners;
  return [
    [x1, y1],
    [x2, y1],
    [x2, y2],
    [x1, y2],
  ];
};

/** Corners clicked one by one, held on to or free; Enter, or a click on the first one, closes them. */
export class OutlineTool implements BoardTool {
  readonly wants = 'points';
  readonly cursor = 'crosshair';
  private corners: Point[] = [];

  constructor(
    private readonly request: ToolRequest & { kind: 'outline' },
    private readonly world: World,
  ) {}

  click({ held, at }: Pointing): void {
    const corner = held?.point ?? at;
    const [first] = this.corners;
    const closes =
      this.corners.length >= 3 && distance(corner, first) <= closingReach * this.world.camera.metresPerPixel;
    if (closes) this.close();
    else this.corners.push(corner);
    this.world.redraw();
  }

  key(key: string): boolean {
    if (key === 'Enter') return this.close();
    if (key === 'Backspace') return this.corners.pop() !== undefined;
    if (key !== 'Escape' || this.corners.length === 0) return false;
    this.corners = [];
    return true;
  }

  /** @returns whether there was enough of an outline */
  private close(): boolean {
    if (this.corners.length < 2) return false;
    this.world.desk.getState().setTool({ kind: 'look' });
    this.request.take(outlineOf(this.corners));
    return true;
  }

  draw(pen: Pen, pointing: Pointing | null): void {
    const { camera, size } = pen;
    const next = pointing === null ? [] : [pointing.held?.point ?? pointing.at];
    const shown = outlineOf([...this.corners, ...next]);
    drawLine(
      pen,
      shown.map((p) => toScreen(camera, size, p)),
      true,
    );
    for (const corner of this.corners) dot(pen, toScreen(camera, size, corner));
    if (pointing === null) return;
    if (pointing.held !== null) drawHeld(pen, pointing.held, this.world.choice);
    else
      chipAtCursor(pen, pointing, this.request.prompt, this.corners.length < 2 ? 'click corners' : 'Enter closes it');
  }
}
