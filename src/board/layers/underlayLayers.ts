import type { Camera, Size } from '../camera';
import type { BoardDrawing, BoardScene } from '../scene';
import { colourKey, underlayColour } from './underlayColour';
import type { PictureSource } from './underlayLines';
import { UnderlayPicture } from './underlayPicture';

const lostWords = 'The browser took the graphics away. Reload the page.';

/** The drawings on the GPU: those below the model, and, where there are such, those that lie over it. */
export class UnderlayLayers {
  private below: UnderlayPicture | null = null;
  private above: UnderlayPicture | null = null;
  private stale = true;
  private size: Size = { width: 1, height: 1 };
  private ratio = 1;

  constructor(
    below: HTMLCanvasElement,
    private readonly aboveCanvas: HTMLCanvasElement,
    private readonly tell: (problem: string) => void,
  ) {
    try {
      this.below = new UnderlayPicture(below, () => tell(lostWords));
    } catch {
      tell(
        'This browser offers no WebGL 2, which the underlay is drawn with. Turn on hardware acceleration, or use another browser.',
      );
    }
  }

  private get pictures(): UnderlayPicture[] {
    return [this.below, this.above].filter((picture) => picture !== null);
  }

  setScene(scene: BoardScene): void {
    const sources = (above: boolean): PictureSource[] =>
      scene.drawings.filter(({ display }) => display.above === above).map((drawing) => sourceOf(scene, drawing));
    const over = sources(true);
    if (over.length > 0 && this.below !== null && this.above === null) {
      this.above = new UnderlayPicture(this.aboveCanvas, () => this.tell(lostWords));
      this.above.resize(this.size, this.ratio);
    }
    const changed = [this.below?.setSources(sources(false)), this.above?.setSources(over)];
    this.stale ||= changed.includes(true);
  }

  resize(size: Size, ratio: number): void {
    this.size = size;
    this.ratio = ratio;
    for (const picture of this.pictures) picture.resize(size, ratio);
    this.stale = true;
  }

  /**
   * @param moved whether the view is another one than at the last frame
   * @param calm whether nobody moves anything
   * @returns whether there is more to draw
   */
  frame(camera: Camera, moved: boolean, calm: boolean): boolean {
    if (!moved && !this.stale) return false;
    const more = this.pictures.map((picture) => picture.frame(camera, calm));
    this.stale = more.includes(true);
    return this.stale;
  }

  /** What the GPU keeps: render targets and buffers, for tests. */
  held(): { targets: number; buffers: number } {
    const all = this.pictures.map((picture) => picture.held());
    return {
      targets: all.reduce((sum, { targets }) => sum + targets, 0),
      buffers: all.reduce((sum, { buffers }) => sum + buffers, 0),
    };
  }

  dispose(): void {
    for (const picture of this.pictures) picture.dispose();
  }
}

const sourceOf = (scene: BoardScene, drawing: BoardDrawing): PictureSource => ({
  id: drawing.id,
  store: drawing.underlay.segments,
  transform: drawing.transform,
  hidden: drawing.hidden,
  colour: (drawn, layer) => underlayColour(scene, drawing, drawn, layer),
  colourKey: colourKey(scene, drawing),
  strength: 1 - drawing.display.fade,
  weights: drawing.display.lineWeights,
});
