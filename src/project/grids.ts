'use client';
import type { Placement } from '@/core/datum/placement';
import { roleId } from '@/core/model/commands';
import type { GridLine } from '@/core/model/elements';
import type { ProjectState } from '@/core/model/state';
import { readInWorker, underlayOf, useUnderlays } from './underlays';

/** The grid lines that a drawing shows, read as it would lie by a placement. Empty where it is not open. */
export async function gridOfDrawing(state: ProjectState, drawingId: string, at: Placement): Promise<GridLine[]> {
  const underlay = underlayOf(useUnderlays.getState().entries, drawingId);
  if (!underlay) return [];
  const roles = underlay.layers.map(({ name }) => state.role[roleId(drawingId, name)]?.role ?? null);
  const { candidates } = await readInWorker(drawingId, at, roles, []);
  return candidates.flatMap((candidate) => (candidate.kind === 'grid' ? [candidate.element] : []));
}
