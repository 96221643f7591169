import { apply, determinant, type Transform } from '@/core/geometry/transform';
import type { Point } from '@/core/geometry/vector';
import { formatLength } from '@/core/units/length';
import { pointsOf } from '@/core/model/outlines';
import { mainContent } from '@/core/underlay/mainContent';
import { reportCursor, useBoard, type PickedLine } from './boardStore';
import { fit, pan, toProject, viewBox, zoomAt, type Camera, type Size } from './camera';
import { drawModel } from './drawModel';
import { candidateAt } from './hitCandidate';
import { UnderlayPicture, type PictureSource } from './picture';
import type { BoardDrawing, BoardScene } from './scene';
import { gridHolds, holdsNear, lineAt, straightAt } from './snapping';
import { colourKey, underlayColour } from './underlayColour';
import {
  clickCorner,
  clickLine,
  clickPoint,
  drawTool,
  dropCorner,
  finishTool,
  gripOf,
  leaveTool,
  wantsLine,
  wantsPoints,
  type Grip,
} from './tools';

export interface BoardEvents {
  cameraChanged(camera: Camera): void;
  candidateClicked(key: string | null, adding: boolean): void;
  /** A line of an underlay was clicked, or nothing. */
  lineClicked(line: { drawingId: string; path: number } | null): void;
}

/** The pointer: nothing pressed, pressed and not yet moved, or dragging the view along. */
type Gesture = { kind: 'idle' } | { kind: 'pressing'; from: Point } | { kind: 'dragging'; last: Point };

/**
 * The plan area: canvases for the underlay on the GPU, for everything else above it, and for underlays that lie over
 * the model. Works without React.
 */
export class Board {
  private picture: UnderlayPicture | null = null;
  /** Underlays over the model; made when the first one is. */
  private upper: UnderlayPicture | null = null;
  private context: CanvasRenderingContext2D;
  private camera: Camera | null;
  /** The view of the plan, while a section is seen face on. */
  private planCamera: Camera | null = null;
  private size: Size = { width: 0, height: 0 };
  private gesture: Gesture = { kind: 'idle' };
  private cursor: Point | null = null;
  private grip: Grip = { holds: [], chosen: 0 };
  private scheduled = 0;
  private movedAt = 0;
  private boxes = new WeakMap<object, [number, number, number, number] | null>();
  private observer: ResizeObserver;
  private stops: (() => void)[] = [];

  constructor(
    private root: HTMLElement,
    below: HTMLCanvasElement,
    private above: HTMLCanvasElement,
    private top: HTMLCanvasElement,
    private scene: BoardScene,
    camera: Camera | null,
    private events: BoardEvents,
  ) {
    this.camera = camera;
    this.context = above.getContext('2d')!;
    try {
      this.picture = new UnderlayPicture(below, graphicsLost);
    } catch {
      useBoard
        .getState()
        .setProblem(
          'This browser offers no WebGL 2, which the underlay is drawn with. Turn on hardware acceleration, or use another browser.',
        );
    }
    this.observer = new ResizeObserver(() => this.resized());
    this.observer.observe(root);
    this.listen();
    this.resized();
    this.setScene(scene);
  }

  setScene(scene: BoardScene): void {
    const known = new Set(this.scene.drawings.map(({ id }) => id));
    const fresh = scene.drawings.filter(({ id }) => !known.has(id));
    const turned = (scene.heights === null) !== (this.scene.heights === null);
    this.scene = scene;
    const sources = (above: boolean) =>
      scene.drawings
        .filter(({ display }) => display.above === above)
        .map((drawing): PictureSource => ({
          id: drawing.id,
          store: drawing.underlay.segments,
          transform: drawing.transform,
          hidden: drawing.hidden,
          colour: (drawn, layer) => underlayColour(scene, drawing, drawn, layer),
          colourKey: colourKey(scene, drawing),
          strength: 1 - drawing.display.fade,
          weights: drawing.display.lineWeights,
        }));
    this.picture?.setSources(sources(false));
    const over = sources(true);
    if (over.length > 0 && this.picture && !this.upper) {
      this.upper = new UnderlayPicture(this.top, graphicsLost);
      this.upper.resize(this.size, window.devicePixelRatio || 1);
    }
    this.upper?.setSources(over);
    if (turned) this.turnTo(scene.heights === null);
    else if (this.camera === null && this.size.width > 0) this.look('all');
    // What newly comes to be shown should be seen, if nothing else is.
    else if (fresh.length > 0 && !this.seesSomething()) this.look('all');
    this.redraw();
  }

  /** A section seen face on has coordinates of its own; back in the plan the view is as it was left. */
  private turnTo(plan: boolean): void {
    if (!plan) this.planCamera = this.camera;
    if (plan && this.planCamera !== null) this.moveTo(this.planCamera, true);
    else this.look('all');
  }

  private seesSomething(): boolean {
    if (this.camera === null || this.size.width === 0) return true;
    const view = viewBox(this.camera, this.size);
    return this.scene.drawings.some((drawing) => {
      const box = this.boxOf(drawing);
      if (!box) return false;
      const at = placed(box, drawing.transform);
      return at[0] < view[2] && at[2] > view[0] && at[1] < view[3] && at[3] > view[1];
    });
  }

  /** Looks at a box, or at the main content of all drawings and elements. */
  look(at: [number, number, number, number] | 'all'): void {
    const box = at === 'all' ? this.allContent() : at;
    if (box === null) {
      if (this.camera === null) this.moveTo({ x: 10, y: 8, metresPerPixel: 0.04 }, false);
      return;
    }
    this.moveTo(fit(box, this.size), true);
  }

  zoomBy(factor: number): void {
    if (this.camera)
      this.moveTo(zoomAt(this.camera, this.size, [this.size.width / 2, this.size.height / 2], factor), true);
  }

  dispose(): void {
    cancelAnimationFrame(this.scheduled);
    this.observer.disconnect();
    for (const stop of this.stops) stop();
    this.picture?.dispose();
    this.upper?.dispose();
  }

  private allContent(): [number, number, number, number] | null {
    const boxes = this.scene.drawings.flatMap((drawing) => {
      const box = this.boxOf(drawing);
      return box ? [placed(box, drawing.transform)] : [];
    });
    for (const element of this.scene.elements) {
      for (const [x, y] of pointsOf(element)) boxes.push([x, y, x, y]);
    }
    if (boxes.length === 0) return null;
    return [
      Math.min(...boxes.map((b) => b[0])),
      Math.min(...boxes.map((b) => b[1])),
      Math.max(...boxes.map((b) => b[2])),
      Math.max(...boxes.map((b) => b[3])),
    ];
  }

  /** The main content of a drawing, about its underlay's origin. */
  private boxOf({ underlay: { primitives } }: BoardDrawing): [number, number, number, number] | null {
    if (!this.boxes.has(primitives)) {
      const main = mainContent(primitives);
      const [ox, oy] = primitives.origin;
      this.boxes.set(primitives, main && [main[0][0] - ox, main[0][1] - oy, main[1][0] - ox, main[1][1] - oy]);
    }
    return this.boxes.get(primitives)!;
  }

  private moveTo(camera: Camera, keep: boolean): void {
    this.camera = camera;
    this.movedAt = performance.now();
    if (keep) this.events.cameraChanged(camera);
    this.seek();
    this.redraw();
  }

  redraw(): void {
    if (this.scheduled === 0) this.scheduled = requestAnimationFrame(() => this.frame());
  }

  private frame(): void {
    this.scheduled = 0;
    if (this.camera === null || this.size.width === 0) return;
    const more = [this.picture, this.upper].map((picture) => picture?.frame(this.camera!) ?? false).some(Boolean);
    const ratio = window.devicePixelRatio || 1;
    this.context.setTransform(ratio, 0, 0, ratio, 0, 0);
    const pen = { context: this.context, camera: this.camera, size: this.size, scene: this.scene };
    const moving = performance.now() - this.movedAt < 120;
    const held = drawModel(pen, moving);
    drawTool(pen, this.grip, this.cursor, this.lineUnderCursor());
    this.drawScaleBar();
    this.drawLattice();
    if (more || held) this.redraw();
  }

  /** A bar of a round length in the corner. */
  private drawScaleBar(): void {
    const { context, scene, size } = this;
    const most = 140 * this.camera!.metresPerPixel;
    const power = 10 ** Math.floor(Math.log10(most));
    const metres = [5, 2, 1].map((n) => n * power).find((n) => n <= most) ?? power;
    const [x, y, wide] = [16, size.height - 16, metres / this.camera!.metresPerPixel];
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
    context.fillText(
      formatLength(
        metres,
        scene.unit,
        scene.unit.unit === 'm' ? Math.max(0, -Math.floor(Math.log10(metres))) : undefined,
      ),
      x + 4,
      y - 3,
    );
  }

  /** Moves the dots of the ground with the view; their spacing stays between 24 and 120 pixels. */
  private drawLattice(): void {
    const { x, y, metresPerPixel } = this.camera!;
    const spacing = 5 ** Math.ceil(Math.log(24 * metresPerPixel) / Math.log(5)) / metresPerPixel;
    const { style } = this.root;
    style.backgroundSize = `${spacing}px ${spacing}px`;
    style.backgroundPosition = `${(this.size.width / 2 - x / metresPerPixel) % spacing}px ${(this.size.height / 2 + y / metresPerPixel) % spacing}px`;
  }

  private resized(): void {
    const { width, height } = this.root.getBoundingClientRect();
    if (width === 0 || height === 0) return;
    this.size = { width: Math.round(width), height: Math.round(height) };
    const ratio = window.devicePixelRatio || 1;
    this.above.width = this.size.width * ratio;
    this.above.height = this.size.height * ratio;
    for (const picture of [this.picture, this.upper]) picture?.resize(this.size, ratio);
    if (this.camera === null && this.scene.drawings.length > 0) this.look('all');
    if (this.camera === null) this.look('all');
    this.redraw();
  }

  private listen(): void {
    const on = <K extends keyof HTMLElementEventMap>(
      type: K,
      handler: (event: HTMLElementEventMap[K]) => void,
      options?: AddEventListenerOptions,
    ) => {
      this.root.addEventListener(type, handler, options);
      this.stops.push(() => this.root.removeEventListener(type, handler));
    };
    on('pointerdown', (event) => this.pressed(event));
    on('pointermove', (event) => this.moved(event));
    on('pointerup', (event) => this.released(event));
    on('pointercancel', () => {
      this.gesture = { kind: 'idle' };
    });
    on('pointerleave', () => {
      this.cursor = null;
      this.grip = { holds: [], chosen: 0 };
      reportCursor({ position: null, holding: '' });
      this.redraw();
    });
    on(
      'wheel',
      (event) => {
        event.preventDefault();
        if (this.camera)
          this.moveTo(
            zoomAt(
              this.camera,
              this.size,
              this.local(event),
              Math.exp(-event.deltaY * (event.deltaMode === 1 ? 0.05 : 0.0016)),
            ),
            true,
          );
      },
      { passive: false },
    );
    on('keydown', (event) => this.key(event));
    this.stops.push(
      useBoard.subscribe((now, before) => {
        if (now.wish !== before.wish && now.wish) this.look(now.wish.box);
        if (now.tool !== before.tool) this.seek();
        this.redraw();
      }),
    );
  }

  private local(event: MouseEvent): Point {
    const box = this.root.getBoundingClientRect();
    return [event.clientX - box.left, event.clientY - box.top];
  }

  private pressed(event: PointerEvent): void {
    if (event.button > 1) return;
    this.root.focus({ preventScroll: true });
    this.root.setPointerCapture(event.pointerId);
    this.gesture = { kind: 'pressing', from: this.local(event) };
  }

  private moved(event: PointerEvent): void {
    const at = this.local(event);
    this.cursor = at;
    if (this.gesture.kind === 'pressing' && Math.hypot(at[0] - this.gesture.from[0], at[1] - this.gesture.from[1]) > 3)
      this.gesture = { kind: 'dragging', last: this.gesture.from };
    if (this.gesture.kind === 'dragging' && this.camera) {
      const [dx, dy] = [at[0] - this.gesture.last[0], at[1] - this.gesture.last[1]];
      this.gesture = { kind: 'dragging', last: at };
      this.moveTo(pan(this.camera, dx, dy), true);
      return;
    }
    this.seek();
  }

  private released(event: PointerEvent): void {
    const { gesture } = this;
    this.gesture = { kind: 'idle' };
    if (gesture.kind !== 'pressing' || !this.camera || event.button !== 0) return;
    this.cursor = this.local(event);
    this.seek();
    if (wantsLine()) {
      clickLine(this.lineUnderCursor());
      return;
    }
    if (wantsPoints()) {
      const held = gripOf(this.grip);
      if (useBoard.getState().tool.kind === 'outline')
        clickCorner(held?.point ?? toProject(this.camera, this.size, this.cursor), this.camera.metresPerPixel);
      else if (held !== null) clickPoint(held);
      return;
    }
    const { tool } = useBoard.getState();
    if (tool.kind === 'gather') {
      const line = lineAt(
        this.scene.drawings,
        toProject(this.camera, this.size, this.cursor),
        this.camera.metresPerPixel,
      );
      if (line !== null) tool.take({ drawingId: line.drawingId, path: line.path });
      return;
    }
    const candidate = candidateAt(
      this.scene.candidates,
      toProject(this.camera, this.size, this.cursor),
      this.camera.metresPerPixel,
    );
    this.events.candidateClicked(candidate, event.ctrlKey || event.metaKey || event.shiftKey);
    if (candidate === null) {
      const line = lineAt(
        this.scene.drawings,
        toProject(this.camera, this.size, this.cursor),
        this.camera.metresPerPixel,
      );
      this.events.lineClicked(line && { drawingId: line.drawingId, path: line.path });
    }
  }

  private key(event: KeyboardEvent): void {
    const step = event.shiftKey ? 200 : 60;
    const moves: Record<string, [number, number]> = {
      ArrowLeft: [step, 0],
      ArrowRight: [-step, 0],
      ArrowUp: [0, step],
      ArrowDown: [0, -step],
    };
    if (moves[event.key] && this.camera) this.moveTo(pan(this.camera, ...moves[event.key]), true);
    else if (event.key === '+' || event.key === '=') this.zoomBy(1.4);
    else if (event.key === '-') this.zoomBy(1 / 1.4);
    else if (event.key === 'Home') this.look('all');
    else if (event.key === 'Escape' && leaveTool()) this.redraw();
    else if (event.key === 'Enter' && finishTool()) this.redraw();
    else if (event.key === 'Backspace' && dropCorner()) this.redraw();
    else if (event.key.toLowerCase() === 'n' && wantsPoints() && this.grip.holds.length > 1) {
      this.grip = { ...this.grip, chosen: (this.grip.chosen + 1) % this.grip.holds.length };
      this.report();
      this.redraw();
    } else return;
    event.preventDefault();
  }

  /** Looks for what the cursor can hold on to. */
  private seek(): void {
    if (this.camera === null || this.cursor === null) return;
    const at = toProject(this.camera, this.size, this.cursor);
    const holds =
      wantsPoints() && this.gesture.kind !== 'dragging'
        ? [
            ...(this.scene.heights === null ? gridHolds(this.scene.elements, at, this.camera.metresPerPixel) : []),
            ...holdsNear(this.scene.drawings, at, this.camera.metresPerPixel),
          ]
        : [];
    const same = gripOf(this.grip);
    const kept =
      same === null
        ? -1
        : holds.findIndex(
            (hold) => hold.words === same.words && hold.point[0] === same.point[0] && hold.point[1] === same.point[1],
          );
    this.grip = { holds, chosen: Math.max(0, kept > 0 && this.grip.chosen > 0 ? kept : 0) };
    this.report();
    if (useBoard.getState().tool.kind !== 'look') this.redraw();
  }

  /** The straight line under the cursor, while the tool of the moment looks for one. */
  private lineUnderCursor(): PickedLine | null {
    return wantsLine() && this.cursor !== null && this.camera !== null && this.gesture.kind !== 'dragging'
      ? straightAt(this.scene.drawings, toProject(this.camera, this.size, this.cursor), this.camera.metresPerPixel)
      : null;
  }

  private report(): void {
    if (this.camera === null || this.cursor === null) return;
    reportCursor({ position: toProject(this.camera, this.size, this.cursor), holding: gripOf(this.grip)?.words ?? '' });
  }
}

const graphicsLost = () => useBoard.getState().setProblem('The browser took the graphics away. Reload the page.');

function placed(box: [number, number, number, number], transform: Transform): [number, number, number, number] {
  if (determinant(transform) === 0) return box;
  const corners = (
    [
      [box[0], box[1]],
      [box[2], box[1]],
      [box[2], box[3]],
      [box[0], box[3]],
    ] as Point[]
  ).map((p) => apply(transform, p));
  return [
    Math.min(...corners.map((p) => p[0])),
    Math.min(...corners.map((p) => p[1])),
    Math.max(...corners.map((p) => p[0])),
    Math.max(...corners.map((p) => p[1])),
  ];
}
