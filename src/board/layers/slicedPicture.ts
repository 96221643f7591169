import type { Camera, Size } from '../camera';
import { viewBox } from '../camera';

type Box = readonly [minX: number, minY: number, maxX: number, maxY: number];

/** Where a picture is drawn, how it is looked at, and which part of the project it shows. */
export interface Sheet {
  context: CanvasRenderingContext2D;
  camera: Camera;
  size: Size;
  /** What lies outside need not be drawn. */
  box: Box;
}

/** Draws what belongs on a sheet, giving way after each piece of work. */
export type Content = (sheet: Sheet) => Generator<void>;

/** Contents over one another on one picture, the first below. */
export const inTurn = (...contents: Content[]): Content =>
  function* (sheet) {
    for (const content of contents) yield* content(sheet);
  };

/**
 * The picture reaches this much beyond the board on every side, as a share of its size, so that a pan has something to
 * show.
 */
const margin = 0.2;

/**
 * A frame spends this long on a picture in the making, milliseconds: while somebody moves the view or the pointer the
 * rest of the frame is for that.
 */
const slices = { busy: 4, calm: 24 };

/** More changed places than this are drawn with the whole picture. */
const mostPatches = 40;

interface Picture {
  canvas: HTMLCanvasElement;
  camera: Camera;
}

/**
 * A picture of the view and a margin round it, drawn a slice a frame and kept. While the view moves, the last picture
 * is moved with it and the next is made behind it, so that a frame costs the same however much there is. What changes
 * in
 * places is drawn anew in those places alone.
 */
export class SlicedPicture {
  private shown: Picture | null = null;
  private making: (Picture & { steps: Generator<void> }) | null = null;
  private spare: HTMLCanvasElement | null = null;
  private stale = true;
  private patches: Box[] = [];
  private size: Size = { width: 1, height: 1 };
  private ratio = 1;

  constructor(private readonly content: Content) {}

  resize(size: Size, ratio: number): void {
    if (size.width === this.size.width && size.height === this.size.height && ratio === this.ratio) return;
    this.size = size;
    this.ratio = ratio;
    this.shown = null;
    this.making = null;
    this.spare = null;
    this.stale = true;
  }

  /** Everything is to be drawn anew. */
  invalidate(): void {
    this.stale = true;
  }

  /** What lies in a box of the project is to be drawn anew. */
  invalidateBox(box: Box): void {
    if (this.stale) return;
    this.patches.push(box);
    if (this.patches.length > mostPatches) this.stale = true;
  }

  /**
   * Goes on with the picture.
   * @param calm whether nobody moves anything
   * @returns whether it is not done yet, and whether what is shown has changed
   */
  proceed(camera: Camera, calm: boolean): { more: boolean; changed: boolean } {
    const patched = this.patch();
    const latest = this.making ?? this.shown;
    if (this.stale || latest === null || !this.covers(latest, camera)) this.begin(camera);
    const finished = this.making !== null && this.slice(this.making, calm ? slices.calm : slices.busy);
    return { more: this.making !== null, changed: patched || finished };
  }

  /** Shows the picture where the view now has it. */
  paste(context: CanvasRenderingContext2D, camera: Camera): void {
    if (this.shown === null) return;
    const { canvas, camera: made } = this.shown;
    const scale = made.metresPerPixel / camera.metresPerPixel;
    const [width, height] = [(canvas.width / this.ratio) * scale, (canvas.height / this.ratio) * scale];
    // At its own scale a picture lies on whole pixels of the screen, or it would blur.
    const whole = (pixels: number): number => (scale === 1 ? Math.round(pixels * this.ratio) / this.ratio : pixels);
    const left = whole(this.size.width / 2 + (made.x - camera.x) / camera.metresPerPixel - width / 2);
    const top = whole(this.size.height / 2 - (made.y - camera.y) / camera.metresPerPixel - height / 2);
    context.drawImage(canvas, left, top, width, height);
  }

  private covers({ camera: made }: Picture, view: Camera): boolean {
    const reach = (length: number): number => length * margin * 0.9 * made.metresPerPixel;
    return (
      made.metresPerPixel === view.metresPerPixel &&
      Math.abs(view.x - made.x) <= reach(this.size.width) &&
      Math.abs(view.y - made.y) <= reach(this.size.height)
    );
  }

  /** The size of a picture, so that its pixels lie on those of the screen. */
  private sheetSize(): Size {
    const wide = (length: number): number => length + (2 * Math.ceil(length * margin * this.ratio)) / this.ratio;
    return { width: wide(this.size.width), height: wide(this.size.height) };
  }

  private begin(camera: Camera): void {
    const size = this.sheetSize();
    const canvas = this.making?.canvas ?? this.spare ?? document.createElement('canvas');
    this.spare = null;
    const [width, height] = [Math.round(size.width * this.ratio), Math.round(size.height * this.ratio)];
    if (canvas.width !== width || canvas.height !== height) Object.assign(canvas, { width, height });
    const context = canvas.getContext('2d')!;
    context.setTransform(1, 0, 0, 1, 0, 0);
    context.clearRect(0, 0, width, height);
    context.setTransform(this.ratio, 0, 0, this.ratio, 0, 0);
    this.making = { canvas, camera, steps: this.content({ context, camera, size, box: viewBox(camera, size) }) };
    this.stale = false;
    this.patches = [];
  }

  /** @returns whether the picture is done */
  private slice(making: Picture & { steps: Generator<void> }, milliseconds: number): boolean {
    const end = performance.now() + milliseconds;
    while (performance.now() < end)
      if (making.steps.next().done) {
        this.spare = this.shown?.canvas ?? null;
        this.shown = { canvas: making.canvas, camera: making.camera };
        this.making = null;
        return true;
      }
    return false;
  }

  /** Draws changed places anew in the picture that is shown. @returns whether there were any */
  private patch(): boolean {
    if (this.stale || this.patches.length === 0 || this.shown === null) return false;
    // A picture in the making may have passed the place already.
    if (this.making !== null) {
      this.stale = true;
      return false;
    }
    const { canvas, camera } = this.shown;
    const size = this.sheetSize();
    const context = canvas.getContext('2d')!;
    for (const box of this.patches) this.patchBox(context, camera, size, box);
    this.patches = [];
    return true;
  }

  private patchBox(context: CanvasRenderingContext2D, camera: Camera, size: Size, box: Box): void {
    const pad = patchPixels * camera.metresPerPixel;
    const wide: Box = [box[0] - pad, box[1] - pad, box[2] + pad, box[3] + pad];
    const left = Math.floor(size.width / 2 + (wide[0] - camera.x) / camera.metresPerPixel);
    const top = Math.floor(size.height / 2 - (wide[3] - camera.y) / camera.metresPerPixel);
    const right = Math.ceil(size.width / 2 + (wide[2] - camera.x) / camera.metresPerPixel);
    const bottom = Math.ceil(size.height / 2 - (wide[1] - camera.y) / camera.metresPerPixel);
    context.save();
    context.setTransform(this.ratio, 0, 0, this.ratio, 0, 0);
    context.beginPath();
    context.rect(left, top, right - left, bottom - top);
    context.clip();
    context.clearRect(left, top, right - left, bottom - top);
    // To its end in one go: there is little in a small place.
    for (const _ of this.content({ context, camera, size, box: wide }));
    context.restore();
  }
}

/** Lines are this much wider than their boxes at most, and small things are drawn larger than they are, pixels. */
const patchPixels = 6;
