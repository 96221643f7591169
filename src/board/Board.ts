import type { Point } from '@/core/geometry/vector';
import type { Diff } from '@/core/model/model';
import type { Candidate } from '@/core/reading/candidate';
import type { Draft } from '@/project/draft';
import { BoardHand, type Handled } from './boardHand';
import { BoardKeys, type Keyed } from './boardKeys';
import { reportCursor, type BoardDesk, type CursorReport, type ToolRequest, type Wished } from './boardStore';
import { toProject, type Camera, type Size } from './camera';
import { CandidateIndex } from './candidateIndex';
import { Holding } from './holding';
import { Input, type InputHandler, type RawPointer } from './input';
import { BoardPicture, type BoardCanvases } from './layers/boardPicture';
import { drawBoardMarks, drawScaleBar } from './layers/marks';
import { moveLattice } from './layers/lattice';
import type { Pen } from './layers/pen';
import { Loupe } from './loupe';
import type { BoardScene } from './scene';
import { axesSnaps } from './snapping/axesSnaps';
import { equalSnaps } from './snapping/equalSnaps';
import { gridSnaps } from './snapping/gridSnaps';
import { followSnaps } from './snapping/followSnaps';
import { belowSnaps, modelSnaps } from './snapping/modelSnaps';
import { underlaySnaps } from './snapping/underlaySnaps';
import { drawMeasured, nextMeasured } from './tools/measure/measureTool';
import type { BoardTool } from './tools/tool';
import { toolFor } from './tools/tools';
import type { BoardEvents, World } from './tools/world';
import { stalePlaces } from './stalePlaces';
import { reportTyping } from './typing';
import { UnderPointer } from './underPointer';
import { View } from './view';

/** The hand is at rest when nothing came from it for this long, milliseconds. */
const calmAfter = 250;

/**
 * The plan area, working without React: layers that know alone when they are stale, the tool of the moment, and the
 * view.
 * It follows the rows of the model by their diffs and everything else by the scenes it is handed.
 */
export class Board implements World, InputHandler {
  /** What the last frame took, milliseconds of script; for measuring. */
  lastFrame = 0;
  private readonly view: View;
  private scheduled = 0;
  private drawnCamera: Camera | null = null;
  private marksStale = true;
  private candidates: CandidateIndex;
  private tool: BoardTool;
  private readonly picture: BoardPicture;
  private readonly holding: Holding;
  private readonly loupe = new Loupe();
  readonly under = new UnderPointer(() => ({
    scene: this.scene,
    candidates: this.candidates,
    metresPerPixel: this.camera.metresPerPixel,
  }));
  private readonly hand: BoardHand;
  private readonly keys: BoardKeys;
  private readonly input: Input;
  private readonly observer: ResizeObserver;
  private stops: (() => void)[] = [];
  private stopHearing = (): void => undefined;
  readonly desk: BoardDesk;
  private readonly reports: boolean;

  constructor(
    private readonly root: HTMLElement,
    canvases: BoardCanvases,
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
    const now = () => this.scene;
    this.picture = new BoardPicture(canvases, now, () => this.candidates, desk.getState().setProblem);
    this.holding = new Holding([
      gridSnaps(() => this.scene.model),
      modelSnaps(now),
      underlaySnaps(() => this.scene.drawings),
      belowSnaps(now),
      followSnaps(now),
      equalSnaps(now),
      axesSnaps(now),
    ]);
    this.hand = new BoardHand(this.handled());
    this.tool = toolFor(this.desk.getState().tool, this);
    this.tool.enter?.();
    this.keys = new BoardKeys(this.keyed());
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
    this.view.begin(scene);
  }

  /** What keys do things to. */
  private keyed(): Keyed {
    const { desk, view, loupe, holding } = this;
    return {
      desk,
      view,
      loupe,
      holding,
      tool: () => this.tool,
      scene: () => this.scene,
      pointer: () => {
        const { pointer } = this.hand;
        return pointer && { pixels: pointer.pixels, at: this.project(pointer.pixels) };
      },
      pointSomewhere: () => this.pointSomewhere(),
      seek: () => this.seek(),
      report: () => this.report(),
      redraw: this.redraw,
    };
  }

  /** What the pointer does things to. */
  private handled(): Handled {
    return {
      tool: () => this.tool,
      held: () => this.holding.held,
      project: this.project,
      panBy: (pixels) => this.view.panBy(pixels),
      seek: () => this.seek(),
      left: () => {
        this.holding.clear();
        this.tell({ position: null, holding: '' });
        this.redraw();
      },
      redraw: this.redraw,
    };
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
    const another = scene.model !== before.model;
    this.scene = scene;
    if (another) this.listen();
    if (another || scene.candidates !== before.candidates)
      this.candidates = new CandidateIndex(scene.candidates, scene.model);
    this.picture.setScene(before, scene);
    this.view.follow(before, scene);
    this.redraw();
  }

  /** An edit: the places of what changed are drawn anew, before and after. */
  private followModel(diff: Diff): void {
    this.picture.changed(stalePlaces(diff, this.scene.model, this.candidates));
    this.redraw();
  }

  private turnToTool(request: ToolRequest): void {
    this.tool.exit?.();
    this.hand.rest();
    this.tool = toolFor(request, this);
    this.tool.enter?.();
    this.seek();
    const pointing = this.hand.pointing();
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
    this.picture.dispose();
  }

  /** What the GPU keeps, for tests. */
  held(): { targets: number; buffers: number } {
    return this.picture.held();
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
    const more = this.picture.frame(this.camera, moved, calm);
    if (moved || this.marksStale) this.drawMarks();
    if (moved) moveLattice(this.root, this.camera, this.size);
    if (more) this.wake();
    this.lastFrame = performance.now() - begun;
  }

  /** What changes with the pointer, or is small: the selection, the tool, and the signs of the board. */
  private drawMarks(): void {
    this.marksStale = false;
    const { scene, camera, size } = this;
    const pen: Pen = { context: this.picture.cleared('marks'), camera, size, scene };
    const pointing = this.hand.pointing();
    const dragged = this.draft.rows;
    drawBoardMarks(pen, { dragged, selected: this.selectedElements(), pointed: this.pointedCandidate() });
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
    const fields = this.hand.pointer === null || this.hand.isPanning ? [] : (this.tool.fields?.() ?? []);
    const turns = fields.length > 1 && this.tool.base != null;
    const at = this.hand.pointer === null ? null : this.loupe.below(this.hand.pointer.pixels);
    if (this.reports) reportTyping(fields.length === 0 || at === null ? null : { fields, at, turns });
  }

  private pointedCandidate(): Candidate | null {
    const { pointed } = this.scene;
    return pointed === null ? null : this.candidates.byKey(pointed);
  }

  private selectedElements() {
    const { model, selected } = this.scene;
    return [...selected].flatMap((id) => model.element[id] ?? []);
  }

  private resized(): void {
    const { width, height } = this.root.getBoundingClientRect();
    if (width === 0 || height === 0) return;
    this.view.size = { width: Math.round(width), height: Math.round(height) };
    this.picture.resize(this.size);
    this.view.begin(this.scene);
    this.redraw();
  }

  // What the pointer does.

  press(pointer: RawPointer): void {
    this.hand.press(pointer);
  }

  move(pointer: RawPointer): void {
    this.hand.move(pointer);
  }

  release(pointer: RawPointer): void {
    this.hand.release(pointer);
  }

  cancel(): void {
    this.hand.cancel();
  }

  leave(): void {
    this.hand.leave();
  }

  zoom(at: Point, factor: number): void {
    this.view.zoom(at, factor);
    this.seek();
  }

  key(event: KeyboardEvent): boolean {
    return this.keys.press(event);
  }

  keyUp(event: KeyboardEvent): void {
    this.keys.release(event);
  }

  letKeysGo(): void {
    this.keys.letGo();
  }

  // What is typed at the cursor.

  /** Typing without a pointer begins in the middle of what is seen. */
  private pointSomewhere(): void {
    if (this.hand.pointer !== null) return;
    const pixels: Point = [this.size.width / 2, this.size.height / 2];
    this.hand.pointer = { pixels, button: 0, adding: false, shift: false, alt: false };
    this.seek();
    this.tool.move?.(this.hand.pointing()!);
    this.reportFields();
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

  // What is under the pointer.

  private project = (pixels: Point): Point =>
    this.loupe.place(pixels, this.camera) ?? toProject(this.camera, this.size, pixels);

  /** Looks for what the cursor can hold on to. */
  private seek(): void {
    if (this.hand.pointer === null) return;
    const { tool } = this.desk.getState();
    const wanted = this.tool.wants === 'points' && !this.hand.isPanning;
    const look = {
      at: this.project(this.hand.pointer.pixels),
      metresPerPixel: this.loupe.metresPerPixel(this.camera),
      base: this.tool.base ?? null,
    };
    if (wanted) this.holding.seek(look, tool.kind === 'pick' ? tool.of : null, tool.kind !== 'trace');
    else this.holding.clear();
    this.report();
    if (tool.kind !== 'look' || wanted) this.redraw();
  }

  private report(): void {
    if (this.hand.pointer === null) return;
    this.tell({ position: this.project(this.hand.pointer.pixels), holding: this.holding.held?.words ?? '' });
  }

  private tell(report: CursorReport): void {
    if (this.reports) reportCursor(report);
  }
}
