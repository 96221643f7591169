'use client';
import { useMemo } from 'react';
import { placementTransform, type Placement } from '@/core/datum/placement';
import { displayOf, roleId } from '@/core/model/commands';
import type { ElementRow } from '@/core/model/elements';
import type { DrawingRow, ProjectState } from '@/core/model/state';
import type { BoardDrawing, BoardScene } from '@/board/scene';
import type { StackScene } from '@/board/stack/StackView';
import { activeDrawings, projectRowOf, useProject } from '@/project/store';
import { useReadings, verdictOf } from '@/project/readings';
import { useOverlay } from '@/project/overlay';
import { underlayOf, useUnderlays } from '@/project/underlays';
import { useView } from '@/project/view';
import { useScheme } from '@/ui/widgets/useScheme';

/** Every drawing with a level, and the model, for the stack seen in space. */
export function useStackScene(wanted: boolean): StackScene | null {
  const state = useProject((store) => store.state);
  const entries = useUnderlays((store) => store.entries);
  const { tokens } = useScheme();
  return useMemo(() => {
    if (!wanted) return null;
    const drawings = activeDrawings(state).flatMap((drawing) => {
      const level = drawing.levelId === null ? undefined : state.level[drawing.levelId];
      const shown = boardDrawing(state, entries, drawing, null);
      return !shown || !level || !shown.display.stacked ? [] : [{ ...shown, elevation: level.elevation }];
    });
    return { tokens, drawings, elements: Object.values(state.element) as ElementRow[], levels: Object.values(state.level) };
  }, [wanted, state, entries, tokens]);
}

/** A drawing as the board shows it, where it is open and not set aside. @param alone the layers shown alone, or null */
function boardDrawing(state: ProjectState, entries: Parameters<typeof underlayOf>[0], drawing: DrawingRow, alone: string[] | null): BoardDrawing | null {
  const underlay = underlayOf(entries, drawing.id);
  const display = displayOf(state, drawing.id);
  const placement = state.placement[drawing.id] as Placement | undefined;
  if (!underlay || !placement || drawing.setAside) return null;
  const hidden = Uint8Array.from(underlay.layers, (layer) => ((alone ? !alone.includes(layer.name) : layer.hidden || state.role[roleId(drawing.id, layer.name)]?.shown === false) ? 1 : 0));
  return { id: drawing.id, name: drawing.name, underlay, placement, transform: placementTransform(placement, underlay.primitives.origin), hidden, display };
}

/** What the board shows at a level: its drawings, its elements and, at Reading, the candidates still open. */
export function useBoardScene(levelId: string | null): { scene: BoardScene; opening: number } {
  const state = useProject((store) => store.state);
  const unit = useProject((store) => projectRowOf(store)?.displayUnit ?? 'm');
  const entries = useUnderlays((store) => store.entries);
  const { readings, pointed, chosen } = useReadings();
  const { station, isolated } = useView();
  const overlay = useOverlay((store) => store.overlay);
  const { dark, tokens } = useScheme();

  const drawings = useMemo(() => activeDrawings(state).flatMap((drawing): BoardDrawing[] => {
    const shown = boardDrawing(state, entries, drawing, isolated[drawing.id] ?? null);
    return !shown || (shown.display.levels === 'own' && drawing.levelId !== null && drawing.levelId !== levelId) ? [] : [shown];
  }), [state.drawing, state.placement, state.role, state.display, entries, levelId, isolated]); // eslint-disable-line react-hooks/exhaustive-deps -- elements and decisions change often and do not matter here

  const candidates = useMemo(() => (station !== 'reading' ? [] : drawings.flatMap((drawing) => (readings[drawing.id]?.result?.candidates ?? []).filter((candidate) => verdictOf(state, drawing.id, candidate.key) === 'open'))), [station, drawings, readings, state]);
  const elements = useMemo(() => (Object.values(state.element) as ElementRow[]).filter((element) => element.levelId === null || element.levelId === levelId), [state.element, levelId]);
  const scene = useMemo((): BoardScene => ({ tokens, dark, unit, drawings, elements, candidates, pointed, chosen, overlay }), [tokens, dark, unit, drawings, elements, candidates, pointed, chosen, overlay]);
  return { scene, opening: Object.values(entries).filter((entry) => entry.opening).length };
}
