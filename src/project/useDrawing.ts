'use client';
import type { DrawingRow, PlacementRow } from '@/core/model/state';
import { activeDrawings, useProject } from './store';
import { underlayOf, useUnderlays, type Underlay } from './underlays';
import { useView } from './view';

/** The drawing that the benches are about: the chosen one, else the first. */
export function useDrawing(): { drawing: DrawingRow; placement: PlacementRow; underlay: Underlay | null } | null {
  const state = useProject((store) => store.state);
  const chosen = useView((view) => view.drawingId);
  const entries = useUnderlays((store) => store.entries);
  const drawings = activeDrawings(state);
  const drawing = drawings.find((row) => row.id === chosen) ?? drawings[0];
  const placement = drawing && state.placement[drawing.id];
  return drawing && placement ? { drawing, placement, underlay: underlayOf(entries, drawing.fileId) } : null;
}
