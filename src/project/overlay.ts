'use client';
import { create } from 'zustand';

/**
 * Lines laid over a drawing on the board, to show what would go, what came, or a region. Coordinates about `origin`, in
 * the drawing's own.
 */
export interface OverlayPart {
  lines: Float32Array;
  tone: 'look' | 'wrong' | 'evidence';
}
export interface Overlay {
  drawingId: string;
  /** What shows it, where that is to be told. */
  by?: string;
  origin: [number, number];
  /** Whether the rest of the drawing fades meanwhile. */ alone?: boolean;
  parts: OverlayPart[];
}

interface OverlayStore {
  overlay: Overlay | null;
  show(overlay: Overlay | null): void;
  /** Drawings of other levels that a bench wants to be seen too. */
  guests: readonly string[];
  invite(guests: readonly string[]): void;
}

/** What a bench shows on the board for a moment. */
export const useOverlay = create<OverlayStore>()((set) => ({
  overlay: null,
  show: (overlay) => set({ overlay }),
  guests: [],
  invite: (guests) => set({ guests }),
}));
