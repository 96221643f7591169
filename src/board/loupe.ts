import { apply, determinant, invert } from '@/core/geometry/transform';
import { distance, type Point } from '@/core/geometry/vector';
import type { ElementRow } from '@/core/kinds/element';
import { gridPoints } from '@/core/kinds/grid';
import { pieceAt } from '@/core/underlay/pieces';
import { toScreen, type Camera, type Size } from './camera';
import { tracePath } from './layers/drawArea';
import { elementsIn } from './layers/modelContent';
import { drawSelected } from './layers/marks';
import { preparedElement } from './layers/outlines';
import type { Pen } from './layers/pen';
import type { BoardDrawing } from './scene';
import { chip } from './tools/drawing';
import type { Held } from './snapping/held';

/** How many times nearer things are seen in the loupe. */
const magnification = 6;
/** Its radius, pixels. */
const radius = 96;
/** At most this many lines of a drawing are shown in it. */
const mostLines = 4000;

/** Where the loupe lies: its middle on the board in pixels, and the point of the project seen there. */
interface Open {
  pixels: Point;
  at: Point;
  pinned: boolean;
}

/** What is seen in the loupe besides lines and elements. */
interface Seen {
  held: Held | null;
  pointer: Point | null;
  choice: { chosen: number; of: number };
  /** Elements in the middle of a gesture. */
  draft: readonly ElementRow[];
}

/** A round field in which things are seen larger, and in which the pointer points that much more finely. */
export class Loupe {
  private open: Open | null = null;

  get isOpen(): boolean {
    return this.open !== null;
  }

  get isPinned(): boolean {
    return this.open?.pinned === true;
  }

  /** Metres of a pixel, where the pointer is. */
  metresPerPixel(camera: Camera): number {
    return this.open === null ? camera.metresPerPixel : camera.metresPerPixel / magnification;
  }

  /** Opens it at a place; one that is open becomes pinned or stays as it is. */
  show(pixels: Point, at: Point, pinned: boolean): void {
    this.open = this.open === null ? { pixels, at, pinned } : { ...this.open, pinned };
  }

  close(): void {
    this.open = null;
  }

  /** The place of the pointer in the project, seen through the loupe; it follows a pointer that leaves it. */
  place(pixels: Point, camera: Camera): Point | null {
    if (this.open === null) return null;
    const fine = this.metresPerPixel(camera);
    const { open } = this;
    const [dx, dy] = [pixels[0] - open.pixels[0], pixels[1] - open.pixels[1]];
    const at: Point = [open.at[0] + dx * fine, open.at[1] - dy * fine];
    const away = distance(pixels, open.pixels);
    if (away > radius) {
      // It is drawn along by its rim: what lay there stays there.
      const by = 1 - radius / away;
      this.open = {
        ...open,
        pixels: [open.pixels[0] + dx * by, open.pixels[1] + dy * by],
        at: [open.at[0] + dx * by * fine, open.at[1] - dy * by * fine],
      };
    }
    return at;
  }

  /** Where what stands at the cursor goes: below the loupe while it is open. */
  below(pixels: Point): Point {
    return this.open === null ? pixels : [this.open.pixels[0] + 24, this.open.pixels[1] + radius];
  }

  draw(pen: Pen, { held, pointer, choice, draft }: Seen): void {
    if (this.open === null) return;
    const { context, scene, camera } = pen;
    const { pixels, at } = this.open;
    const seen: Camera = { x: at[0], y: at[1], metresPerPixel: this.metresPerPixel(camera) };
    // A board of twice the middle's distance from its corner has its middle there.
    const size: Size = { width: 2 * pixels[0], height: 2 * pixels[1] };
    const inside: Pen = { context, scene, camera: seen, size };
    context.save();
    context.setLineDash([]);
    context.beginPath();
    context.arc(pixels[0], pixels[1], radius, 0, 2 * Math.PI);
    context.fillStyle = scene.tokens.board;
    context.fill();
    context.clip();
    for (const drawing of scene.drawings) drawLines(inside, drawing, at);
    drawElements(inside, at);
    drawSelected(inside, draft, true);
    context.setLineDash([]);
    if (pointer !== null) drawPointer(inside, held === null ? pointer : held.point, held !== null);
    context.restore();
    context.beginPath();
    context.arc(pixels[0], pixels[1], radius, 0, 2 * Math.PI);
    context.strokeStyle = scene.tokens.ink2;
    context.lineWidth = 1.5;
    context.stroke();
    const aside = choice.of > 1 ? `${choice.chosen + 1} of ${choice.of}` : '';
    chip(pen, [pixels[0] + 40, pixels[1] + radius + 8], held?.words ?? 'nothing to hold on to here', aside);
  }
}

/** The box that the loupe shows, about a point. */
const boxAbout = ([x, y]: Point, reach: number): [number, number, number, number] => [
  x - reach,
  y - reach,
  x + reach,
  y + reach,
];

function drawLines({ context, camera, size, scene }: Pen, drawing: BoardDrawing, at: Point): void {
  const { underlay, transform, hidden } = drawing;
  const { primitives, index } = underlay;
  const scale = Math.sqrt(Math.abs(determinant(transform)));
  const box = boxAbout(apply(invert(transform), at), (radius * camera.metresPerPixel) / scale);
  const shown = (item: number): boolean =>
    item < index.vertex.length && hidden[primitives.layer[index.path[item]]] === 0;
  context.strokeStyle = scene.tokens.underlay;
  context.lineWidth = 1.5;
  context.beginPath();
  for (const item of index.tree.search(...box, shown).slice(0, mostLines)) {
    const { a, b, arc } = pieceAt(primitives, index, item);
    const [start, end] = [a, b].map((p) => toScreen(camera, size, apply(transform, p)));
    context.moveTo(...start);
    if (arc === null) context.lineTo(...end);
    else {
      const centre = toScreen(camera, size, apply(transform, arc.centre));
      const angle = (p: Point): number => Math.atan2(p[1] - centre[1], p[0] - centre[0]);
      // On the screen up is down: what runs counter-clockwise in the plan runs clockwise, unless it is mirrored.
      const clockwise = arc.sweep > 0 === determinant(transform) > 0;
      context.arc(...centre, distance(centre, start), angle(start), angle(end), clockwise);
    }
  }
  context.stroke();
}

function drawElements(pen: Pen, at: Point): void {
  const { context, camera, size, scene } = pen;
  context.lineWidth = 2;
  for (const element of elementsIn(scene, boxAbout(at, radius * camera.metresPerPixel))) {
    context.strokeStyle = scene.tokens[element.kind];
    if (element.kind === 'grid') {
      context.beginPath();
      gridPoints(element.shape).forEach((p, i) => {
        const [x, y] = toScreen(camera, size, p);
        if (i === 0) context.moveTo(x, y);
        else context.lineTo(x, y);
      });
    } else tracePath(pen, preparedElement(element, scene.model.index.hostOf(element)).outlines);
    context.stroke();
  }
}

/** Where the pointer points: a ring round what it holds on to, else a small cross. */
function drawPointer({ context, camera, size, scene }: Pen, p: Point, held: boolean): void {
  const [x, y] = toScreen(camera, size, p);
  context.strokeStyle = scene.tokens.zircon;
  context.lineWidth = 2;
  context.beginPath();
  if (held) context.arc(x, y, 10, 0, 2 * Math.PI);
  else {
    context.moveTo(x - 7, y);
    context.lineTo(x + 7, y);
    context.moveTo(x, y - 7);
    context.lineTo(x, y + 7);
  }
  context.stroke();
}
