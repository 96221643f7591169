'use client';
import type { Placement } from '@/core/datum/placement';
import type { GridLine } from '@/core/model/elements';
import type { ProjectState } from '@/core/model/state';
import { readingOrder } from './readings';
import { gridInWorker, underlayOf, useUnderlays } from './underlays';

/** The grid lines that a drawing shows, read as it would lie by a placement. Empty where it is not open. */
export async function gridOfDrawing(state: ProjectState, drawingId: string, at: Placement): Promise<GridLine[]> {
  const underlay = underlayOf(useUnderlays.getState().entries, drawingId);
  return underlay ? gridInWorker(drawingId, readingOrder(state, drawingId, underlay, at)) : [];
}
