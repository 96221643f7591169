import type { Point } from '@/core/geometry/vector';
import type { Diff } from '@/core/model/model';
import type { Draft } from '@/project/draft';
import { actAt, type ActName } from '@/project/keys';
import { useTracing } from '@/project/tracing';
import { reportCursor, type BoardDesk, type CursorReport, type ToolRequest, type Wished } from './boardStore';
import { toProject, type Camera, type Size } from './camera';
import { CandidateIndex } from './candidateIndex';
import { Holding } from './holding';
import { Input, type InputHandler, type RawPointer } from './input';
import { evidenceContent } from './layers/evidenceContent';
import { resultContent } from './layers/resultContent';
import { drawHeights, drawScaleBar, drawSelected, drawTrace, drawZero, ringPointed } from './layers/marks';
import { moveLattice } from './layers/lattice';
import { modelContent } from './layers/modelContent';
import { drawOther } from './layers/others';
import type { Pen } from './layers/pen';
import { inTurn, SlicedPicture } from './layers/slicedPicture';
import { UnderlayLayers } from './layers/underlayLayers';
import { Loupe } from './loupe';
import type { BoardScene } from './scene';
import { axesSnaps } from './snapping/axesSnaps';
import { equalSnaps } from './snapping/equalSnaps';
import { gridSnaps } from './snapping/gridSnaps';
import { followSnaps } from './snapping/followSnaps';
import { belowSnaps, modelSnaps } from './snapping/modelSnaps';
import { underlaySnaps } from './snapping/underlaySnaps';
import { drawMeasured, nextMeasured } from './tools/measure/measureTool';
import type { BoardTool, Pointing } from './tools/tool';
import { toolFor } from './tools/tools';
import type { BoardEvents, World } from './tools/world';
import { stalePlaces } from './stalePlaces';
import { beginTyping, reportTyping } from './typing';
import { UnderPointer } from './underPointer';
import { View } from './view';
import { viewStep } from './viewKeys';

export interface BoardCanvases {
  below: HTMLCanvasElement;
  model: HTMLCanvasElement;
  above: HTMLCanvasElement;
  marks: HTMLCanvasElement;
}

/** A press becomes a drag where the pointer moves further than this, pixels. */
const dragFrom = 3;
/** The hand is at rest when nothing came from it for this long, milliseconds. */
const calmAfter = 250;
/** What begins a value when it is typed on the board. */
const typable = /^[0-9.,\-\u2212]$/;
/** The pointer: nothing pressed, pressed and not yet moved, or dragging, the view or what the tool took. */
type Gesture =
  | { kind: 'idle' }
  | { kind: 'pressing'; from: RawPointer; at: Point }
  | { kind: 'panning'; from: RawPointer; at: Point; last: Point }
  | { kind: 'dragging'; from: RawPointer; at: Point };

/**
 * The plan area, working without React: layers that know alone when they are stale, the tool of the moment, and the
 * view.
 * It follows the rows of the model by their diffs and everything else by the scenes it is handed.
 */
export class Board implements World, InputHandler {
  /** What the last frame took, milliseconds of script; for measuring. */
  lastFrame = 0;
  private readonly view: View;
  private gesture: Gesture = { kind: 'idle' };
  private pointer: RawPointer | null = null;
  private scheduled = 0;
  private drawnCamera: Camera | null = null;
  private marksStale = true;
  private modelStale = true;
  private candidates: CandidateIndex;
  private tool: BoardTool;
  private readonly underlays: UnderlayLayers;
  private readonly modelPicture: SlicedPicture;
  private readonly evidencePicture: SlicedPicture;
  private readonly holding: Holding;
  private readonly loupe = new Loupe();
  readonly under = new UnderPointer(() => ({
    scene: this.scene,
    candidates: this.candidates,
    metresPerPixel: this.camera.metresPerPixel,
  }));
  private readonly input: Input;
  private readonly observer: ResizeObserver;
  private stops: (() => void)[] = [];
  private stopHearing = (): void => undefined;
  readonly desk: BoardDesk;
  private readonly reports: boolean;

  constructor(
    private readonly root: HTMLElement,
    private readonly canvases: BoardCanvases,
    public scene: BoardScene,
    private readonly draft: Draft,
    camera: Camera | null,
    readonly events: BoardEvents,
    { desk, reports }: { desk: BoardDesk; /** Whether the status line tells of its cursor. */ reports: boolean },
  ) {
    this.desk = desk;
    this.reports = reports;
    this.view = new View(camera, (looked) => {
      this.events.cameraChanged(looked);
      this.redraw();
    });
    this.candidates = new CandidateIndex(scene.candidates, scene.model);
    this.underlays = new UnderlayLayers(canvases.below, canvases.above, desk.getState().setProblem);
    const now = () => this.scene;
    this.modelPicture = new SlicedPicture(modelContent(now, () => this.candidates));
    this.evidencePicture = new SlicedPicture(inTurn(evidenceContent(now), resultContent(now)));
    this.holding = new Holding([
      gridSnaps(() => this.scene.model),
      modelSnaps(now),
      underlaySnaps(() => this.scene.drawings),
      belowSnaps(now),
      followSnaps(now),
      equalSnaps(now),
      axesSnaps(now),
    ]);
    this.tool = toolFor(this.desk.getState().tool, this);
    this.tool.enter?.();
    this.input = new Input(root, this);
    this.observer = new ResizeObserver(() => this.resized());
    this.observer.observe(root);
    this.stops = [
      draft.subscribe(() => this.redraw()),
      desk.subscribe((state, before) => {
        if (state.wish !== before.wish && state.wish) this.look(state.wish.box);
        if (state.tool !== before.tool) this.turnToTool(state.tool);
        this.redraw();
      }),
    ];
    this.listen();
    this.resized();
    this.underlays.setScene(scene);
    this.view.begin(scene);
  }

  get camera(): Camera {
    return this.view.camera;
  }

  get size(): Size {
    return this.view.size;
  }

  get choice(): { chosen: number; of: number } {
    return this.holding.choice;
  }

  /** Hears of the edits of the model that is shown. */
  private listen(): void {
    this.stopHearing();
    this.stopHearing = this.scene.model.subscribe((diff) => this.followModel(diff));
  }

  /** Takes another scene; only what differs from the one before is drawn anew. */
  setScene(scene: BoardScene): void {
    const before = this.scene;
    const differs = (...keys: (keyof BoardScene)[]): boolean => keys.some((key) => scene[key] !== before[key]);
    this.scene = scene;
    if (differs('model')) this.listen();
    if (differs('candidates', 'model')) this.candidates = new CandidateIndex(scene.candidates, scene.model);
    if (differs('drawings', 'dark', 'tokens')) this.underlays.setScene(scene);
    if (differs('drawings', 'dark', 'tokens', 'candidates', 'levelId', 'chosen', 'heights', 'axesShown', 'model'))
      this.modelPicture.invalidate();
    if (differs('overlay', 'picture', 'drawings', 'tokens')) this.evidencePicture.invalidate();
    this.view.follow(before, scene);
    this.redraw();
  }

  /** An edit: the places of what changed are drawn anew, before and after. */
  private followModel(diff: Diff): void {
    const places = stalePlaces(diff, this.scene.model, this.candidates);
    if (places === null) this.modelPicture.invalidate();
    else for (const box of places) this.modelPicture.invalidateBox(box);
    this.redraw();
  }

  private turnToTool(request: ToolRequest): void {
    this.tool.exit?.();
    this.gesture = { kind: 'idle' };
    this.tool = toolFor(request, this);
    this.tool.enter?.();
    this.seek();
    const pointing = this.pointing();
    if (pointing !== null) this.tool.move?.(pointing);
  }

  /** Looks at a box, at the building, at all that the drawings show, or as a camera did. */
  look(at: Wished): void {
    if (typeof at === 'object' && 'metresPerPixel' in at) this.view.goTo(at);
    else this.view.look(this.scene, at);
  }

  zoomBy(factor: number): void {
    this.view.zoomBy(factor);
  }

  dispose(): void {
    cancelAnimationFrame(this.scheduled);
    this.observer.disconnect();
    this.input.dispose();
    this.tool.exit?.();
    for (const stop of [...this.stops, this.stopHearing]) stop();
    this.underlays.dispose();
  }

  /** What the GPU keeps, for tests. */
  held(): { targets: number; buffers: number } {
    return this.underlays.held();
  }

  /** Whether all is drawn that it knows of, for tests. */
  get atRest(): boolean {
    return this.scheduled === 0;
  }

  redraw = (): void => {
    this.marksStale = true;
    this.wake();
  };

  wake(): void {
    if (this.scheduled === 0) this.scheduled = requestAnimationFrame(() => this.frame());
  }

  private frame(): void {
    const begun = performance.now();
    this.scheduled = 0;
    this.input.flush();
    if (this.size.width === 0) return;
    const moved = this.drawnCamera !== this.camera;
    const calm = begun - this.input.heardAt > calmAfter;
    this.drawnCamera = this.camera;
    const underlays = this.underlays.frame(this.camera, moved, calm);
    const model = this.modelPicture.proceed(this.camera, calm);
    const evidence = this.evidencePicture.proceed(this.camera, calm);
    if (moved || this.modelStale || model.changed || evidence.changed) this.pastePictures();
    if (moved || this.marksStale) this.drawMarks();
    if (moved) moveLattice(this.root, this.camera, this.size);
    if (underlays || model.more || evidence.more) this.wake();
    this.lastFrame = performance.now() - begun;
  }

  private pastePictures(): void {
    const context = this.cleared(this.canvases.model);
    this.modelPicture.paste(context, this.camera);
    this.evidencePicture.paste(context, this.camera);
    this.modelStale = false;
  }

  private cleared(canvas: HTMLCanvasElement): CanvasRenderingContext2D {
    const context = canvas.getContext('2d')!;
    const ratio = window.devicePixelRatio || 1;
    context.setTransform(ratio, 0, 0, ratio, 0, 0);
    context.clearRect(0, 0, this.size.width, this.size.height);
    return context;
  }

  /** What changes with the pointer, or is small: the selection, the tool, and the signs of the board. */
  private drawMarks(): void {
    this.marksStale = false;
    const { scene, camera, size } = this;
    const pen: Pen = { context: this.cleared(this.canvases.marks), camera, size, scene };
    const pointing = this.pointing();
    const dragged = this.draft.rows;
    for (const other of scene.others) drawOther(pen, other);
    drawSelected(pen, dragged.length > 0 ? dragged : this.selectedElements(), dragged.length > 0);
    const pointed = scene.pointed === null ? null : this.candidates.byKey(scene.pointed);
    if (pointed !== null) ringPointed(pen, pointed);
    for (const trace of scene.traces) drawTrace(pen, trace);
    if (scene.heights !== null) drawHeights(pen, scene.heights);
    else drawZero(pen);
    const { measured, tool } = this.desk.getState();
    const next = tool.kind === 'measure' && pointing !== null ? nextMeasured(tool, measured, pointing) : null;
    if (measured !== null) drawMeasured(pen, measured, next?.point ?? null);
    // In the loupe the words stand below it, and what is pointed at is seen inside.
    this.tool.draw?.(pen, this.loupe.isOpen ? null : pointing);
    this.loupe.draw(pen, {
      held: this.holding.held,
      pointer: pointing?.at ?? null,
      choice: this.choice,
      draft: dragged,
    });
    drawScaleBar(pen);
    this.reportFields();
  }

  private reportFields(): void {
    const fields = this.pointer === null || this.gesture.kind === 'panning' ? [] : (this.tool.fields?.() ?? []);
    const turns = fields.length > 1 && this.tool.base != null;
    const at = this.pointer === null ? null : this.loupe.below(this.pointer.pixels);
    if (this.reports) reportTyping(fields.length === 0 || at === null ? null : { fields, at, turns });
  }

  private selectedElements() {
    const { model, selected } = this.scene;
    return [...selected].flatMap((id) => model.element[id] ?? []);
  }

  private resized(): void {
    const { width, height } = this.root.getBoundingClientRect();
    if (width === 0 || height === 0) return;
    this.view.size = { width: Math.round(width), height: Math.round(height) };
    const ratio = window.devicePixelRatio || 1;
    for (const canvas of [this.canvases.model, this.canvases.marks]) {
      canvas.width = this.size.width * ratio;
      canvas.height = this.size.height * ratio;
    }
    this.underlays.resize(this.size, ratio);
    this.modelPicture.resize(this.size, ratio);
    this.evidencePicture.resize(this.size, ratio);
    this.modelStale = true;
    this.view.begin(this.scene);
    this.redraw();
  }

  // What the pointer does.

  press(pointer: RawPointer): void {
    this.pointer = pointer;
    this.seek();
    this.gesture = { kind: 'pressing', from: pointer, at: this.project(pointer.pixels) };
  }

  move(pointer: RawPointer): void {
    this.pointer = pointer;
    this.beginDrag(pointer);
    const { gesture } = this;
    if (gesture.kind === 'panning') {
      const [dx, dy] = [pointer.pixels[0] - gesture.last[0], pointer.pixels[1] - gesture.last[1]];
      gesture.last = pointer.pixels;
      this.view.panBy([dx, dy]);
      return;
    }
    this.seek();
    const pointing = this.pointing();
    if (pointing === null) return;
    if (gesture.kind === 'dragging') this.tool.drag?.(pointing);
    else this.tool.move?.(pointing);
  }

  /** A press that moves far enough is the tool's drag, or moves the view. */
  private beginDrag({ pixels }: RawPointer): void {
    const { gesture } = this;
    if (gesture.kind !== 'pressing') return;
    const { from, at } = gesture;
    if (Math.hypot(pixels[0] - from.pixels[0], pixels[1] - from.pixels[1]) <= dragFrom) return;
    const pointing = this.pointing();
    const taken = from.button === 0 && pointing !== null && (this.tool.press?.(pointing) ?? false);
    this.gesture = taken ? { kind: 'dragging', from, at } : { kind: 'panning', from, at, last: from.pixels };
  }

  release(pointer: RawPointer): void {
    this.pointer = pointer;
    const { gesture } = this;
    this.seek();
    const pointing = this.pointing();
    this.gesture = { kind: 'idle' };
    if (pointing === null || gesture.kind === 'idle' || gesture.kind === 'panning' || pointer.button !== 0) return;
    if (gesture.kind === 'dragging') this.tool.drop?.(pointing);
    else this.tool.click?.(pointing);
    this.seek();
    this.redraw();
  }

  cancel(): void {
    // What was being dragged is left as Escape leaves it: nothing of it is done.
    if (this.gesture.kind === 'dragging') this.tool.key?.('Escape');
    this.gesture = { kind: 'idle' };
  }

  leave(): void {
    if (this.gesture.kind !== 'idle') return;
    this.pointer = null;
    this.holding.clear();
    this.tell({ position: null, holding: '' });
    this.redraw();
  }

  zoom(at: Point, factor: number): void {
    this.view.zoom(at, factor);
    this.seek();
  }

  key(event: KeyboardEvent): boolean {
    if (this.tool.key?.(event.key)) {
      this.seek();
      this.redraw();
      return true;
    }
    const plain = !event.ctrlKey && !event.metaKey && !event.altKey;
    // Where a point can be typed a minus begins one, else it goes further away.
    if (plain && typable.test(event.key) && this.beginTyping(event.key)) return true;
    const step = viewStep(event);
    if (step !== null) this.view.step(this.scene, step);
    else if (event.key === 'Escape') return this.leaveTool();
    else return plain && this.boardKey(actAt(event.key.toLowerCase()), event.repeat);
    return true;
  }

  /** @returns whether the key did something */
  private boardKey(name: ActName | null, repeated: boolean): boolean {
    switch (name) {
      case 'nextHold':
        if (!this.holding.next()) return false;
        break;
      case 'loupe':
      case 'pinLoupe':
        if (!repeated) this.openLoupe(name === 'pinLoupe');
        break;
      case 'form':
        this.tool.turnForm?.();
        break;
      case 'bend':
        if (!this.tool.bend?.()) return false;
        break;
      case 'otherReading':
        if (!this.tool.otherReading?.()) return false;
        break;
      case 'again':
        this.makeAgain();
        break;
      default:
        return false;
    }
    this.report();
    this.redraw();
    return true;
  }

  keyUp(event: KeyboardEvent): void {
    if (actAt(event.key.toLowerCase()) === 'loupe') this.letKeysGo();
  }

  /** A key that is held is let go, or is no longer heard of because the keyboard is elsewhere. */
  letKeysGo(): void {
    if (!this.loupe.isOpen || this.loupe.isPinned) return;
    this.loupe.close();
    this.seek();
    this.redraw();
  }

  /** Opens the loupe at the pointer; pinned, the same key lets it go. */
  private openLoupe(pin: boolean): void {
    if (this.pointer === null) return;
    const { pixels } = this.pointer;
    if (pin && this.loupe.isPinned) this.loupe.close();
    else this.loupe.show(pixels, this.project(pixels), pin);
    this.seek();
  }

  /** Makes the kind that was made last, in the way it was. */
  private makeAgain(): void {
    const { kind, ways } = useTracing.getState();
    const way = ways[kind];
    if (way !== undefined) this.desk.getState().setTool({ kind: 'trace', way });
  }

  // What is typed at the cursor.

  /** Typing without a pointer begins in the middle of what is seen. @returns whether there is something to type */
  private beginTyping(begun: string): boolean {
    if (this.pointer === null && this.tool.fields !== undefined) {
      const pixels: Point = [this.size.width / 2, this.size.height / 2];
      this.pointer = { pixels, button: 0, adding: false, shift: false, alt: false };
      this.seek();
      this.tool.move?.(this.pointing()!);
      this.reportFields();
    }
    return (this.tool.fields?.().length ?? 0) > 0 && beginTyping(begun);
  }

  type(name: string, value: number | null): void {
    this.tool.type?.(name, value);
    this.redraw();
  }

  takeTyped(): void {
    this.tool.takeTyped?.();
    this.seek();
    this.redraw();
  }

  turnForm(): void {
    this.tool.turnForm?.();
    this.redraw();
  }

  /** @returns whether there was something to leave */
  private leaveTool(): boolean {
    const { tool, measured, setTool, setMeasured } = this.desk.getState();
    if (tool.kind === 'look' && measured === null) return false;
    setTool({ kind: 'look' });
    setMeasured(null);
    return true;
  }

  // What is under the pointer.

  private project = (pixels: Point): Point =>
    this.loupe.place(pixels, this.camera) ?? toProject(this.camera, this.size, pixels);

  private pointing(): Pointing | null {
    if (this.pointer === null) return null;
    const { pixels, adding, shift, alt } = this.pointer;
    const at = this.project(pixels);
    const { gesture } = this;
    const from = gesture.kind === 'idle' ? { at, pixels } : { at: gesture.at, pixels: gesture.from.pixels };
    return { at, pixels, held: this.holding.held, from, adding, shift, alt };
  }

  /** Looks for what the cursor can hold on to. */
  private seek(): void {
    if (this.pointer === null) return;
    const { tool } = this.desk.getState();
    const wanted = this.tool.wants === 'points' && this.gesture.kind !== 'panning';
    const look = {
      at: this.project(this.pointer.pixels),
      metresPerPixel: this.loupe.metresPerPixel(this.camera),
      base: this.tool.base ?? null,
    };
    if (wanted) this.holding.seek(look, tool.kind === 'pick' ? tool.of : null, tool.kind !== 'trace');
    else this.holding.clear();
    this.report();
    if (tool.kind !== 'look' || wanted) this.redraw();
  }

  private report(): void {
    if (this.pointer === null) return;
    this.tell({ position: this.project(this.pointer.pixels), holding: this.holding.held?.words ?? '' });
  }

  private tell(report: CursorReport): void {
    if (this.reports) reportCursor(report);
  }
}
