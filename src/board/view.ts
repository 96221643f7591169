import type { Box } from '@/core/geometry/boxIndex';
import type { Point } from '@/core/geometry/vector';
import { fit, pan, viewBox, zoomAt, type Camera, type Size } from './camera';
import { extentOfDrawing, extentOfScene, type Part } from './extent';
import type { BoardScene } from './scene';
import type { ViewStep } from './viewKeys';

/** Before anything is there, the view is of a building's size. */
const emptyView: Camera = { x: 10, y: 8, metresPerPixel: 0.04 };

/** A board less wide or high than this shows nothing yet, pixels. */
const narrowest = 120;

/** Where the board looks: kept by the person who looks, and led to what newly comes to be shown. */
export class View {
  camera: Camera;
  size: Size = { width: 0, height: 0 };
  /** Whether somebody has looked somewhere: then nothing leads the view away but them. */
  private chosen: boolean;
  /** The view of the plan, while a section is seen face on. */
  private ofPlan: Camera | null = null;
  /** What is to be looked at once the board is wide enough. */
  private waiting: Box | Part | null = null;

  /** @param looked hears of every view that is to be kept */
  constructor(
    kept: Camera | null,
    private readonly looked: (camera: Camera) => void,
  ) {
    this.chosen = kept !== null;
    this.camera = kept ?? emptyView;
  }

  /** Looks at what was asked for meanwhile, or at the building where nobody has chosen a view yet. */
  begin(scene: BoardScene): void {
    if (this.waiting !== null) this.look(scene, this.waiting);
    else if (!this.chosen) this.look(scene, 'building');
  }

  /** Looks at a box, at the building, or at all that the drawings show. */
  look(scene: BoardScene, at: Box | Part): void {
    // A pane that is only just unfolding is too narrow to look through.
    this.waiting = Math.min(this.size.width, this.size.height) < narrowest ? at : null;
    if (this.waiting !== null) return;
    const box = typeof at === 'string' ? extentOfScene(scene, at) : at;
    if (box !== null) this.goTo(fit([box[0], box[1], box[2], box[3]], this.size));
  }

  panBy([dx, dy]: Point): void {
    this.goTo(pan(this.camera, dx, dy));
  }

  /** @param at the place that stays, in pixels @param factor above 1 comes nearer */
  zoom(at: Point, factor: number): void {
    if (this.size.width > 0) this.goTo(zoomAt(this.camera, this.size, at, factor));
  }

  zoomBy(factor: number): void {
    this.zoom([this.size.width / 2, this.size.height / 2], factor);
  }

  step(scene: BoardScene, step: ViewStep): void {
    if (step.kind === 'pan') this.panBy(step.by);
    else if (step.kind === 'zoom') this.zoomBy(step.factor);
    else this.look(scene, 'all');
  }

  /** Looks as a camera does. */
  goTo(camera: Camera): void {
    this.camera = camera;
    this.chosen = true;
    this.looked(camera);
  }

  /**
   * A section seen face on has coordinates of its own; what newly comes to be shown should be seen, if nothing else is.
   */
  follow(before: BoardScene, scene: BoardScene): void {
    if ((scene.heights === null) !== (before.heights === null)) {
      if (scene.heights !== null) this.ofPlan = this.camera;
      if (scene.heights === null && this.ofPlan !== null) this.goTo(this.ofPlan);
      else this.look(scene, 'all');
      return;
    }
    const known = new Set(before.drawings.map(({ id }) => id));
    const fresh = scene.drawings.some(({ id }) => !known.has(id));
    if (!this.chosen || (fresh && !this.seesADrawing(scene))) this.look(scene, 'building');
  }

  private seesADrawing({ drawings }: BoardScene): boolean {
    const view = viewBox(this.camera, this.size);
    return drawings.some((drawing) => {
      const box = extentOfDrawing(drawing, 'building');
      return box !== null && box[0] < view[2] && box[2] > view[0] && box[1] < view[3] && box[3] > view[1];
    });
  }
}
