import { useEffect } from 'react';
import { mostDraftPoints, mostShown } from '@/core/here';
import { boxOf } from '@/core/geometry/boxIndex';
import type { Point } from '@/core/geometry/vector';
import type { ElementRow } from '@/core/kinds/element';
import { gridPoints } from '@/core/kinds/grid';
import type { Model } from '@/core/model/model';
import { preparedElement } from '@/board/layers/outlines';
import { useSelected } from '@/project/selected';
import { useSession } from '@/project/useSession';
import { useView } from '@/project/view';

/** Others see what is dragged to the millimetre. */
const rounded = (metres: number): number => Math.round(metres * 1e3) / 1e3;

const closed = (outline: readonly Point[]): Point[] => [...outline, ...outline.slice(0, 1)];

function linesOf(model: Model, row: ElementRow): Point[][] {
  if (row.kind === 'grid') return [gridPoints(row.shape)];
  return preparedElement(row, model.index.hostOf(row)).outlines.map(closed);
}

/** Outlines of what is in the middle of a gesture; the box round it all, where they are too many. */
function draftLines(model: Model, rows: readonly ElementRow[]): Point[][] {
  if (rows.length === 0) return [];
  const lines = rows.flatMap((row) => linesOf(model, row)).map((line) => line.map(([x, y]): Point => [x, y]));
  const points = lines.flat();
  if (points.length === 0) return [];
  const [x1, y1, x2, y2] = boxOf(points);
  const told =
    points.length <= mostDraftPoints
      ? lines
      : [
          closed([
            [x1, y1],
            [x2, y1],
            [x2, y2],
            [x1, y2],
          ]),
        ];
  return told.map((line) => line.map(([x, y]): Point => [rounded(x), rounded(y)]));
}

/** Tells the other windows of the project where this one is and what it has in hand, whenever that changes. */
export function useTellHere(levelId: string | null): void {
  const { others, draft, model } = useSession();
  const station = useView((view) => view.station);
  const faceOn = useView((view) => view.faceOn);
  const ids = useSelected((selected) => selected.ids);
  useEffect(() => {
    const tell = () =>
      others.tell(() => ({
        station,
        levelId,
        faceOn,
        selected: [...ids].slice(0, mostShown),
        count: ids.size,
        draft: draftLines(model, draft.rows),
      }));
    tell();
    // Followed without React: a drag changes it with every frame.
    return draft.subscribe(tell);
  }, [others, draft, model, station, levelId, faceOn, ids]);
}
