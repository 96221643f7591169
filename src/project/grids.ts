'use client';
import type { GridLine } from '@/core/kinds/grid';
import type { Placement } from '@/core/datum/placement';
import type { Model } from '@/core/model/model';
import { readingOrder } from './readings';
import { gridInWorker, underlayOf, useUnderlays } from './underlays';

/** The grid lines that a drawing shows, read as it would lie by a placement. Empty where it is not open. */
export async function gridOfDrawing(state: Model, drawingId: string, at: Placement): Promise<GridLine[]> {
  const underlay = underlayOf(useUnderlays.getState().entries, drawingId);
  return underlay ? gridInWorker(drawingId, readingOrder(state, drawingId, underlay, at)) : [];
}
