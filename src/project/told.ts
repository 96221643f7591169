import type { Here } from '@/core/here';
import type { Change } from '@/core/model/edits';
import type { ProjectState } from '@/core/model/state';
import type { Right } from '@/core/people';

/**
 * How far the server is: its version, and what undo and redo would do next, in words and by their numbers in the log.
 */
export interface History {
  version: number;
  undo: string | null;
  redo: string | null;
  undoSeq: number | null;
  redoSeq: number | null;
  savedAt: string | null;
  /** Since when the project is held as it is, and by whom; null where it can be changed. */
  held: { at: string; by: string | null } | null;
}

export interface IntakeView {
  id: string;
  fileName: string;
  size: number;
  state: 'receiving' | 'waiting' | 'reading' | 'done' | 'failed' | 'cancelled';
  done: number;
  message: string | null;
  drawingId: string | null;
  revises: string | null;
  /** Whether a failed one can be tried again. */
  again: boolean;
}

export interface Snapshot {
  state: ProjectState;
  /** What who is here may do. */
  right: Right;
  history: History;
  intakes: IntakeView[];
}

/** An edit of the log. Those that this window sent itself come without their changes, which it has. */
export interface LoggedEdit {
  seq: number;
  label: string;
  clientId: string;
  changes: Change[] | null;
}

export interface Answer {
  edits: LoggedEdit[];
  history: History;
}

/** What the server tells of as it happens. */
export interface Notice {
  version?: number;
  intake?: string;
  /** Something may have been missed. */
  again?: true;
  here?: Here;
  left?: string;
}
