import type { Box } from '@/core/geometry/boxIndex';
import type { Camera, Size } from '../camera';
import type { CandidateIndex } from '../candidateIndex';
import type { BoardScene } from '../scene';
import { evidenceContent } from './evidenceContent';
import { modelContent } from './modelContent';
import { resultContent } from './resultContent';
import { inTurn, SlicedPicture } from './slicedPicture';
import { UnderlayLayers } from './underlayLayers';

/** The canvases of a board, the lowest first. */
export interface BoardCanvases {
  below: HTMLCanvasElement;
  model: HTMLCanvasElement;
  above: HTMLCanvasElement;
  marks: HTMLCanvasElement;
}

/** What the model's picture is made of beside the rows of the model. */
const ofModel = [
  ...(['drawings', 'dark', 'tokens', 'candidates', 'levelId', 'chosen', 'heights', 'axesShown', 'model'] as const),
];
const ofUnderlays = ['drawings', 'dark', 'tokens'] as const;
const ofEvidence = ['overlay', 'picture', 'drawings', 'tokens'] as const;

/** What a board shows, in layers that know alone when they are stale: drawings, the model, evidence and results. */
export class BoardPicture {
  private readonly underlays: UnderlayLayers;
  private readonly model: SlicedPicture;
  private readonly evidence: SlicedPicture;
  private stale = true;
  private size: Size = { width: 0, height: 0 };

  /** @param now the scene of now @param problem hears of what cannot be drawn */
  constructor(
    private readonly canvases: BoardCanvases,
    now: () => BoardScene,
    candidates: () => CandidateIndex,
    problem: (words: string) => void,
  ) {
    this.underlays = new UnderlayLayers(canvases.below, canvases.above, problem);
    this.model = new SlicedPicture(modelContent(now, candidates));
    this.evidence = new SlicedPicture(inTurn(evidenceContent(now), resultContent(now)));
    this.underlays.setScene(now());
  }

  /** What differs from the scene before is drawn anew. */
  setScene(before: BoardScene, scene: BoardScene): void {
    const differs = (keys: readonly (keyof BoardScene)[]): boolean => keys.some((key) => scene[key] !== before[key]);
    if (differs(ofUnderlays)) this.underlays.setScene(scene);
    if (differs(ofModel)) this.model.invalidate();
    if (differs(ofEvidence)) this.evidence.invalidate();
  }

  /** The model has changed in these places; null is anywhere. */
  changed(places: readonly Box[] | null): void {
    if (places === null) this.model.invalidate();
    else for (const box of places) this.model.invalidateBox(box);
  }

  /**
   * Goes on with what is stale.
   * @param moved whether the view is another one than at the last frame
   * @param calm whether nobody moves anything
   * @returns whether there is more to draw
   */
  frame(camera: Camera, moved: boolean, calm: boolean): boolean {
    const underlays = this.underlays.frame(camera, moved, calm);
    const model = this.model.proceed(camera, calm);
    const evidence = this.evidence.proceed(camera, calm);
    if (moved || this.stale || model.changed || evidence.changed) this.paste(camera);
    return underlays || model.more || evidence.more;
  }

  private paste(camera: Camera): void {
    const context = this.cleared('model');
    this.model.paste(context, camera);
    this.evidence.paste(context, camera);
    this.stale = false;
  }

  /** A canvas, empty, to be drawn on in pixels of the page. */
  cleared(name: 'model' | 'marks'): CanvasRenderingContext2D {
    const context = this.canvases[name].getContext('2d')!;
    const ratio = window.devicePixelRatio || 1;
    context.setTransform(ratio, 0, 0, ratio, 0, 0);
    context.clearRect(0, 0, this.size.width, this.size.height);
    return context;
  }

  resize(size: Size): void {
    this.size = size;
    const ratio = window.devicePixelRatio || 1;
    for (const canvas of [this.canvases.model, this.canvases.marks]) {
      canvas.width = size.width * ratio;
      canvas.height = size.height * ratio;
    }
    this.underlays.resize(size, ratio);
    this.model.resize(size, ratio);
    this.evidence.resize(size, ratio);
    this.stale = true;
  }

  /** What the GPU keeps, for tests. */
  held(): { targets: number; buffers: number } {
    return this.underlays.held();
  }

  dispose(): void {
    this.underlays.dispose();
  }
}
