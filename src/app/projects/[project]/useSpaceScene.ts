'use client';
import { elementOf } from '@/core/resolved/elementOf';
import { useEffect, useMemo, useRef, useState } from 'react';
import type { Bodies } from '@/core/bodies/bodies';
import type { Place } from '@/core/bodies/shell';
import { apply } from '@/core/geometry/transform';
import type { GridLine } from '@/core/kinds/grid';
import { kinds } from '@/core/kinds/kinds';
import { hangsOn, levelsUp } from '@/core/model/levels';
import type { Model } from '@/core/model/model';
import { envelopeName } from '@/core/structure/envelope';
import { heatInSpace } from '@/core/energy/picture';
import { spacePictureOf, type SpacePicture } from '@/core/structure/spacePicture';
import { drawnZones, useHeat } from '@/project/heat';
import { mainContent } from '@/core/underlay/mainContent';
import type { BoardDrawing } from '@/board/scene';
import type { SpaceBox } from '@/board/space/orbit';
import type { SpaceLabel } from '@/board/space/SpaceLabels';
import { placedLines, type Standing } from '@/board/space/placedLines';
import type { SpaceLines } from '@/board/space/SpacePicture';
import type { SpaceScene } from '@/board/space/SpaceView';
import { bodiesIn } from '@/project/mirror';
import { activeDrawings } from '@/project/projectRow';
import { useSelected } from '@/project/selected';
import { useUnderlays } from '@/project/underlays';
import { envelopeIn, useTrial } from '@/project/trial';
import { useMoment } from '@/project/useSession';
import { useView } from '@/project/view';
import { useScheme } from '@/ui/widgets/useScheme';
import { boardDrawing, type Entries } from './useBoardScene';

/** A drawing in space: the heights of the levels it hangs on, or where it stands upright. */
interface StackedDrawing extends BoardDrawing {
  heights: { levelId: string; elevation: number }[];
  stands: Standing | null;
}

function stackedDrawings(model: Model, entries: Entries): StackedDrawing[] {
  return activeDrawings(model).flatMap((drawing): StackedDrawing[] => {
    const shown = boardDrawing(model, entries, drawing, null);
    const placement = model.placement[drawing.id];
    if (!shown || !shown.display.stacked) return [];
    if (placement.upright !== null)
      return [{ ...shown, heights: [], stands: { at: placement.target, turning: placement.turning } }];
    const levels = levelsUp(model).filter(({ id }) => hangsOn(model, drawing, id));
    const heights = levels.map(({ id, elevation }) => ({ levelId: id, elevation }));
    return heights.length === 0 ? [] : [{ ...shown, heights, stands: null }];
  });
}

/**
 * The model in space, put together again after every edit, or why it could not be; the one before stays until the next
 * is there.
 */
function useBodies(): Bodies | string | null {
  const moment = useMoment('level', 'element');
  const [bodies, setBodies] = useState<Bodies | string | null>(null);
  const asking = useRef<{ again: boolean } | null>(null);
  useEffect(() => {
    // Edits that come while it is put together are put together in one.
    if (asking.current !== null) {
      asking.current.again = true;
      return;
    }
    const ask = async () => {
      const run = { again: false };
      asking.current = run;
      const made = await bodiesIn(moment.model).catch((error: unknown) => String(error));
      asking.current = null;
      setBodies(made);
      if (run.again) void ask();
    };
    void ask();
  }, [moment]);
  return bodies;
}

/**
 * What is seen in space: the model, the drawings at their levels, the grid; or why it cannot be seen; null while it is
 * put together.
 * @param levelId the present level
 */
export function useSpaceScene(levelId: string | null): SpaceScene | string | null {
  const moment = useMoment('drawing', 'placement', 'role', 'display', 'level');
  const entries = useUnderlays((store) => store.entries);
  const selected = useSelected((store) => store.ids);
  const { tokens } = useScheme();
  const { alone, cut, through, axes } = useView((view) => view.space);
  const made = useBodies();
  const bodies = typeof made === 'string' ? null : made;
  const drawings = useMemo(() => stackedDrawings(moment.model, entries), [moment, entries]);
  const only = alone ? levelId : null;
  const lines = useMemo(
    (): SpaceLines[] =>
      bodies === null
        ? []
        : [
            ...drawingLines(drawings, bodies.origin, only, tokens.underlay),
            gridLines(moment.model, drawings, bodies.origin, only, tokens.grid),
          ],
    [bodies, drawings, moment, only, tokens],
  );
  const structure = useSpaceResult(only, bodies?.origin ?? null, tokens.beam);
  const heat = useSpaceHeat(only, bodies?.origin ?? null, tokens.clay);
  const result = structure ?? heat;
  const around = useMemo(() => contentBox(moment.model, drawings), [moment, drawings]);
  const scene = useMemo(
    () =>
      bodies === null
        ? null
        : {
            tokens,
            bodies,
            lines: result === null ? lines : [...lines, result.lines],
            labels: result?.labels ?? noLabels,
            around,
            selected,
            look: { levelId: only, cut, through, axes },
          },
    [tokens, bodies, lines, result, around, selected, only, cut, through, axes],
  );
  return typeof made === 'string' ? made : scene;
}

const noLabels: readonly SpaceLabel[] = [];

/** What of the structural trial is seen in space, while its part of Proof is open. @param only the level seen alone */
function useSpaceResult(
  only: string | null,
  origin: Place | null,
  colour: string,
): { lines: SpaceLines; labels: readonly SpaceLabel[] } | null {
  const { view, result: id, what, carried, scale } = useTrial();
  const open = useView(({ station, proofPart }) => station === 'proof' && proofPart === 'structure');
  const model = useMoment('level').model;
  return useMemo(() => {
    const envelope = id === envelopeName && view !== null ? envelopeIn(view) : null;
    const single = view?.results.find((one) => one.id === id);
    const result = envelope?.most ?? single;
    if (!open || origin === null || view === null || result === undefined) return null;
    const other = envelope?.least;
    const shows = (element: string) => only === null || model.element[elementOf(element)]?.levelId === only;
    const { pieces, labels } = spacePictureOf({ view, result, other, what, carried, shows, scale });
    return { lines: linesOf(pieces, origin, colour), labels };
  }, [open, view, id, what, carried, scale, only, origin, colour, model]);
}

/** Pieces of lines about the origin of what is seen. */
function linesOf(pieces: SpacePicture['pieces'], origin: Place, colour: string): SpaceLines {
  const points = new Float32Array(6 * pieces.length);
  pieces.forEach((ends, i) =>
    ends.forEach((p, k) => points.set([p[0] - origin[0], p[1] - origin[1], p[2] - origin[2]], 6 * i + 3 * k)),
  );
  return { points, colour, strength: 1 };
}

/** The loads of zones in space, and what closes those selected, while that part of Proof is open. */
function useSpaceHeat(
  only: string | null,
  origin: Place | null,
  colour: string,
): { lines: SpaceLines; labels: readonly SpaceLabel[] } | null {
  const view = useHeat((heat) => heat.view);
  const open = useView(({ station, proofPart }) => station === 'proof' && proofPart === 'heat');
  const selected = useSelected(({ ids }) => ids);
  const moment = useMoment('element', 'level');
  return useMemo(() => {
    if (!open || origin === null || view === null) return null;
    const drawn = drawnZones(view, moment.model, selected).filter(({ zone }) => only === null || zone.level === only);
    const { pieces, labels } = heatInSpace(drawn);
    return { lines: linesOf(pieces, origin, colour), labels };
  }, [open, view, selected, only, origin, colour, moment]);
}

function drawingLines(
  drawings: readonly StackedDrawing[],
  origin: Place,
  only: string | null,
  colour: string,
): SpaceLines[] {
  return drawings.flatMap(({ underlay, transform, hidden, stands, heights, display }) => {
    const placed = (elevation: number): SpaceLines => ({
      points: placedLines({ store: underlay.segments, transform, elevation, stands, hidden }, origin),
      colour,
      strength: 1 - display.fade,
    });
    if (stands !== null) return only === null ? [placed(0)] : [];
    return heights.filter(({ levelId }) => only === null || levelId === only).map(({ elevation }) => placed(elevation));
  });
}

/** Grid lines on each level that has a drawing; where none has, on all. */
function gridLines(
  model: Model,
  drawings: readonly StackedDrawing[],
  [ox, oy, oz]: Place,
  only: string | null,
  colour: string,
): SpaceLines {
  const drawn = new Set(drawings.flatMap(({ heights }) => heights.map(({ levelId }) => levelId)));
  const levels = levelsUp(model).filter(
    ({ id }) => (drawn.size === 0 || drawn.has(id)) && (only === null || id === only),
  );
  const points: number[] = [];
  const add = (shape: GridLine, z: number) => {
    const line = kinds.grid.points(shape, null);
    line.slice(1).forEach(([x, y], i) => {
      points.push(line[i][0] - ox, line[i][1] - oy, z - oz, x - ox, y - oy, z - oz);
    });
  };
  for (const { shape } of model.ofKind('grid')) for (const { elevation } of levels) add(shape, elevation);
  return { points: Float32Array.from(points), colour, strength: 1 };
}

/** The main content of all drawings at the heights of the levels. */
function contentBox(model: Model, drawings: readonly StackedDrawing[]): SpaceBox {
  const levels = levelsUp(model);
  const low = Math.min(0, ...levels.map(({ elevation }) => elevation));
  const high = Math.max(1, ...levels.map(({ elevation, height }) => elevation + height));
  const corners = drawings.flatMap(({ underlay: { primitives }, transform, stands }) => {
    const main = stands === null ? mainContent(primitives) : null;
    if (main === null) return [];
    const [ox, oy] = primitives.origin;
    const [[x1, y1], [x2, y2]] = main;
    return [x1, x2].flatMap((x) => [y1, y2].map((y) => apply(transform, [x - ox, y - oy])));
  });
  if (corners.length === 0) return [0, 0, low, 10, 10, high];
  const [xs, ys] = [corners.map(([x]) => x), corners.map(([, y]) => y)];
  return [Math.min(...xs), Math.min(...ys), low, Math.max(...xs), Math.max(...ys), high];
}
