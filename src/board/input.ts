import type { Point } from '@/core/geometry/vector';

/** What a pointer or a key did, in pixels of the board. */
export interface RawPointer {
  pixels: Point;
  button: number;
  adding: boolean;
  shift: boolean;
  alt: boolean;
}

export interface InputHandler {
  press(pointer: RawPointer): void;
  /** The pointer is somewhere else than at the last frame. */
  move(pointer: RawPointer): void;
  release(pointer: RawPointer): void;
  cancel(): void;
  leave(): void;
  /** @param factor above 1 comes nearer */
  zoom(at: Point, factor: number): void;
  /** @returns whether the key did something */
  key(event: KeyboardEvent): boolean;
  keyUp(event: KeyboardEvent): void;
  /** The keyboard is somewhere else. */
  letKeysGo(): void;
  /** Something has come in; it is handed over at the next frame. */
  wake(): void;
}

/** A notch of a wheel that counts in lines, and a pixel of one that counts in pixels, as logarithms of the zoom. */
const zoomOfLine = 0.05;
const zoomOfPixel = 0.0016;

/** What Escape closes or takes back by itself. */
const ownEscape = 'input, textarea, [role=dialog], [role=listbox], [role=menu], [role=combobox]';

/**
 * Pointer and keys of the board. Moves are kept until the next frame, and the last one counts: a mouse tells of many
 * more than are drawn. What ends a move, a press or a release, comes at once, after the move before it.
 */
export class Input {
  /** When something last came in, in the page's time, milliseconds. */
  heardAt = -Infinity;
  private moved: RawPointer | null = null;
  private readonly stops: (() => void)[] = [];

  constructor(
    private readonly root: HTMLElement,
    private readonly handler: InputHandler,
  ) {
    this.on('pointerdown', (event) => {
      if (event.button > 1) return;
      root.focus({ preventScroll: true });
      root.setPointerCapture(event.pointerId);
      this.flush();
      handler.press(this.pointer(event));
    });
    this.on('pointermove', (event) => {
      this.moved = this.pointer(event);
      handler.wake();
    });
    this.on('pointerup', (event) => {
      this.flush();
      handler.release(this.pointer(event));
    });
    this.on('pointercancel', () => handler.cancel());
    this.on('pointerleave', () => {
      this.moved = null;
      handler.leave();
    });
    this.on('wheel', (event) => this.wheel(event), { passive: false });
    this.on('keydown', (event) => {
      if (handler.key(event)) event.preventDefault();
    });
    this.on('keyup', (event) => handler.keyUp(event));
    this.on('blur', () => handler.letKeysGo());
    window.addEventListener('keydown', this.escape);
    this.stops.push(() => window.removeEventListener('keydown', this.escape));
  }

  /** Escape ends what the board is asked for wherever the keyboard is, unless Escape has its own meaning there. */
  private readonly escape = (event: KeyboardEvent): void => {
    const { target, key, defaultPrevented } = event;
    if (key !== 'Escape' || defaultPrevented || !(target instanceof Element) || this.root.contains(target)) return;
    if (target.closest(ownEscape) === null && this.handler.key(event)) event.preventDefault();
  };

  /** Hands over the last move, once a frame. */
  flush(): void {
    const { moved } = this;
    this.moved = null;
    if (moved !== null) this.handler.move(moved);
  }

  dispose(): void {
    for (const stop of this.stops) stop();
  }

  private wheel(event: WheelEvent): void {
    event.preventDefault();
    const step = event.deltaMode === WheelEvent.DOM_DELTA_LINE ? zoomOfLine : zoomOfPixel;
    this.handler.zoom(this.pointer(event).pixels, Math.exp(-event.deltaY * step));
  }

  private pointer(event: MouseEvent): RawPointer {
    const box = this.root.getBoundingClientRect();
    return {
      pixels: [event.clientX - box.left, event.clientY - box.top],
      button: event.button,
      adding: event.ctrlKey || event.metaKey || event.shiftKey,
      shift: event.shiftKey,
      alt: event.altKey,
    };
  }

  private on<K extends keyof HTMLElementEventMap>(
    type: K,
    handler: (event: HTMLElementEventMap[K]) => void,
    options?: AddEventListenerOptions,
  ): void {
    const heard = (event: HTMLElementEventMap[K]): void => {
      this.heardAt = event.timeStamp;
      handler(event);
    };
    this.root.addEventListener(type, heard, options);
    this.stops.push(() => this.root.removeEventListener(type, heard, options));
  }
}
