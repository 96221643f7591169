'use client';
import { create, type StateCreator, type StoreApi } from 'zustand';
import type { Pointed } from '@/core/sorting/alike';
import type { ReadKind } from '@/core/kinds/element';
import type { Camera } from './camera';
import type { Part } from './extent';
import type { StandardView } from './space/orbit';
import type { WayName } from '@/project/tracing';
import type { MeasureMode } from '@/core/datum/measure';
import type { Box } from '@/core/geometry/boxIndex';
import type { Point } from '@/core/geometry/vector';

/**
 * A point that was picked: in the project and in the drawing it was found on; the id is empty where it is one of the
 * model's.
 */
export interface Picked {
  point: Point;
  drawingId: string;
  drawingPoint: Point;
  words: string;
}

/** A straight line that was picked, in the project and in its drawing. */
export interface PickedLine {
  from: Point;
  to: Point;
  drawingId: string;
  drawn: [Point, Point];
  words: string;
}

/** The tool that a bench asks for, and what it is to do with what it gets. */
export type ToolRequest =
  | { kind: 'look' }
  | {
      kind: 'pick';
      prompt: string;
      /** The drawing whose points come first; null where any will do. */ of: string | null;
      take: (picked: Picked) => void;
    }
  | { kind: 'pickLine'; prompt: string; take: (line: PickedLine) => void }
  /** Lines clicked one by one, until it is ended. */
  | { kind: 'gather'; prompt: string; what: 'lines'; take: (line: { drawingId: string; path: number }) => void }
  /** Lines and texts, in the same way. */
  | { kind: 'gather'; prompt: string; what: 'things'; take: (thing: { drawingId: string } & Pointed) => void }
  /** With a length, a distance of just that length is measured off. */
  | { kind: 'measure'; mode: MeasureMode; length?: number }
  /** Takes what lines of a drawing read as. */
  | { kind: 'take'; of: ReadKind }
  /** Makes or changes elements, in one of the ways of Tracing. */
  | { kind: 'trace'; way: WayName }
  /** Corners clicked one by one, held on to or free; `take` gets them in the project. */
  | { kind: 'outline'; prompt: string; take: (corners: Point[]) => void };

/** The points measured so far; another click after the last begins anew. */
export interface Measured {
  mode: MeasureMode;
  points: Picked[];
  done: boolean;
}

/** A box of the project, the building in all drawings, all that they show, or just what a camera sees. */
export type Wished = Box | Part | Camera;

interface BoardStore {
  tool: ToolRequest;
  setTool(tool: ToolRequest): void;
  measured: Measured | null;
  setMeasured(measured: Measured | null): void;
  /** A wish to look at something; the board fulfils it once. */
  wish: { box: Wished; serial: number } | null;
  lookAt(box: Wished): void;
  /** A wish to look at the model in space from somewhere; whoever fulfils it takes it away. */
  spaceWish: StandardView | null;
  lookFrom(view: StandardView | null): void;
  /** Set where the browser gives no graphics. */
  problem: string | null;
  setProblem(problem: string | null): void;
}

/** What one board is asked for and tells: its tool, what is measured, where to look. */
export type BoardDesk = StoreApi<BoardStore>;

/** A desk for another board beside the one that the benches speak with. */
export const boardDesk = () => create<BoardStore>()(deskState);

const deskState: StateCreator<BoardStore> = (set, get) => ({
  tool: { kind: 'look' },
  measured: null,
  wish: null,
  spaceWish: null,
  problem: null,
  setTool(tool) {
    set({ tool, ...(tool.kind === 'measure' ? { measured: null } : {}) });
  },
  setMeasured(measured) {
    set({ measured });
  },
  lookAt(box) {
    set({ wish: { box, serial: (get().wish?.serial ?? 0) + 1 } });
  },
  lookFrom(view) {
    set({ spaceWish: view });
  },
  setProblem(problem) {
    set({ problem });
  },
});

/** What benches and board tell one another. */
export const useBoard = boardDesk();

/** What the cursor is at, for the status line. Kept apart from React: it changes with every move of the pointer. */
export interface CursorReport {
  position: Point | null;
  holding: string;
}
type Listener = (report: CursorReport) => void;
const listeners = new Set<Listener>();

export const reportCursor = (report: CursorReport): void => {
  for (const listener of listeners) listener(report);
};
export function hearCursor(listener: Listener): () => void {
  listeners.add(listener);
  return () => {
    listeners.delete(listener);
  };
}
