'use client';
import { useMemo } from 'react';
import { faceOn, placementTransform, placeUpright, type Placement } from '@/core/datum/placement';
import type { Point } from '@/core/geometry/vector';
import { displayOf, roleId } from '@/core/model/commands';
import { elementsAt, hangsOn, levelsUp } from '@/core/model/levels';
import type { DrawingRow, ProjectState } from '@/core/model/state';
import { mainContent } from '@/core/underlay/mainContent';
import type { BoardDrawing, BoardScene, Trace } from '@/board/scene';
import type { StackScene } from '@/board/stack/StackView';
import { activeDrawings, lengthsOf, projectRowOf, useProject } from '@/project/store';
import { useReadings, verdictOf } from '@/project/readings';
import { useOverlay } from '@/project/overlay';
import { underlayOf, useUnderlays, type Underlay } from '@/project/underlays';
import { useView } from '@/project/view';
import { useScheme } from '@/ui/widgets/useScheme';

/** Every drawing with a level, and the model, for the stack seen in space. */
export function useStackScene(wanted: boolean): StackScene | null {
  const state = useProject((store) => store.state);
  const entries = useUnderlays((store) => store.entries);
  const { tokens } = useScheme();
  return useMemo(() => {
    if (!wanted) return null;
    const drawings = activeDrawings(state).flatMap((drawing): StackScene['drawings'] => {
      const shown = boardDrawing(state, entries, drawing, null);
      const placement = state.placement[drawing.id];
      if (!shown || !shown.display.stacked) return [];
      if (placement.upright !== null)
        return [{ ...shown, heights: [0], stands: { at: placement.target, turning: placement.turning } }];
      const heights = levelsUp(state)
        .filter(({ id }) => hangsOn(state, drawing, id))
        .map(({ elevation }) => elevation);
      return heights.length === 0 ? [] : [{ ...shown, heights, stands: null }];
    });
    return {
      tokens,
      drawings,
      elementsOn: (levelId) => elementsAt(state, levelId),
      levels: Object.values(state.level),
    };
  }, [wanted, state, entries, tokens]);
}

/** A drawing as the board shows it, where it is open and not set aside. @param alone the layers shown alone, or null */
function boardDrawing(
  state: ProjectState,
  entries: Parameters<typeof underlayOf>[0],
  drawing: DrawingRow,
  alone: string[] | null,
): BoardDrawing | null {
  const underlay = underlayOf(entries, drawing.id);
  const display = displayOf(state, drawing.id);
  const own: Placement | undefined = state.placement[drawing.id];
  if (!underlay || !own || drawing.setAside) return null;
  const placement = own.upright === null ? own : faceOn(own);
  const hidden = Uint8Array.from(underlay.layers, (layer) =>
    (alone ? !alone.includes(layer.name) : layer.hidden || state.role[roleId(drawing.id, layer.name)]?.shown === false)
      ? 1
      : 0,
  );
  return {
    id: drawing.id,
    name: drawing.name,
    underlay,
    placement,
    transform: placementTransform(placement, underlay.primitives.origin),
    hidden,
    display,
  };
}

/** The line that an upright drawing stands on, as long as it is. */
function traceOf(drawing: DrawingRow, placement: Placement, underlay: Underlay): Trace | null {
  const main = mainContent(underlay.primitives);
  if (main === null) return null;
  const ends = [main[0][0], main[1][0]].map((x): Point => {
    const [px, py] = placeUpright(placement, [x, placement.origin[1]]);
    return [px, py];
  });
  return { name: drawing.name, from: ends[0], to: ends[1] };
}

/**
 * What the board shows at a level: its drawings, its elements and, at Reading, the candidates still open. Or an upright
 * drawing, face on.
 */
export function useBoardScene(levelId: string | null): { scene: BoardScene; opening: number } {
  const state = useProject((store) => store.state);
  const project = useProject(projectRowOf);
  const unit = useProject(lengthsOf);
  const entries = useUnderlays((store) => store.entries);
  const { readings, pointed, chosen } = useReadings();
  const { station, isolated, faceOn: facing, axesId } = useView();
  const { overlay, guests } = useOverlay();
  const { dark, tokens } = useScheme();
  const upright =
    facing !== null && state.placement[facing]?.upright != null && !state.drawing[facing]?.discarded ? facing : null;

  // Under what is looked at alone the rest fades.
  const faded = overlay?.alone ? overlay.drawingId : null;
  const drawings = useMemo(
    () =>
      activeDrawings(state).flatMap((drawing): BoardDrawing[] => {
        const stands = state.placement[drawing.id]?.upright != null;
        if (upright !== null ? drawing.id !== upright : stands) return [];
        const shown = boardDrawing(state, entries, drawing, isolated[drawing.id] ?? null);
        if (!shown) return [];
        const elsewhere =
          shown.display.levels === 'own' &&
          (drawing.levelId !== null || drawing.alsoOn.length > 0) &&
          !hangsOn(state, drawing, levelId);
        return upright === null && elsewhere && !guests.includes(drawing.id)
          ? []
          : [
              drawing.id === faded
                ? { ...shown, display: { ...shown.display, fade: Math.max(shown.display.fade, 0.8) } }
                : shown,
            ];
      }),
    // eslint-disable-next-line react-hooks/exhaustive-deps -- elements and decisions change often
    [
      state.drawing,
      state.placement,
      state.role,
      state.display,
      state.level,
      entries,
      levelId,
      isolated,
      upright,
      guests,
      faded,
    ],
  );

  const candidates = useMemo(
    () =>
      station !== 'reading' || upright !== null
        ? []
        : drawings.flatMap((drawing) =>
            (readings[drawing.id]?.result?.candidates ?? []).filter(
              (candidate) => verdictOf(state, drawing.id, candidate.key) === 'open',
            ),
          ),
    [station, drawings, readings, state, upright],
  );
  const elements = useMemo(
    () => (upright === null ? elementsAt(state, levelId) : []),
    // eslint-disable-next-line react-hooks/exhaustive-deps -- elements and decisions change often
    [state.element, state.level, levelId, upright],
  );
  const traces = useMemo(
    () =>
      upright !== null
        ? []
        : activeDrawings(state).flatMap((drawing) => {
            const [placement, underlay] = [state.placement[drawing.id], underlayOf(entries, drawing.id)];
            const trace =
              placement?.upright != null && underlay && !drawing.setAside
                ? traceOf(drawing, placement, underlay)
                : null;
            return trace ? [trace] : [];
          }),
    // eslint-disable-next-line react-hooks/exhaustive-deps -- elements and decisions change often
    [state.drawing, state.placement, entries, upright],
  );
  // eslint-disable-next-line react-hooks/exhaustive-deps -- only levels matter here
  const heights = useMemo(() => (upright === null ? null : levelsUp(state)), [state.level, upright]);
  const axes = useMemo(() => project?.axes.find(({ id }) => id === axesId) ?? null, [project, axesId]);
  const scene = useMemo(
    (): BoardScene => ({
      tokens,
      dark,
      unit,
      drawings,
      elements,
      candidates,
      pointed,
      chosen,
      overlay,
      traces,
      heights,
      axes,
    }),
    [tokens, dark, unit, drawings, elements, candidates, pointed, chosen, overlay, traces, heights, axes],
  );
  return { scene, opening: Object.values(entries).filter((entry) => entry.opening).length };
}
