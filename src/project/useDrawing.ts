'use client';
import { useMemo } from 'react';
import type { DrawingRow, PlacementRow } from '@/core/model/state';
import { activeDrawings } from './projectRow';
import { useModel } from './useSession';
import { underlayOf, useUnderlays, type Underlay } from './underlays';
import { useView } from './view';

/**
 * The drawing that the benches are about: the chosen one, else the first that is shown on the present level, else the
 * first.
 */
export function drawingInHand(
  drawings: readonly DrawingRow[],
  chosen: string | null,
  levelId: string | null,
): DrawingRow | undefined {
  return (
    drawings.find(({ id }) => id === chosen) ??
    drawings.find((row) => row.levelId === levelId && !row.setAside) ??
    drawings[0]
  );
}

/** That drawing with its placement and, where it is open, its underlay. */
export function useDrawing(): { drawing: DrawingRow; placement: PlacementRow; underlay: Underlay | null } | null {
  const state = useModel('drawing', 'placement');
  const { drawingId, levelId } = useView();
  const entries = useUnderlays((store) => store.entries);
  const drawing = drawingInHand(activeDrawings(state), drawingId, levelId);
  const placement = drawing && state.placement[drawing.id];
  const underlay = underlayOf(entries, drawing?.id);
  return useMemo(
    () => (drawing && placement ? { drawing, placement, underlay } : null),
    [drawing, placement, underlay],
  );
}
