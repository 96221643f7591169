'use client';
import { useEffect, useMemo, useState } from 'react';
import { faceOn, placementTransform, placeUpright, type Placement } from '@/core/datum/placement';
import type { Point } from '@/core/geometry/vector';
import { displayOf } from '@/core/model/drawings';
import { hangsOn, levelsUp, sourceLevel } from '@/core/model/levels';
import { roleId } from '@/core/model/roles';
import { Model } from '@/core/model/model';
import { emptyState, type DrawingRow, type ProjectState } from '@/core/model/state';
import { planeOf, type UprightPlane } from '@/core/tracing/upright/plane';
import { faceOnIn } from '@/project/mirror';
import { showsBuilding } from '@/core/sorting/roles';
import { mainContent } from '@/core/underlay/mainContent';
import type { BoardDrawing, BoardScene, ReadCandidates, Trace } from '@/board/scene';
import { useOverlay } from '@/project/overlay';
import { activeDrawings, projectRowOf } from '@/project/projectRow';
import { useReadings } from '@/project/readings';
import { useSelected } from '@/project/selected';
import { useTracing } from '@/project/tracing';
import { underlayOf, useUnderlays, type Underlay } from '@/project/underlays';
import { useMoment, useLengths } from '@/project/useSession';
import { useView } from '@/project/view';
import { useScheme } from '@/ui/widgets/useScheme';
import { useOtherHands } from './others/useOtherHands';
import { useResultPicture } from './useResultPicture';

export type Entries = Parameters<typeof underlayOf>[0];

/** 1 for each layer that is not shown. @param alone the layers shown alone, or null */
function hiddenLayers(state: ProjectState, drawingId: string, underlay: Underlay, alone: string[] | null): Uint8Array {
  return Uint8Array.from(underlay.layers, ({ name, hidden }) => {
    const off = hidden || state.role[roleId(drawingId, name)]?.shown === false;
    return Number(alone ? !alone.includes(name) : off);
  });
}

/** A drawing as the board shows it, where it is open and not set aside. @param alone the layers shown alone, or null */
export function boardDrawing(
  state: ProjectState,
  entries: Entries,
  drawing: DrawingRow,
  alone: string[] | null,
): BoardDrawing | null {
  const underlay = underlayOf(entries, drawing.id);
  const own: Placement | undefined = state.placement[drawing.id];
  if (!underlay || !own || drawing.setAside) return null;
  const placement = own.upright === null ? own : faceOn(own);
  return {
    id: drawing.id,
    name: drawing.name,
    underlay,
    placement,
    transform: placementTransform(placement, underlay.primitives.origin),
    hidden: hiddenLayers(state, drawing.id, underlay, alone),
    building: Uint8Array.from(underlay.layers, ({ name }) =>
      Number(showsBuilding(state.role[roleId(drawing.id, name)]?.role ?? null)),
    ),
    display: displayOf(state, drawing.id),
  };
}

/** The line that an upright drawing stands on, as long as it is. */
function traceOf(drawing: DrawingRow, placement: Placement, underlay: Underlay): Trace | null {
  const main = mainContent(underlay.primitives);
  if (main === null) return null;
  const [from, to] = [main[0][0], main[1][0]].map((x): Point => {
    const [px, py] = placeUpright(placement, [x, placement.origin[1]]);
    return [px, py];
  });
  return { name: drawing.name, from, to };
}

/** What decides which drawings are shown. */
interface Showing {
  levelId: string | null;
  /** The upright drawing that is seen face on; null in a plan. */
  upright: string | null;
  isolated: Record<string, string[]>;
  guests: readonly string[];
  /** The drawings that a view with a name shows; null is all. */
  only: readonly string[] | null;
  /** The drawing that fades under what is looked at alone. */
  faded: string | null;
}

/** Under what is looked at alone the rest of a drawing is this faint. */
const fadedTo = 0.8;

function shownDrawings(state: ProjectState, entries: Entries, showing: Showing): BoardDrawing[] {
  const { levelId, upright, isolated, guests, only, faded } = showing;
  return activeDrawings(state).flatMap((drawing): BoardDrawing[] => {
    const stands = state.placement[drawing.id]?.upright != null;
    if (only !== null && !only.includes(drawing.id)) return [];
    if (upright !== null ? drawing.id !== upright : stands) return [];
    const shown = boardDrawing(state, entries, drawing, isolated[drawing.id] ?? null);
    if (!shown) return [];
    const hangs = drawing.levelId !== null || drawing.alsoOn.length > 0;
    const elsewhere = shown.display.levels === 'own' && hangs && !hangsOn(state, drawing, levelId);
    if (upright === null && elsewhere && !guests.includes(drawing.id)) return [];
    const { display } = shown;
    return [
      drawing.id === faded ? { ...shown, display: { ...display, fade: Math.max(display.fade, fadedTo) } } : shown,
    ];
  });
}

function tracesOf(state: ProjectState, entries: Entries): Trace[] {
  return activeDrawings(state).flatMap((drawing) => {
    const [placement, underlay] = [state.placement[drawing.id], underlayOf(entries, drawing.id)];
    const stands = placement?.upright != null && underlay && !drawing.setAside;
    const trace = stands ? traceOf(drawing, placement, underlay) : null;
    return trace ? [trace] : [];
  });
}

const noCandidates: ReadCandidates[] = [];
const nothingSeen = new Model();

/** What of the model is seen in a plane, followed edit by edit; nothing while it is put together. Null in a plan. */
function useSeenFaceOn(plane: UprightPlane | null): Model | null {
  const moment = useMoment('element', 'level');
  const [seen, setSeen] = useState<{ plane: UprightPlane; model: Model } | null>(null);
  useEffect(() => {
    if (plane === null) return;
    let here = true;
    faceOnIn(moment.model, plane).then(
      (rows) => {
        if (!here) return;
        const element = Object.fromEntries(rows.map((row) => [row.id, row]));
        setSeen({ plane, model: new Model({ ...emptyState, element }) });
      },
      () => undefined,
    );
    return () => {
      here = false;
    };
  }, [plane, moment]);
  if (plane === null) return null;
  return seen !== null && seen.plane === plane ? seen.model : nothingSeen;
}

/**
 * What the board shows at a level: its drawings and, at Reading, what was read of them; or an upright drawing, face on.
 * The rows of the model are not part of it: the board follows them by itself.
 */
export function useBoardScene(levelId: string | null): { scene: BoardScene; opening: number } {
  const moment = useMoment('drawing', 'placement', 'role', 'display', 'level', 'project');
  const { model } = moment;
  const unit = useLengths();
  const entries = useUnderlays((store) => store.entries);
  const readings = useReadings((store) => store.readings);
  const pointed = useReadings((store) => store.pointed);
  const chosen = useReadings((store) => store.chosen);
  const selected = useSelected((store) => store.ids);
  const { station, isolated, faceOn: facing, only, axesId } = useView();
  const { overlay, guests } = useOverlay();
  const { dark, tokens } = useScheme();
  const stands = facing !== null && model.placement[facing]?.upright != null && !model.drawing[facing]?.discarded;
  const upright = stands ? facing : null;
  const faded = overlay?.alone ? overlay.drawingId : null;

  const drawings = useMemo(
    () => shownDrawings(moment.model, entries, { levelId, upright, isolated, guests, only, faded }),
    [moment, entries, levelId, upright, isolated, guests, only, faded],
  );
  const reading = station === 'reading' && upright === null;
  const candidates = useMemo(
    () =>
      reading
        ? drawings.map(({ id }): ReadCandidates => ({
            drawingId: id,
            candidates: readings[id]?.result?.candidates ?? [],
          }))
        : noCandidates,
    [reading, drawings, readings],
  );
  const traces = useMemo(() => (upright === null ? tracesOf(moment.model, entries) : []), [moment, entries, upright]);
  const heights = useMemo(() => (upright === null ? null : levelsUp(moment.model)), [moment, upright]);
  const axes = useMemo(() => projectRowOf(moment.model).axes.find(({ id }) => id === axesId) ?? null, [moment, axesId]);
  const plane = useMemo(
    () => (upright === null ? null : planeOf(moment.model.placement[upright] as Placement)),
    [moment, upright],
  );
  const seen = useSeenFaceOn(plane);
  const others = useOtherHands(levelId, upright);
  const source = sourceLevel(model, levelId);
  const axesShown = useTracing((tracing) => tracing.axesShown);
  const picture = useResultPicture(source, plane);
  const scene = useMemo(
    (): BoardScene => ({
      tokens,
      dark,
      unit,
      drawings,
      model: seen ?? model,
      levelId: plane === null ? source : null,
      candidates,
      pointed,
      chosen,
      selected,
      overlay,
      picture,
      traces,
      others,
      heights,
      plane: plane === null ? null : { of: plane, model },
      // In a section what is level and what is upright lead the way.
      axes: plane === null ? axes : null,
      axesShown,
    }),
    [
      tokens,
      dark,
      unit,
      drawings,
      model,
      seen,
      plane,
      source,
      candidates,
      pointed,
      chosen,
      selected,
      overlay,
      picture,
      traces,
      others,
      heights,
      axes,
      axesShown,
    ],
  );
  return { scene, opening: Object.values(entries).filter((entry) => entry.opening).length };
}
