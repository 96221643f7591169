import type { Point } from '@/core/geometry/vector';
import { actAt, type ActName } from '@/project/keys';
import { useTracing } from '@/project/tracing';
import type { BoardDesk } from './boardStore';
import type { Holding } from './holding';
import type { Loupe } from './loupe';
import type { BoardScene } from './scene';
import type { BoardTool } from './tools/tool';
import { beginTyping } from './typing';
import type { View } from './view';
import { viewStep } from './viewKeys';

/** What begins a value when it is typed on the board. */
const typable = /^[0-9.,\-\u2212]$/;

/** What keys do things to. */
export interface Keyed {
  readonly desk: BoardDesk;
  readonly view: View;
  readonly loupe: Loupe;
  readonly holding: Holding;
  tool: () => BoardTool;
  scene: () => BoardScene;
  /** Where the pointer is, in pixels and in the project; null where it is not on the board. */
  pointer: () => { pixels: Point; at: Point } | null;
  /** Puts the pointer where what is typed begins, if it is not on the board. */
  pointSomewhere: () => void;
  /** Looks anew for what the cursor holds on to. */
  seek: () => void;
  report: () => void;
  redraw: () => void;
}

/** What the keyboard does on the board: first the tool's own keys, then typing, the view, and the board's. */
export class BoardKeys {
  constructor(private readonly board: Keyed) {}

  /** @returns whether the key did something */
  press(event: KeyboardEvent): boolean {
    const { board } = this;
    if (board.tool().key?.(event.key)) {
      board.seek();
      board.redraw();
      return true;
    }
    const plain = !event.ctrlKey && !event.metaKey && !event.altKey;
    // Where a point can be typed a minus begins one, else it goes further away.
    if (plain && typable.test(event.key) && this.beginTyping(event.key)) return true;
    const step = viewStep(event);
    if (step !== null) board.view.step(board.scene(), step);
    else if (event.key === 'Escape') return this.leaveTool();
    else return plain && this.act(actAt(event.key.toLowerCase()), event.repeat);
    return true;
  }

  release(event: KeyboardEvent): void {
    if (actAt(event.key.toLowerCase()) === 'loupe') this.letGo();
  }

  /** A key that is held is let go, or is no longer heard of because the keyboard is elsewhere. */
  letGo(): void {
    const { loupe, seek, redraw } = this.board;
    if (!loupe.isOpen || loupe.isPinned) return;
    loupe.close();
    seek();
    redraw();
  }

  /** @returns whether the key did something */
  private act(name: ActName | null, repeated: boolean): boolean {
    const { board } = this;
    switch (name) {
      case 'nextHold':
        if (!board.holding.next()) return false;
        break;
      case 'loupe':
      case 'pinLoupe':
        if (!repeated) this.openLoupe(name === 'pinLoupe');
        break;
      case 'form':
        board.tool().turnForm?.();
        break;
      case 'bend':
        if (!board.tool().bend?.()) return false;
        break;
      case 'otherReading':
        if (!board.tool().otherReading?.()) return false;
        break;
      case 'again':
        this.makeAgain();
        break;
      default:
        return false;
    }
    board.report();
    board.redraw();
    return true;
  }

  /** Opens the loupe at the pointer; pinned, the same key lets it go. */
  private openLoupe(pin: boolean): void {
    const { loupe, pointer, seek } = this.board;
    const here = pointer();
    if (here === null) return;
    if (pin && loupe.isPinned) loupe.close();
    else loupe.show(here.pixels, here.at, pin);
    seek();
  }

  /** Makes the kind that was made last, in the way it was. */
  private makeAgain(): void {
    const { kind, ways } = useTracing.getState();
    const way = ways[kind];
    if (way !== undefined) this.board.desk.getState().setTool({ kind: 'trace', way });
  }

  /** @returns whether there is something to type */
  private beginTyping(begun: string): boolean {
    const { board } = this;
    if (board.tool().fields !== undefined) board.pointSomewhere();
    return (board.tool().fields?.().length ?? 0) > 0 && beginTyping(begun);
  }

  /** @returns whether there was something to leave */
  private leaveTool(): boolean {
    const { tool, measured, setTool, setMeasured } = this.board.desk.getState();
    if (tool.kind === 'look' && measured === null) return false;
    setTool({ kind: 'look' });
    setMeasured(null);
    return true;
  }
}
