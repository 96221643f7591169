import type { Point } from '@/core/geometry/vector';
import type { Pen } from '../layers/pen';
import type { Held } from '../snapping/held';
import type { TypedField } from './trace/typedPoint';
import type { World } from './world';

/** The pointer in the project: where it is, what it can hold on to, and where it was pressed. */
export interface Pointing {
  at: Point;
  pixels: Point;
  /** What the cursor holds on to; null where there is nothing, or the tool looks for nothing. */
  held: Held | null;
  /** Where the button was pressed; where it is now while it is not. */
  from: { at: Point; pixels: Point };
  /** Ctrl, Cmd or Shift: what is clicked comes to what there is. */
  adding: boolean;
  shift: boolean;
  alt: boolean;
}

/** What a tool looks for under the cursor: points to hold on to, a straight line, or things themselves. */
export type Wants = 'points' | 'line' | 'things';

/**
 * A tool is a small state machine: it is entered and left, and hears what the pointer and the keys do, once a frame.
 * Pointer events come as press, drag and drop, or as a click where the pointer did not move between. What a tool does
 * not
 * take is the board's: a drag moves the view.
 */
export interface BoardTool {
  wants: Wants;
  cursor: string;
  enter?(): void;
  exit?(): void;
  move?(pointing: Pointing): void;
  /** @returns whether the tool takes the drag that begins here */
  press?(pointing: Pointing): boolean;
  drag?(pointing: Pointing): void;
  drop?(pointing: Pointing): void;
  click?(pointing: Pointing): void;
  /** @returns whether the key did something */
  key?(key: string): boolean;
  /** The last point set, which feet and directions are taken from. */
  readonly base?: Point | null;
  /** What can be typed at the cursor now. */
  fields?(): readonly TypedField[];
  /** @param value null lets it follow the pointer again */
  type?(name: string, value: number | null): void;
  takeTyped?(): void;
  /** Turns to the next way of typing a point. */
  turnForm?(): void;
  /** The next side is an arc, or straight again. @returns whether sides can be bent */
  bend?(): boolean;
  /** Another reading of the same lines. @returns whether there is one */
  otherReading?(): boolean;
  /** Draws what the tool is about, over everything else. */
  draw?(pen: Pen, pointing: Pointing | null): void;
}

export type ToolMaker<R> = (request: R, world: World) => BoardTool;
