import type { Point } from '@/core/geometry/vector';
import type { RawPointer } from './input';
import type { BoardTool, Pointing } from './tools/tool';

/** A press becomes a drag where the pointer moves further than this, pixels. */
const dragFrom = 3;

/** The pointer: nothing pressed, pressed and not yet moved, or dragging, the view or what the tool took. */
type Gesture =
  | { kind: 'idle' }
  | { kind: 'pressing'; from: RawPointer; at: Point }
  | { kind: 'panning'; from: RawPointer; at: Point; last: Point }
  | { kind: 'dragging'; from: RawPointer; at: Point };

/** What the pointer does things to. */
export interface Handled {
  tool: () => BoardTool;
  /** What the cursor holds on to. */
  held: () => Pointing['held'];
  /** From pixels to the project. */
  project: (pixels: Point) => Point;
  panBy: (pixels: Point) => void;
  /** Looks anew for what the cursor holds on to. */
  seek: () => void;
  /** The pointer has left the board. */
  left: () => void;
  redraw: () => void;
}

/** The pointer on the board, and what becomes of its presses: clicks and drags of the tool, or a view that is moved. */
export class BoardHand {
  /** Where it is; null where it is not on the board. */
  pointer: RawPointer | null = null;
  private gesture: Gesture = { kind: 'idle' };

  constructor(private readonly board: Handled) {}

  get isPanning(): boolean {
    return this.gesture.kind === 'panning';
  }

  /** What it had begun is nothing any more. */
  rest(): void {
    this.gesture = { kind: 'idle' };
  }

  press(pointer: RawPointer): void {
    this.pointer = pointer;
    this.board.seek();
    this.gesture = { kind: 'pressing', from: pointer, at: this.board.project(pointer.pixels) };
  }

  move(pointer: RawPointer): void {
    const { board } = this;
    this.pointer = pointer;
    this.beginDrag(pointer);
    const { gesture } = this;
    if (gesture.kind === 'panning') {
      const by: Point = [pointer.pixels[0] - gesture.last[0], pointer.pixels[1] - gesture.last[1]];
      gesture.last = pointer.pixels;
      board.panBy(by);
      return;
    }
    board.seek();
    const pointing = this.pointing();
    if (pointing === null) return;
    if (gesture.kind === 'dragging') board.tool().drag?.(pointing);
    else board.tool().move?.(pointing);
  }

  /** A press that moves far enough is the tool's drag, or moves the view. */
  private beginDrag({ pixels }: RawPointer): void {
    const { gesture } = this;
    if (gesture.kind !== 'pressing') return;
    const { from, at } = gesture;
    if (Math.hypot(pixels[0] - from.pixels[0], pixels[1] - from.pixels[1]) <= dragFrom) return;
    const pointing = this.pointing();
    const taken = from.button === 0 && pointing !== null && (this.board.tool().press?.(pointing) ?? false);
    this.gesture = taken ? { kind: 'dragging', from, at } : { kind: 'panning', from, at, last: from.pixels };
  }

  release(pointer: RawPointer): void {
    const { board } = this;
    this.pointer = pointer;
    const { gesture } = this;
    board.seek();
    const pointing = this.pointing();
    this.rest();
    if (pointing === null || gesture.kind === 'idle' || gesture.kind === 'panning' || pointer.button !== 0) return;
    if (gesture.kind === 'dragging') board.tool().drop?.(pointing);
    else board.tool().click?.(pointing);
    board.seek();
    board.redraw();
  }

  cancel(): void {
    // What was being dragged is left as Escape leaves it: nothing of it is done.
    if (this.gesture.kind === 'dragging') this.board.tool().key?.('Escape');
    this.rest();
  }

  leave(): void {
    if (this.gesture.kind !== 'idle') return;
    this.pointer = null;
    this.board.left();
  }

  /** Where the pointer is, and what it holds on to; null where it is not on the board. */
  pointing(): Pointing | null {
    if (this.pointer === null) return null;
    const { pixels, adding, shift, alt } = this.pointer;
    const at = this.board.project(pixels);
    const { gesture } = this;
    const from = gesture.kind === 'idle' ? { at, pixels } : { at: gesture.at, pixels: gesture.from.pixels };
    return { at, pixels, held: this.board.held(), from, adding, shift, alt };
  }
}
