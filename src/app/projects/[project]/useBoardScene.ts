'use client';
import { useMemo } from 'react';
import { placementTransform, type Placement } from '@/core/datum/placement';
import { displayOf, roleId } from '@/core/model/commands';
import type { ElementRow } from '@/core/model/elements';
import type { BoardDrawing, BoardScene } from '@/board/scene';
import { activeDrawings, projectRowOf, useProject } from '@/project/store';
import { useReadings, verdictOf } from '@/project/readings';
import { useOverlay } from '@/project/overlay';
import { underlayOf, useUnderlays } from '@/project/underlays';
import { useView } from '@/project/view';
import { useScheme } from '@/ui/widgets/useScheme';

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
    const underlay = underlayOf(entries, drawing.id);
    const display = displayOf(state, drawing.id);
    const placement = state.placement[drawing.id] as Placement | undefined;
    if (!underlay || !placement || drawing.setAside || (display.levels === 'own' && drawing.levelId !== null && drawing.levelId !== levelId)) return [];
    const alone = isolated[drawing.id];
    const hidden = Uint8Array.from(underlay.layers, (layer) => ((alone ? !alone.includes(layer.name) : layer.hidden || state.role[roleId(drawing.id, layer.name)]?.shown === false) ? 1 : 0));
    return [{ id: drawing.id, name: drawing.name, underlay, placement, transform: placementTransform(placement, underlay.primitives.origin), hidden, display }];
  }), [state.drawing, state.placement, state.role, state.display, entries, levelId, isolated]); // eslint-disable-line react-hooks/exhaustive-deps -- elements and decisions change often and do not matter here

  const candidates = useMemo(() => (station !== 'reading' ? [] : drawings.flatMap((drawing) => (readings[drawing.id]?.result?.candidates ?? []).filter((candidate) => verdictOf(state, drawing.id, candidate.key) === 'open'))), [station, drawings, readings, state]);
  const elements = useMemo(() => (Object.values(state.element) as ElementRow[]).filter((element) => element.levelId === null || element.levelId === levelId), [state.element, levelId]);
  const scene = useMemo((): BoardScene => ({ tokens, dark, unit, drawings, elements, candidates, pointed, chosen, overlay }), [tokens, dark, unit, drawings, elements, candidates, pointed, chosen, overlay]);
  return { scene, opening: Object.values(entries).filter((entry) => entry.opening).length };
}
